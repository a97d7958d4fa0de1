import { asksBothSides, criterionOf, type LadderPlan, rungsBetween } from "../ladder";
import { type EvidenceTrial, evidenceForRung } from "../record/evidence-scope";
import type { YardSettings } from "../settings";
import { MILLISECONDS_PER_DAY } from "../units";
import type { Advice } from "./advice";
import { adviceByTrials } from "./by-trials";
import { valuesGoalOf } from "./goal";
import { movementAsked } from "./moving-on";

/** A ladder's work, as its present version counts it. */
export interface LadderWork {
  readonly plan: LadderPlan;
  readonly ladder: string;
  readonly version: number;
  /** Work trials, oldest first. */
  readonly trials: readonly EvidenceTrial[];
  readonly nowWallMs: number;
}

/** A rung that was left for an easier one in the last session, with what was said of it. */
export interface LeftRung {
  readonly rung: number;
  readonly word: Advice["word"];
  readonly reason: string;
  readonly met: number;
  readonly of: number;
}

/** Where a horse stands on a ladder after its last session. */
export interface LadderStanding {
  readonly rung: number;
  /** The word that stood when the rung was left. */
  readonly advice: Advice;
  /** The harder rung it was taken back from in that session; null where there was none. */
  readonly left: LeftRung | null;
  /** What counts on the rung for moving on, or all that was seen there where going back is said. */
  readonly evidence: readonly EvidenceTrial[];
}

/** The word of a rung when its last block of a session was left, and Split where any block of it heard that. */
function wordOf(work: LadderWork, rung: number, session: string, settings: YardSettings): Advice {
  const { plan, ladder, version, trials, nowWallMs } = work;
  const oldest = nowWallMs - settings.evidenceMaxAgeDays * MILLISECONDS_PER_DAY;
  const ofRung = (t: EvidenceTrial) => t.rung === rung && t.version === version && t.wallMs >= oldest;
  const blocks = [
    ...new Set(trials.filter((t) => t.session === session && t.rung === rung && t.version === version).map((t) => t.blockKey)),
  ];
  let word: Advice | null = null;
  for (const [i, key] of blocks.entries()) {
    const from = trials.findIndex((t) => t.blockKey === key);
    const before = trials.slice(0, from);
    const advice = adviceByTrials(
      {
        rule: plan.mastery,
        bothSides: asksBothSides(plan, rung),
        byValues: valuesGoalOf(plan, rung),
        rung,
        rungCount: plan.rungs.length,
        earlier: evidenceForRung(before, { ladder, version, rung, nowWallMs, maxAgeDays: settings.evidenceMaxAgeDays }),
        history: before.filter(ofRung),
        block: trials.filter((t) => t.blockKey === key),
        counts: true,
        minutesSinceRest: 0,
        trialsSinceRest: 0,
        workMinutes: 0,
        fullPhase: plan.phases.length > 1 ? plan.phases.length : null,
        splittable: rungsBetween(plan.strands, plan.rungs, rung, plan.phases.length).length > 0,
        minEase: criterionOf(plan, rung).min_ease ?? null,
        movement: movementAsked(criterionOf(plan, rung)),
        over: i === blocks.length - 1,
      },
      // A clear best ends a session and says nothing of the next one.
      { ...settings, bestAfterTrials: Number.POSITIVE_INFINITY },
    );
    // A split that was called for stays called for, unless the rule was met after it.
    const met = advice.word === "Up" || (advice.word === "Finish" && advice.why !== "day");
    if (word?.word !== "Add a step" || met) word = advice;
  }
  if (word === null) throw new RangeError(`wordOf: no work on rung ${rung} in the session`);
  return word;
}

/**
 * Where a horse stands on a ladder: the one judge of every page, and the same
 * that gives the recorder its word. Of the rungs worked in the last session
 * the hardest one it was going well on; where it was on none, the easiest one
 * that was left. Leaving a rung starts the evidence for moving on anew, and
 * never what speaks for going back.
 * Cost: one pass over the trials for each block of the last session.
 * @param work at least one trial, none of them too old.
 * @throws RangeError where no trial was worked.
 * @example whereItStands(work, settings) // { rung: 9, … }
 */
export function whereItStands(work: LadderWork, settings: YardSettings): LadderStanding {
  const { plan, ladder, version, trials, nowWallMs } = work;
  const last = trials.at(-1);
  if (last === undefined) throw new RangeError("whereItStands: no trials");
  const own = trials.filter((t) => t.session === last.session && t.version === version && t.rung <= plan.rungs.length);
  const rungs = [...new Set(own.map((t) => t.rung))].sort((a, b) => b - a);
  const maxAgeDays = settings.evidenceMaxAgeDays;
  const seen = (rung: number) => own.filter((t) => t.rung === rung);
  let left: LeftRung | null = null;
  for (const [i, rung] of rungs.entries()) {
    const advice = wordOf(work, rung, last.session, settings);
    const back = advice.word === "Go back" || advice.word === "Add a step";
    if (!back)
      return {
        rung,
        advice,
        left,
        evidence: evidenceForRung(trials, { ladder, version, rung, nowWallMs, maxAgeDays }),
      };
    if (i === rungs.length - 1) return { rung, advice, left, evidence: seen(rung) };
    const of = seen(rung);
    left ??= {
      rung,
      word: advice.word,
      reason: advice.reason,
      met: of.filter(({ outcome }) => outcome === "met").length,
      of: of.length,
    };
  }
  throw new RangeError("whereItStands: no rung of this version was worked");
}
