import { masterySentence } from "../mastery";
import { type Strand, shortNumber } from "../strands";
import type { LadderPlan } from "./ladder";
import { METHOD_GUIDES } from "./method-guide";
import { scheduleSentence } from "./schedule";
import { unchangedRungs } from "./unchanged";
import { WAYS, wayOf } from "./ways";

/** What a later version changed, for the chart and in words. */
export interface PlanChange {
  /** For each rung of the later version: the rung of the earlier one it is unchanged from, or null. */
  readonly from: readonly (number | null)[];
  /** Strands, by id in the later version, whose value differs from the rung at the same place in the order; all of them where the rung is new. */
  readonly changed: readonly (readonly string[])[];
  /** Rungs of the earlier version that are gone. */
  readonly gone: readonly number[];
  readonly sentences: readonly string[];
}

const rungs = (list: readonly number[]) =>
  list.length === 1 ? `Rung ${list[0]}` : `Rungs ${list.slice(0, -1).join(", ")} and ${list.at(-1)}`;

function otherSentences(before: LadderPlan, after: LadderPlan): string[] {
  const out: string[] = [];
  const say = (what: string, a: string, b: string) => {
    if (a !== b) out.push(`${what}: ${b === "" ? "none" : b}${a === "" ? "" : `, was ${a}`}.`);
  };
  const names = (plan: LadderPlan) => plan.strands.map(({ name }) => name);
  const added = names(after).filter((name) => !names(before).includes(name));
  const removed = names(before).filter((name) => !names(after).includes(name));
  if (added.length > 0) out.push(`New strand: ${added.join(", ")}.`);
  if (removed.length > 0) out.push(`Strand left out: ${removed.join(", ")}.`);
  say("The ask", before.phases.map((p) => p.label).join(", "), after.phases.map((p) => p.label).join(", "));
  say("Longest ask", `${shortNumber(before.maximumSeconds)} s`, `${shortNumber(after.maximumSeconds)} s`);
  say("Moves on when", masterySentence(before.mastery), masterySentence(after.mastery));
  say("Method", METHOD_GUIDES[before.method].name, METHOD_GUIDES[after.method].name);
  say("Reinforced", scheduleSentence(before.schedule), scheduleSentence(after.schedule));
  for (const { key, question } of WAYS) say(question, wayOf(before.ways, key).name, wayOf(after.ways, key).name);
  return out;
}

/**
 * Compares two versions of a plan.
 * @example planChanges(before, after) // { from: [1, 2], changed: [[], []], gone: [], sentences: [] }
 */
export function planChanges(before: LadderPlan, after: LadderPlan): PlanChange {
  const pairs = unchangedRungs(before, after);
  const from = after.rungs.map((_, i) => [...pairs].find(([, to]) => to === i + 1)?.[0] ?? null);
  const oldOf = (strand: Strand) => before.strands.find((one) => one.id === strand.id && one.kind === strand.kind);
  const free = before.rungs.map((_, i) => i + 1).filter((number) => !pairs.has(number));
  const rewritten: number[] = [];
  const fresh: number[] = [];
  const used = new Set<number>();
  const changed = after.rungs.map((rung, i) => {
    if (from[i] !== null) return [];
    // Between the same unchanged neighbours a rung was rewritten; anything beyond is new.
    const lowest = Math.max(0, ...[...pairs].filter(([, to]) => to < i + 1).map(([old]) => old));
    const old = free.find((number) => number > lowest && !used.has(number) && [...pairs].every(([o, to]) => to < i + 1 || o > number));
    if (old === undefined) {
      fresh.push(i + 1);
      return after.strands.map(({ id }) => id);
    }
    used.add(old);
    rewritten.push(i + 1);
    const was = before.rungs[old - 1]?.values ?? {};
    return after.strands.filter((strand) => oldOf(strand) === undefined || was[strand.id] !== rung.values[strand.id]).map(({ id }) => id);
  });
  const gone = free.filter((number) => !used.has(number));
  const moved = from.flatMap((old, i) => (old !== null && old !== i + 1 ? [i + 1] : []));
  const sentences = [
    ...(fresh.length > 0 ? [`${rungs(fresh)} ${fresh.length === 1 ? "is" : "are"} new.`] : []),
    ...(rewritten.length > 0 ? [`${rungs(rewritten)} ${rewritten.length === 1 ? "asks" : "ask"} something else.`] : []),
    ...(gone.length > 0 ? [`${rungs(gone)} of the version before ${gone.length === 1 ? "is" : "are"} gone.`] : []),
    ...(moved.length > 0
      ? [`${rungs(moved)} ${moved.length === 1 ? "stands" : "stand"} at another place and ${moved.length === 1 ? "asks" : "ask"} the same.`]
      : []),
    ...otherSentences(before, after),
  ];
  return { from, changed, gone, sentences };
}

/**
 * Whether two plans differ in a setting that no sentence of {@link planChanges}
 * tells: how a phase presses and for how long, feeding, the first touch, the
 * transfer of a cue, what an offer earns, the counted strand, repetitions.
 *
 * @example otherSettingsDiffer(plan, { ...plan, plannedRepetitions: 3 }) // true
 */
export function otherSettingsDiffer(before: LadderPlan, after: LadderPlan): boolean {
  const settings = ({
    phases,
    feeding,
    transfer,
    holdOnWrong,
    firstTouchCentimetres,
    offers,
    workingStrandId,
    plannedRepetitions,
  }: LadderPlan) =>
    JSON.stringify([
      phases.map(({ kind, profile, dwellSeconds, pulsesPerMinute }) => [kind, profile, dwellSeconds, pulsesPerMinute ?? null]),
      [feeding.reinforcer, feeding.pieceGrams ?? null, feeding.dayLimitGrams ?? null, feeding.where, feeding.politeSeconds],
      transfer?.gapSeconds ?? null,
      [holdOnWrong, firstTouchCentimetres ?? null, offers, workingStrandId ?? null, plannedRepetitions],
    ]);
  return settings(before) !== settings(after);
}
