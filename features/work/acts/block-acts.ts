import type { DueTry } from "@/core/experiment";
import { batteryPlace, FIRST_LOOK_ITEMS, FIRST_LOOK_STEPS, type FirstLookStep } from "@/core/know";
import { type LadderPlan, rungsBetween, sideAsked, starterPlan, unchangedRungs } from "@/core/ladder";
import { carriedOver, WENT_ON } from "@/core/record";
import type { Fact } from "@/core/schemas";
import { ladderPart, onlyNamed } from "@/core/start/part";
import { barredRung, type Sky } from "@/core/welfare";
import { SIDE_WORDS } from "@/core/words";
import { send } from "@/ui/form";
import { lastPress } from "../../device/undo";
import { blockFacts, isAside, planBlock, rungNumber } from "../block-facts";
import { namedPart } from "../ladders";
import type { AtWork, BlockChoice, LadderPart, Side } from "../types";
import { type Pen, press, refuse } from "./pen";

/** The block for a step of the battery: a test, not teaching. */
export const stepChoice = ({ item, side }: FirstLookStep): BlockChoice => ({
  rung: FIRST_LOOK_ITEMS.indexOf(item) + 1,
  side,
  kind: "probe",
});

const OTHER: Record<Side, Side> = { L: "R", R: "L" };

/** What the finish asks for, one line each. */
export interface FinishNotes {
  readonly better: string;
  readonly next: string;
  readonly handler: string;
}

/** What was looked at before work. */
export interface Preflight {
  readonly air_c?: number;
  readonly humidity?: number;
  readonly sky?: Sky;
  readonly wind?: string;
  readonly gear: { readonly helmet: boolean; readonly gloves: boolean; readonly boots: boolean };
  readonly checks: readonly string[];
  readonly open: readonly string[];
  readonly pouch?: number;
}

/** What was done after work. */
export interface Aftercare {
  readonly walked_off: boolean;
  readonly legs: string;
  readonly kit: string;
  readonly food_g: number | null;
  readonly breathing: readonly { readonly wall_ms: number; readonly per_min: number }[];
}

/** A block is of the kind that was chosen for it; the next one is work again, or another test of the battery. */
const nextKind = ({ session: { battery } }: Pick<AtWork, "session">): BlockChoice["kind"] => (battery ? "probe" : "work");

/** Why a side is not what the rung asks for, or null where it is. */
export function wrongSide(plan: LadderPlan, rung: number, side: Side | null): string | null {
  const asked = sideAsked(plan, rung);
  if (asked === null || side === null || side === asked) return null;
  return `Rung ${rung} asks for the ${SIDE_WORDS[asked]}; answers on the ${SIDE_WORDS[side]} count as tries.`;
}

/** Blocks, sides, breaks, the word and the end. */
export function blockActs(pen: Pen) {
  const { now, log, setPhase, setSheet, setHint, addPart } = pen;

  /** The word that stands, as it was taken. */
  const taken = (): Fact[] => {
    const { advice } = now();
    if (advice === null) return [];
    return [
      { type: "word", payload: { word: advice.word, why: advice.why, reason: advice.reason, numbers: { ...advice.numbers }, taken: true } },
    ];
  };

  /** What is done instead of the word is logged beside it, so that both can be looked at later; who does what it says has taken it. */
  const beside = (did: string, asSaid: boolean): Fact[] => {
    const { advice, start, working } = now();
    // The stop card is answered by its own fact.
    if (advice === null || advice.word === "Stop" || start.session.battery || !working) return [];
    if (asSaid) return taken();
    return [
      {
        type: "word",
        payload: { word: advice.word, why: advice.why, reason: advice.reason, numbers: { ...advice.numbers }, taken: false, did },
      },
    ];
  };

  /** @param word the word's own fact where it is taken, an empty list where nothing is to be said; otherwise what is done is logged beside the word. */
  const begin = (choice: BlockChoice, word?: readonly Fact[]) => {
    const { start, record, block, advice } = now();
    const plan = choice.part?.plan ?? start.part.plan;
    const why = barredRung(plan, choice.rung, start.today.allowance)[0]?.why ?? choice.part?.next.barred ?? null;
    if (why !== null) return refuse(pen, `Not today. ${why}`);
    setSheet(null);
    setPhase(1);
    const other = choice.part !== undefined && choice.part.ladderId !== start.part.ladderId;
    const did = other
      ? choice.part?.behaviour
      : `rung ${choice.rung}${choice.side === null ? "" : choice.side === "L" ? ", left" : ", right"}`;
    const asSaid =
      !other &&
      (advice?.word === "Change side"
        ? choice.side !== (block?.side ?? null) && choice.rung === Number(block?.rung)
        : advice?.rung !== undefined && advice.rung === choice.rung);
    press(pen, ...(word ?? beside(did ?? "", asSaid)), ...blockFacts(start, record, choice));
    // Said at the change, not after ten answers that all fall short.
    const wrong = start.session.battery ? null : wrongSide(plan, choice.rung, choice.side);
    if (wrong !== null) setHint(wrong);
  };

  const takeBreak = () => {
    const { onBreak, working, advice } = now();
    if (onBreak) press(pen, { type: "break.end" });
    else if (working) press(pen, ...beside("break", advice?.word === "Rest"), { type: "break.start", payload: { reason: "rest" } });
    else refuse(pen, "Start a block first.");
  };

  const side = () => {
    const { start, block, working } = now();
    if (!working || block === null) return refuse(pen, "Start a block first.");
    if (start.session.battery && block.side === null) return refuse(pen, "This item has no sides.");
    const only = start.today.allowance.side;
    if (only !== null) return refuse(pen, only.why);
    begin({ rung: rungNumber(start, block), side: OTHER[block.side ?? "L"], kind: nextKind(start) });
  };

  // A second press while the server is asked must not put the rung in twice.
  let putting = false;
  /** The ladder as it was before a rung was put in, with the version that has it: undo takes the rung out again. */
  let before: { readonly part: LadderPart; readonly version: number } | null = null;

  /** The ladder in work with another plan, as a new version on the server. @returns it, or why it could not be saved. */
  const changePlan = async (next: LadderPlan): Promise<LadderPart | string> => {
    const { start } = now();
    const { part } = start;
    const { ladderId, version, revision, behaviourInput } = part;
    const plan = part.ownPlan ?? part.plan;
    if (ladderId === null || version === null || revision === null) return "Only a ladder has rungs to put one between.";
    putting = true;
    const sent = await send<{ version: number; revision: number }>("PUT", `/api/ladders/${ladderId}`, {
      behaviour: behaviourInput,
      plan: next,
      revision,
      newVersion: true,
    });
    putting = false;
    if (!sent.ok && sent.code === "ladder-conflict")
      return "This ladder was changed in another window. Load the page again; taps are kept.";
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
    const part = await changePlan({ ...plan, rungs: [...plan.rungs.slice(0, rung - 1), ...put, ...plan.rungs.slice(rung - 1)] });
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
    void changePlan(put.part.plan).then((part) => {
      if (typeof part === "string") return setHint(`The rung is still in the ladder. ${part}`);
      addPart(part);
    });
  };

  /** The block that is due of an experiment, on its own ladder and rung. */
  const tryBoth = ({ of, tries, way }: DueTry) => {
    const { start, block } = now();
    const part = of.ladder === start.part.ladderId ? undefined : start.parts.find(({ ladderId }) => ladderId === of.ladder);
    const on = part ?? start.part;
    const { noFood } = start.today.allowance;
    if (tries.reinforcer === "food" && noFood !== null) return refuse(pen, `This block is worked with food. ${noFood.why}`);
    if (on.ladderId !== of.ladder) return refuse(pen, "The ladder it is tried on is put away.");
    // A rung that stands unchanged in a later version is the same rung under its present number.
    const rung =
      on.version === of.version
        ? of.rung
        : on.carried.find(([version]) => version === of.version)?.[1].find(([old]) => old === of.rung)?.[1];
    if (rung === undefined) return refuse(pen, `The rung it is tried on was changed. End the experiment under Review.`);
    begin(
      {
        rung,
        side: sideAsked(on.plan, rung) ?? block?.side ?? "L",
        kind: "work",
        ...(part === undefined ? {} : { part }),
        tries: { ...tries, asks: of.asksEach },
      },
      [],
    );
    setHint(`Try both, block ${tries.n} of ${of.arms.length}: ${way}.`);
  };

  return {
    begin,
    takeBreak,
    tryBoth,
    side,
    putRungBetween: (rung: number) => putRungBetween(rung),
    /** A new ladder named on the spot, begun at once. Without the server it is worked under its name and planned later. */
    nameNew: async (name: string): Promise<void> => {
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
    },
    undo,
    closeTouch: () => {
      setSheet(null);
      const { record, start } = now();
      const plan = planBlock(start, record);
      if (!isAside(start, record)) return;
      if (plan === null) press(pen, { type: "block.end" });
      else begin({ rung: rungNumber(start, plan), side: plan.side, kind: plan.kind ?? "work" }, []);
    },
    takeWord: () => {
      const { advice, block, start, onBreak, record } = now();
      if (start.session.battery) {
        const { next } = batteryPlace(record);
        const step = next === null ? undefined : FIRST_LOOK_STEPS[next];
        if (step === undefined) setSheet("finish");
        else begin(stepChoice(step));
        return;
      }
      if (advice === null || block === null) return;
      const { word, rung } = advice;
      if ((word === "Raise" || word === "Ease") && rung !== undefined) begin({ rung, side: block.side ?? "L", kind: "work" }, taken());
      if (word === "Split")
        void putRungBetween(Number(block.rung), true).then((problem) => {
          if (problem !== null) refuse(pen, problem);
        });
      if (word === "Change side") side();
      if (word === "Rest" && !onBreak) takeBreak();
      // The stop card answers danger and pain itself.
      if (word === "Stop" && advice.why !== "danger" && advice.why !== "pain") {
        if (rung !== undefined) begin({ rung, side: block.side ?? "L", kind: "work" }, taken());
        else {
          log(...taken());
          setSheet("finish");
        }
        return;
      }
      if (word === "Finish" && rung !== undefined && block.kind !== "sure") begin({ rung, side: block.side ?? "L", kind: "sure" }, taken());
      else if (word === "Finish") {
        log(...taken());
        setSheet("finish");
      }
    },
    preflight: (checked: Preflight) =>
      press(pen, { type: "preflight", payload: { ...checked, checks: [...checked.checks], open: [...checked.open], skipped: false } }),
    skipPreflight: () => press(pen, { type: "preflight", payload: { skipped: true } }),
    aftercare: (care: Aftercare) => press(pen, { type: "aftercare", payload: { ...care, breathing: [...care.breathing] } }),
    /** The silence since the last tap was work: a phone in a pocket, a horse that stood. */
    wentOn: () => {
      const { lastTapId } = now().record;
      if (lastTapId === null) return;
      // The end of no break is a tap of now: it holds up to here, and a silence after it is heard anew.
      press(
        pen,
        { type: "correct", payload: { event: lastTapId, payload: { [WENT_ON]: true }, reason: "we went on" } },
        { type: "break.end", payload: { reason: "we went on" } },
      );
    },
    finish: (notes: FinishNotes) => {
      const facts: Fact[] = ["Finish", "Stop"].includes(now().advice?.word ?? "") ? [] : beside("finish", false);
      if (now().onBreak) facts.push({ type: "break.end" });
      if (now().working) facts.push({ type: "block.end" });
      facts.push({ type: "session.end" });
      for (const about of ["better", "next", "handler"] as const)
        if (notes[about].trim() !== "") facts.push({ type: "note", payload: { text: notes[about].trim(), about } });
      log(...facts);
    },
  };
}
