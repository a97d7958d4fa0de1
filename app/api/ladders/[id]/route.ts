import { getLadder, updateLadder } from "@/store";
import { readLadderBody } from "../../../server/ladder-body";
import { answer, invalid, json, readJson } from "../../../server/respond";
import { restingProblem } from "../../../server/shape-facts";
import { getStore } from "../../../server/store";

export function PUT(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answer(request, async () => {
    const { id } = await params;
    const body = await readJson(request);
    if ("problem" in body) return body.problem;
    const read = readLadderBody(body.value);
    if ("problem" in read) return read.problem;
    const asked = body.value as { newVersion?: unknown };
    const store = await getStore();
    const { horseId } = await getLadder(store, id);
    const circle = await restingProblem(store, horseId, read.behaviour, id);
    if (circle !== null) return invalid([circle]);
    return json({ id, version: await updateLadder(store, id, read.behaviour, read.plan, { newVersion: asked.newVersion === true }) });
  });
}
