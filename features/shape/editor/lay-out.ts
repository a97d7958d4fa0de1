import {
  type LaidRung,
  type LayoutLeg,
  type LayoutOrder,
  type LayoutStrand,
  layOut,
  MOST_RUNGS,
  type Rung,
  rungValueProblem,
} from "@/core/ladder";
import { difficulty, GREATEST_STEP_RATIO, type Strand, type StrandValue, templateOf } from "@/core/strands";

/** What the person lays out: start and goal of each strand, the order, and how much is eased. */
export interface LayoutWish {
  readonly ends: Readonly<Record<string, { readonly start: StrandValue; readonly goal: StrandValue }>>;
  /** Ids of the strands in the order they are to go. */
  readonly strandOrder: readonly string[];
  readonly order: LayoutOrder;
  readonly easeOnNew: number;
  readonly legs: readonly LayoutLeg[];
}

export type LaidOut = { readonly rungs: readonly Rung[] } | { readonly problem: string; readonly strandId: string | null };

function asLayoutStrand(strand: Strand, start: StrandValue, goal: StrandValue): LayoutStrand {
  if (strand.kind === "levels") return { id: strand.id, kind: "levels", levels: strand.levels, start: String(start), goal: String(goal) };
  const { wholeNumbers, leastStep } = templateOf(strand.key);
  return {
    id: strand.id,
    kind: "number",
    start: Number(start),
    goal: Number(goal),
    maxRatio: GREATEST_STEP_RATIO,
    least: leastStep,
    whole: wholeNumbers,
  };
}

/** Lays a ladder out, or says in words for the screen what is wrong and at which strand. */
export function layOutWish(strands: readonly Strand[], phases: number, wish: LayoutWish): LaidOut {
  const ordered = wish.strandOrder.flatMap((id) => strands.find((strand) => strand.id === id) ?? []);
  for (const strand of ordered) {
    const { start, goal } = wish.ends[strand.id] ?? { start: "", goal: "" };
    const problem = rungValueProblem(strand, start, phases) ?? rungValueProblem(strand, goal, phases);
    if (problem !== null) return { problem, strandId: strand.id };
    if (difficulty(strand, goal) < difficulty(strand, start))
      return { problem: `${strand.name}: the goal is easier than the start.`, strandId: strand.id };
  }
  for (const { id, to } of wish.order === "own" ? wish.legs : []) {
    const strand = ordered.find((one) => one.id === id);
    const { start, goal } = wish.ends[id] ?? { start: "", goal: "" };
    if (strand === undefined) return { problem: "A leg names a strand that is gone.", strandId: null };
    const problem = rungValueProblem(strand, to, phases);
    if (problem !== null) return { problem, strandId: id };
    if (difficulty(strand, to) < difficulty(strand, start) || difficulty(strand, to) > difficulty(strand, goal))
      return { problem: `${strand.name}: its legs lie between its start and its goal.`, strandId: id };
  }
  const stray = strayLeg(ordered, wish);
  if (stray !== null) return { problem: `${stray.name}: each of its legs goes on from the one before.`, strandId: stray.id };
  let laid: readonly LaidRung[];
  try {
    laid = layOut(
      ordered.map((strand) => {
        const { start, goal } = wish.ends[strand.id] ?? { start: "", goal: "" };
        return asLayoutStrand(strand, start, goal);
      }),
      wish,
    );
  } catch (thrown) {
    if (!(thrown instanceof RangeError)) throw thrown;
    return { problem: "That would be hundreds of rungs. Bring a goal nearer, or make two ladders.", strandId: null };
  }
  if (laid.length < 2) return { problem: "Start and goal are the same: there is nothing to climb.", strandId: null };
  if (laid.length > MOST_RUNGS)
    return {
      problem: `That makes ${laid.length} rungs; a ladder holds at most ${MOST_RUNGS}. Bring a goal nearer, or make two ladders.`,
      strandId: null,
    };
  return { rungs: laid.map((values) => ({ values })) };
}

/** A strand whose legs go back. */
function strayLeg(strands: readonly Strand[], { order, legs }: LayoutWish): Strand | null {
  if (order !== "own") return null;
  return (
    strands.find((strand) => {
      const own = legs.filter(({ id }) => id === strand.id).map(({ to }) => difficulty(strand, to));
      return own.some((place, i) => i > 0 && place < (own[i - 1] as number));
    }) ?? null
  );
}
