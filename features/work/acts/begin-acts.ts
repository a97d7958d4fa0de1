import { adviceLogged } from "@/core/advice/keys";
import { FIRST_LOOK_ITEMS, type FirstLookStep } from "@/core/know";
import { type LadderPlan, sideAsked } from "@/core/ladder";
import type { Fact } from "@/core/schemas";
import { barredRung } from "@/core/welfare";
import { SIDE_WORDS } from "@/core/words";
import { blockFacts, rungNumber } from "../block-facts";
import type { AtWork, BlockChoice, Side } from "../types";
import { type Pen, press, refuse } from "./pen";

/** The block for a step of the battery: a test, not teaching. */
export const stepChoice = ({ item, side }: FirstLookStep): BlockChoice => ({
  rung: FIRST_LOOK_ITEMS.indexOf(item) + 1,
  side,
  kind: "probe",
});

const OTHER: Record<Side, Side> = { L: "R", R: "L" };

/** A block is of the kind that was chosen for it; the next one is work again, or another test of the battery. */
const nextKind = ({ session: { battery } }: Pick<AtWork, "session">): BlockChoice["kind"] => (battery ? "probe" : "work");

/** Why a side is not what the rung asks for, or null where it is. */
export function wrongSide(plan: LadderPlan, rung: number, side: Side | null): string | null {
  const asked = sideAsked(plan, rung);
  if (asked === null || side === null || side === asked) return null;
  return `Rung ${rung} asks for the ${SIDE_WORDS[asked]}; answers on the ${SIDE_WORDS[side]} count as tries.`;
}

/** The word beside what is done: taken, or gone against with what was done instead. */
export function adviceFacts({ now }: Pick<Pen, "now">) {
  /** The word that stands, as it was taken. */
  const taken = (): Fact[] => {
    const { advice } = now();
    if (advice === null) return [];
    // Start is no advice that could be taken or left: it stands until the first ask.
    return advice.word === "Start" ? [] : [{ type: "word", payload: adviceLogged(advice, true) }];
  };

  /** What is done instead of the word is logged beside it, so that both can be looked at later; who does what it says has taken it. */
  const beside = (did: string, asSaid: boolean): Fact[] => {
    const { advice, start, working } = now();
    // The stop card is answered by its own fact.
    if (advice === null || advice.word === "Stop" || start.session.battery || !working) return [];
    if (asSaid) return taken();
    return [{ type: "word", payload: adviceLogged(advice, false, did) }];
  };

  return { taken, beside };
}

/** Blocks begun, sides changed, breaks. */
export function beginActs(pen: Pen) {
  const { now, setPhase, setSheet, setHint } = pen;
  const { beside } = adviceFacts(pen);

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
    else if (working) press(pen, ...beside("break", advice?.word === "Break"), { type: "break.start", payload: { reason: "rest" } });
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

  return { begin, takeBreak, side };
}

export type BeginActs = ReturnType<typeof beginActs>;
