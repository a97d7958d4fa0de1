import * as yup from "yup";
import { type LateBlock, lateBlockProblem } from "@/core/entry";
import { criterionOf, type LadderPlan, sideAsked } from "@/core/ladder";
import { typedCount } from "@/ui/form";

/** A ladder a block may have been worked on. */
export interface LateLadder {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly rung: number;
  readonly plan: LadderPlan;
}

/** A block as it is typed. */
export interface LateRow {
  ladder: string;
  rung: number;
  side: "L" | "R" | "";
  kind: "work" | "warm-up" | "probe" | "sure";
  minutes: string;
  met: string;
  light: string;
  try: string;
  miss: string;
  refused: string;
  /** The phase of the others, or empty where nobody remembers. */
  phase: string;
}

/** A session as it is typed from memory. */
export interface LateValues {
  when: string;
  person: string;
  place: string;
  rows: LateRow[];
  better: string;
  next: string;
}

export const MOST_LATE_BLOCKS = 30;

/** The ladder a row names; the first where it is gone. */
export const ladderOf = (row: Pick<LateRow, "ladder">, ladders: readonly LateLadder[]): LateLadder =>
  ladders.find(({ id }) => id === row.ladder) ?? (ladders[0] as LateLadder);

/** A block to begin with: like the one before on the other side, without its counts. */
export function blankRow(ladders: readonly LateLadder[], like?: LateRow): LateRow {
  const ladder = like === undefined ? (ladders[0] as LateLadder) : ladderOf(like, ladders);
  const rung = like?.rung ?? ladder.rung;
  return {
    ladder: ladder.id,
    rung,
    side: sideAsked(ladder.plan, rung) ?? (like?.side === "L" ? "R" : "L"),
    kind: "work",
    minutes: like?.minutes ?? "5",
    met: "",
    light: "",
    try: "",
    miss: "",
    refused: "",
    phase: "",
  };
}

/** A row's place on a ladder: a rung that names a side is worked on that one. */
export const rowAt = (row: LateRow, to: LateLadder, rung: number): LateRow => ({
  ...row,
  ladder: to.id,
  rung,
  side: sideAsked(to.plan, rung) ?? row.side,
  phase: to.id === row.ladder ? row.phase : "",
});

/** A typed row as a block. What is no number is NaN, which the block's own check refuses. */
export function lateBlockOf(row: LateRow, ladders: readonly LateLadder[]): LateBlock {
  const { id, version, name, plan } = ladderOf(row, ladders);
  return {
    behaviour: name,
    ladder: id,
    version,
    rung: row.rung,
    criterion: criterionOf(plan, row.rung),
    side: row.side === "" ? null : row.side,
    kind: row.kind,
    planned: plan.plannedRepetitions,
    minutes: typedCount(row.minutes),
    met: typedCount(row.met),
    try: typedCount(row.try),
    miss: typedCount(row.miss),
    refused: typedCount(row.refused),
    metAtLightest: row.light.trim() === "" ? null : typedCount(row.light),
    phase: row.phase === "" ? null : Number(row.phase),
  };
}

/** A session that was over by now, with blocks that come out as they are written. */
export function lateSchema(ladders: readonly LateLadder[]): yup.AnyObjectSchema {
  const when = yup.string().test("when", (text, { parent, createError }) => {
    const startMs = new Date(text ?? "").getTime();
    if (!Number.isFinite(startMs) || startMs < Date.UTC(1980, 0, 1)) return createError({ message: "A day and a time are needed." });
    const minutes = (parent as LateValues).rows.reduce((sum, row) => sum + Math.max(0, typedCount(row.minutes) || 0), 0);
    return startMs + minutes * 60_000 <= Date.now() || createError({ message: "It must be over by now." });
  });
  const row = yup.mixed<LateRow>().test("block", (value, { createError }) => {
    const problem = value === undefined ? null : lateBlockProblem(lateBlockOf(value as LateRow, ladders));
    return problem === null || createError({ message: problem });
  });
  return yup.object({ when, rows: yup.array().of(row).max(MOST_LATE_BLOCKS) });
}
