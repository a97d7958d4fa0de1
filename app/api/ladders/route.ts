import { fieldsOf } from "@/core/typed";
import { addLadder } from "@/store";
import { readLadderBody } from "../../server/ladder-body";
import { answer, invalid, json, readJson } from "../../server/respond";
import { refuseCircles } from "../../server/shape-facts";
import { getStore } from "../../server/store";

export function POST(request: Request) {
  return answer(request, async () => {
    const body = await readJson(request);
    if ("problem" in body) return body.problem;
    const { horse } = fieldsOf(body.value);
    if (typeof horse !== "string") return invalid([{ path: "horse", message: "Which horse it is for is missing." }]);
    const read = readLadderBody(body.value, ["horse"]);
    if ("problem" in read) return read.problem;
    const store = await getStore();
    const check = () => refuseCircles(store, horse, read.behaviour, null);
    return json({ id: await addLadder(store, horse, read.behaviour, read.plan, { check }) }, 201);
  });
}
