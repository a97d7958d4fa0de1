import { type LadderPlan, rungsBetween, starterPlan, unchangedRungs } from "@/core/ladder";
import { carriedOver } from "@/core/record";
import { ladderPart, onlyNamed } from "@/core/start/part";
import { send } from "@/ui/form";
import { lastPress } from "../../device/undo";
import { namedPart } from "../ladders";
import type { LadderPart } from "../types";
import { adviceFacts, type BeginActs } from "./begin-acts";
import { type Pen, press, refuse } from "./pen";

/** The ladder in work with another plan, as a new version on the server. @returns it, or why it could not be saved. */
async function changePlan({ now }: Pen, next: LadderPlan): Promise<LadderPart | string> {
  const { start } = now();
  const { part } = start;
  const { ladderId, version, revision, behaviourInput } = part;
  const plan = part.ownPlan ?? part.plan;
  if (ladderId === null || version === null || revision === null) return "Only a ladder has rungs to put one between.";
  const sent = await send<{ version: number; revision: number }>("PUT", `/api/ladders/${ladderId}`, {
    behaviour: behaviourInput,
    plan: next,
    revision,
    newVersion: true,
  });
  if (!sent.ok && sent.code === "ladder-conflict") return "This ladder was changed in another window. Load the page again; taps are kept.";
  if (!sent.ok) return `The ladder could not be changed. ${sent.message}`;
  const moved = unchangedRungs(plan, next);
  return ladderPart({
    ladder: { id: ladderId, version: sent.value.version, revision: sent.value.revision },
    behaviourInput,
    plan: next,
    next: part.next,
    planCautions: part.planCautions,
    circlingLeft: start.today.circlingLeft,
    earlier: carriedOver(part.earlier, sent.value.version, new Map([[version, moved]])),
    carried: [
      ...part.carried.map(
        ([of, rungs]) => [of, rungs.flatMap(([old, at]) => (moved.has(at) ? [[old, moved.get(at) as number] as const] : []))] as const,
      ),
      [version, [...moved]],
    ],
  });
}

/** What changes the ladder itself from the pen: a rung put in between, undone, and a new one named. */
export function ladderActs(pen: Pen, { begin }: Pick<BeginActs, "begin">) {
  const { now, setHint, addPart } = pen;
  const { taken } = adviceFacts(pen);
  // A second press while the server is asked must not put the rung in twice.
  let putting = false;
  /** The ladder as it was before a rung was put in, with the version that has it: undo takes the rung out again. */
  let before: { readonly part: LadderPart; readonly version: number } | null = null;

  const change = async (next: LadderPlan) => {
    putting = true;
    try {
      return await changePlan(pen, next);
    } finally {
      putting = false;
    }
  };

  /** @returns why the rung could not be put in, or null. */
  const putRungBetween = async (rung: number, byWord = false): Promise<string | null> => {
    if (putting) return null;
    const { start, block } = now();
    const { ladderId, ownPlan } = start.part;
    const plan = ownPlan ?? start.part.plan;
    if (ladderId === null) return "Only a ladder has rungs to put one between.";
    const put = rungsBetween(plan.strands, plan.rungs, rung, plan.phases.length);
    if (put.length === 0) return `Nothing fits between rung ${rung - 1} and ${rung}.`;
    // What a way changes for its block is no change of the ladder.
    const was = { ...start.part, plan, ownPlan: null };
    const part = await change({ ...plan, rungs: [...plan.rungs.slice(0, rung - 1), ...put, ...plan.rungs.slice(rung - 1)] });
    if (typeof part === "string") return part;
    before = { part: was, version: part.version ?? 0 };
    addPart(part);
    begin({ rung, side: block?.side ?? "L", kind: "work", part }, byWord ? taken() : undefined);
    return null;
  };

  const undo = () => {
    const { events, recorder, start } = now();
    const targets = lastPress(events, recorder);
    if (targets.length === 0) return refuse(pen, "Nothing left to undo on this device.");
    const began = targets.find((event) => event.type === "block.start");
    press(pen, ...targets.map((event) => ({ type: "undo" as const, payload: { event: event.id } })));
    const put = before;
    if (put === null || began === undefined || began.payload.version !== put.version || began.payload.ladder !== start.part.ladderId)
      return;
    before = null;
    // The block that began on it is taken back: the rung goes out of the ladder too.
    void change(put.part.plan).then((part) => {
      if (typeof part === "string") return setHint(`The rung is still in the ladder. ${part}`);
      addPart(part);
    });
  };

  /** A new ladder named on the spot, begun at once. Without the server it is worked under its name and planned later. */
  const nameNew = async (name: string): Promise<void> => {
    const { start, block } = now();
    const like = start.parts[0] ?? null;
    const plan = starterPlan(like?.plan ?? null);
    const behaviourInput = onlyNamed(name);
    const sent = await send<{ id: string }>("POST", "/api/ladders", { horse: start.session.horse.id, behaviour: behaviourInput, plan });
    const part = sent.ok
      ? ladderPart({
          ladder: { id: sent.value.id, version: 1, revision: 1 },
          behaviourInput,
          plan,
          next: namedPart(name, like).next,
          circlingLeft: start.today.circlingLeft,
        })
      : namedPart(name, like);
    if (sent.ok) addPart(part);
    begin({ rung: 1, side: block?.side ?? "L", kind: "work", part });
    if (!sent.ok) pen.setHint(`Worked under its name; plan it in Shape later. ${sent.message}`);
  };

  return { putRungBetween, undo, nameNew };
}
