import { addLadder } from "@/store";
import { readLadderBody } from "../../server/ladder-body";
import { answer, invalid, json, readJson } from "../../server/respond";
import { refuseCircles } from "../../server/shape-facts";
import { getStore } from "../../server/store";

export function POST(request: Request) {
  return answer(request, async () => {
    const body = await readJson(request);
    if ("problem" in body) return body.problem;
    const value = body.value as { horse?: unknown } | null;
    if (typeof value !== "object" || value === null || typeof value.horse !== "string")
      return invalid([{ path: "horse", message: "Which horse it is for is missing." }]);
    const read = readLadderBody(value, ["horse"]);
    if ("problem" in read) return read.problem;
    const store = await getStore();
    const { horse } = value;
    const check = () => refuseCircles(store, horse as string, read.behaviour, null);
    return json({ id: await addLadder(store, horse as string, read.behaviour, read.plan, { check }) }, 201);
  });
}
