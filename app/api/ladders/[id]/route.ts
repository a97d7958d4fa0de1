import { updateLadder } from "@/store";
import { readLadderBody } from "../../../server/ladder-body";
import { answer, json, readJson } from "../../../server/respond";
import { getStore } from "../../../server/store";

export function PUT(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answer(request, async () => {
    const { id } = await params;
    const body = await readJson(request);
    if ("problem" in body) return body.problem;
    const read = readLadderBody(body.value);
    if ("problem" in read) return read.problem;
    return json({ id, version: await updateLadder(await getStore(), id, read.behaviour, read.plan) });
  });
}
