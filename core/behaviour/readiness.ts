import { everPassed, movingOnSentence, valuesGoalOf } from "../advice";
import { toldShare } from "../compare";
import { dayOf, dayWords } from "../day";
import { shareOfTrials } from "../evidence";
import type { LadderPlan } from "../ladder";
import type { EvidenceTrial } from "../record/evidence-scope";
import { MILLISECONDS_PER_DAY } from "../units";
import { type Prerequisite, prerequisiteWords, rungReaching, wantsBothSides } from "./prerequisite";

/** A horse's ladder for a behaviour, with its trials, oldest first, as the present version counts them. */
export interface WorkedLadder {
  readonly id: string;
  readonly name: string;
  readonly plan: LadderPlan;
  readonly version: number;
  readonly trials: readonly EvidenceTrial[];
}

/**
 * `shown`: the numbers support it; `stale`: they did, too long ago; `seen`: the
 * first look tested as much, once; `not-yet`: worked, not there; `unknown`:
 * nothing to tell from.
 */
export type ReadinessState = "shown" | "stale" | "seen" | "not-yet" | "unknown";

export interface PrerequisiteReadiness {
  readonly behaviour: string;
  readonly wanted: string;
  readonly ladderId: string | null;
  readonly state: ReadinessState;
  readonly sentence: string;
}

/** The present, and how long what was shown stands. */
export interface ReadinessTime {
  readonly nowWallMs: number;
  readonly staleDays: number;
}

/**
 * Whether something was seen too long ago to go by.
 * @example isStale(1767225600000, { nowWallMs: 1777593600000, staleDays: 90 }) // true
 */
export const isStale = (wallMs: number, { nowWallMs, staleDays }: ReadinessTime): boolean =>
  nowWallMs - wallMs > staleDays * MILLISECONDS_PER_DAY;

/**
 * When, as a trainer says it: the month, and the year where it is another.
 * @example monthOf(Date.UTC(2026, 2, 9), Date.UTC(2026, 10, 1)) // "March"
 */
export function monthOf(wallMs: number, nowWallMs: number): string {
  const [, month, year] = dayWords(dayOf(wallMs)).split(" ");
  return dayOf(nowWallMs).startsWith(year ?? "") ? (month ?? "") : `${month} ${year}`;
}

/**
 * Whether the mastery rule ever held on a rung, or on a later one of the same
 * ladder that reaches as much: what was shown once stays shown.
 */
function everShown(
  ladder: WorkedLadder,
  rung: number,
  need: Prerequisite,
): { passed: boolean; here: readonly EvidenceTrial[]; lastMetMs: number } {
  const { plan, trials, version, id } = ladder;
  const counted = trials
    .filter((trial) => trial.ladder === id && trial.version === version && trial.kind === "work" && trial.rung >= rung)
    .map((trial) =>
      need.maxPhase !== undefined && trial.outcome === "met" && (trial.phase ?? 0) > need.maxPhase
        ? { ...trial, outcome: "try" as const }
        : trial,
    );
  const sides = wantsBothSides(plan, rung, need)
    ? (["L", "R"] as const).map((side) => counted.filter((trial) => trial.side === side))
    : [counted];
  // A rule is passed on one rung: trials of different rungs are never added up.
  const onOneRung = (list: readonly EvidenceTrial[]) =>
    [...new Set(list.map((trial) => trial.rung))].some((one) => {
      const own = list.filter((trial) => trial.rung === one);
      return everPassed(plan.mastery, valuesGoalOf(plan, one), own);
    });
  const here = counted.filter((trial) => trial.rung === rung);
  // The side shown longer ago decides how old it is.
  const lastMetMs = Math.min(...sides.map((list) => list.findLast(({ outcome }) => outcome === "met")?.wallMs ?? 0));
  return { passed: sides.every(onOneRung), here, lastMetMs };
}

/**
 * How ready a horse is, prerequisite by prerequisite. A warning, never a wall.
 * @param need with the behaviour's name for the screen.
 * @param ladder the horse's ladder for that behaviour, or null where it has none.
 * @example prerequisiteReadiness(need, "Front yield", null, { nowWallMs: 1777593600000, staleDays: 90 })
 */
export function prerequisiteReadiness(
  need: Prerequisite,
  name: string,
  ladder: WorkedLadder | null,
  time: ReadinessTime,
): PrerequisiteReadiness {
  const wanted = prerequisiteWords(need);
  const base = { behaviour: name, wanted, ladderId: ladder?.id ?? null };
  if (ladder === null) return { ...base, state: "unknown", sentence: "No ladder for it yet: nothing shows it." };
  const { rung, unknown } = rungReaching(ladder.plan, need);
  const eye = unknown.length === 0 ? "" : ` Its ladder has no ${unknown.join(" or ")}: judge that by eye.`;
  if (rung === null) return { ...base, state: "not-yet", sentence: `Its ladder does not go that far.${eye}` };
  const { passed, here, lastMetMs } = everShown(ladder, rung, need);
  if (passed && isStale(lastMetMs, time))
    return {
      ...base,
      state: "stale",
      sentence: `Shown in ${monthOf(lastMetMs, time.nowWallMs)}, check: not worked for over ${time.staleDays} days.${eye}`,
    };
  if (passed)
    return {
      ...base,
      state: "shown",
      sentence: `Shown from rung ${rung} on, by its rule: ${movingOnSentence(ladder.plan.mastery, valuesGoalOf(ladder.plan, rung))}.${eye}`,
    };
  if (here.length === 0) return { ...base, state: "unknown", sentence: `No work on rung ${rung} of its ladder yet.${eye}` };
  return {
    ...base,
    state: "not-yet",
    sentence: `Rung ${rung}: ${toldShare(shareOfTrials(here), "so far").sentence} Its rule is not passed yet.${eye}`,
  };
}

/** The whole in one sentence, or null where nothing is wanted or all of it is shown. @example readinessWarning(list) */
export function readinessWarning(list: readonly PrerequisiteReadiness[]): string | null {
  const named = (of: readonly ReadinessState[]) =>
    list
      .filter(({ state }) => of.includes(state))
      .map(({ behaviour, wanted }) => (wanted === "" ? behaviour : `${behaviour} (${wanted})`))
      .join("; ");
  const lacking = named(["not-yet", "unknown"]);
  const check = named(["stale"]);
  return lacking === "" && check === ""
    ? null
    : [
        ...(lacking === "" ? [] : [`Not shown yet: ${lacking}.`]),
        ...(check === "" ? [] : [`Shown long ago, check first: ${check}.`]),
        "You may go on; expect it to be harder.",
      ].join(" ");
}
