import { toldShare } from "../compare";
import { shareOfTrials } from "../evidence";
import type { LadderPlan } from "../ladder";
import type { EvidenceTrial } from "../record/evidence-scope";
import { everPassed, movingOnSentence, valuesGoalOf } from "../word";
import { type Prerequisite, prerequisiteWords, rungReaching, wantsBothSides } from "./prerequisite";

/** A horse's ladder for a behaviour, with its trials, oldest first, as the present version counts them. */
export interface WorkedLadder {
  readonly id: string;
  readonly name: string;
  readonly plan: LadderPlan;
  readonly version: number;
  readonly trials: readonly EvidenceTrial[];
}

export interface PrerequisiteReadiness {
  readonly behaviour: string;
  readonly wanted: string;
  readonly ladderId: string | null;
  /** `shown`: the numbers support it; `not-yet`: worked, not there; `unknown`: no ladder or no trials to tell from. */
  readonly state: "shown" | "not-yet" | "unknown";
  readonly sentence: string;
}

/**
 * Whether the mastery rule ever held on a rung, or on a later one of the same
 * ladder that reaches as much: what was shown once stays shown.
 */
function everShown(ladder: WorkedLadder, rung: number, need: Prerequisite): { passed: boolean; here: readonly EvidenceTrial[] } {
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
  return { passed: sides.every(onOneRung), here };
}

/**
 * How ready a horse is, prerequisite by prerequisite. A warning, never a wall.
 * @param need with the behaviour's name for the screen.
 * @param ladder the horse's ladder for that behaviour, or null where it has none.
 */
export function prerequisiteReadiness(need: Prerequisite, name: string, ladder: WorkedLadder | null): PrerequisiteReadiness {
  const wanted = prerequisiteWords(need);
  const base = { behaviour: name, wanted, ladderId: ladder?.id ?? null };
  if (ladder === null) return { ...base, state: "unknown", sentence: "No ladder for it yet: nothing shows it." };
  const { rung, unknown } = rungReaching(ladder.plan, need);
  const eye = unknown.length === 0 ? "" : ` Its ladder has no ${unknown.join(" or ")}: judge that by eye.`;
  if (rung === null) return { ...base, state: "not-yet", sentence: `Its ladder does not go that far.${eye}` };
  const { passed, here } = everShown(ladder, rung, need);
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
    sentence: `Rung ${rung}: ${toldShare(shareOfTrials(here)).sentence} Its rule is not passed yet.${eye}`,
  };
}

/** The whole in one sentence, or null where nothing is wanted or all of it is shown. */
export function readinessWarning(list: readonly PrerequisiteReadiness[]): string | null {
  const lacking = list.filter(({ state }) => state !== "shown");
  if (lacking.length === 0) return null;
  return `Not shown yet: ${lacking.map(({ behaviour, wanted }) => (wanted === "" ? behaviour : `${behaviour} (${wanted})`)).join("; ")}. You may go on; expect it to be harder.`;
}
