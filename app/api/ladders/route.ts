import { addLadder } from "@/store";
import { readLadderBody } from "../../server/ladder-body";
import { answer, invalid, json, readJson } from "../../server/respond";
import { restingProblem } from "../../server/shape-facts";
import { getStore } from "../../server/store";

export function POST(request: Request) {
  return answer(request, async () => {
    const body = await readJson(request);
    if ("problem" in body) return body.problem;
    const value = body.value as { horse?: unknown } | null;
    if (typeof value !== "object" || value === null || typeof value.horse !== "string")
      return invalid([{ path: "horse", message: "Which horse it is for is missing." }]);
    const read = readLadderBody(value);
    if ("problem" in read) return read.problem;
    const store = await getStore();
    const circle = await restingProblem(store, value.horse, read.behaviour, null);
    if (circle !== null) return invalid([circle]);
    return json({ id: await addLadder(store, value.horse, read.behaviour, read.plan) }, 201);
  });
}
