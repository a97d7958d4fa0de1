import { fieldsOf, isWhole } from "@/core/typed";
import { asBehaviour, brokenLadder, isLadderConflict, updateLadder } from "@/store";
import { readLadderBody } from "../../../server/ladder-body";
import { answer, invalid, json, readJson } from "../../../server/respond";
import { refuseCircles } from "../../../server/shape-facts";
import { getStore } from "../../../server/store";

/** Saves an edit that began on a revision; where the ladder was changed since, both are there to choose from. */
export function PUT(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answer(request, async () => {
    const { id } = await params;
    const body = await readJson(request);
    if ("problem" in body) return body.problem;
    const read = readLadderBody(body.value, ["revision", "newVersion"]);
    if ("problem" in read) return read.problem;
    const { revision, newVersion = false } = fieldsOf(body.value);
    if (!isWhole(revision)) return invalid([{ path: "revision", message: "Which revision the edit began on is missing." }]);
    if (typeof newVersion !== "boolean") return invalid([{ path: "newVersion", message: "New version: yes or no." }]);
    const store = await getStore();
    const check = async () => refuseCircles(store, (await brokenLadder(store, id)).horseId, read.behaviour, id);
    try {
      const version = await updateLadder(store, id, read.behaviour, read.plan, { revision, newVersion, check });
      return json({ id, version, revision: revision + 1 });
    } catch (error) {
      if (!isLadderConflict(error)) throw error;
      const { present } = error;
      const there = { behaviour: asBehaviour(present.behaviour), plan: present.plan, revision: present.revision, version: present.version };
      return json(
        { type: "about:blank", title: "Changed elsewhere", status: 409, detail: error.message, code: "ladder-conflict", present: there },
        409,
      );
    }
  });
}
