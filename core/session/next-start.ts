import { counted } from "../counted";
import { asksBothSides, type LadderPlan, wayOf } from "../ladder";
import { MILLISECONDS_PER_DAY } from "../units";
import { type Allowance, allowedRung, barredBehaviour, barredMethod, barredRung } from "../welfare/restrictions";
import { type EvidenceTrial, evidenceForRung } from "./evidence-scope";
import {
  DEFAULT_WORD_SETTINGS,
  easeThresholds,
  movingOnSentence,
  progressOf,
  shareSentence,
  valuesGoalOf,
  type WordSettings,
} from "./word";

/** Where the next session starts on a ladder, and why. */
export interface NextStart {
  readonly rung: number;
  /** A probe tests the rung without teaching it. */
  readonly kind: "work" | "probe";
  readonly headline: string;
  readonly reason: string;
  /** Why this ladder may not be worked today, or null. */
  readonly barred: string | null;
}

/** What is looked at: a plan's present version and the ladder's trials, oldest first. */
export interface NextStartInput {
  readonly plan: LadderPlan;
  readonly ladder: string;
  readonly version: number;
  readonly trials: readonly EvidenceTrial[];
  readonly nowWallMs: number;
  readonly maxAgeDays: number;
  /** What restrictions and age allow today; left out where nothing limits it. */
  readonly allowance?: Allowance;
  /** What the behaviour involves that a restriction may name. */
  readonly involves?: readonly string[];
}

const sideShare = (trials: readonly EvidenceTrial[], side: "L" | "R") => {
  const own = trials.filter((t) => t.side === side);
  return { met: own.filter((t) => t.outcome === "met").length, of: own.length };
};

/** Which side is behind, in words, or an empty text where none is known to be. */
function weakerSide(trials: readonly EvidenceTrial[]): string {
  const left = sideShare(trials, "L");
  const right = sideShare(trials, "R");
  if (left.of < 3 || right.of < 3) return "";
  const gap = right.met / right.of - left.met / left.of;
  if (Math.abs(gap) < 0.15) return "";
  return gap > 0
    ? ` Left ${left.met} of ${left.of}, right ${right.met} of ${right.of}: begin on the left and give it more.`
    : ` Left ${left.met} of ${left.of}, right ${right.met} of ${right.of}: begin on the right and give it more.`;
}

/** Which side to begin on: by turns where a day has one side, otherwise the weaker one where one is known to be. */
function sideToBegin(plan: LadderPlan, worked: readonly EvidenceTrial[], evidence: readonly EvidenceTrial[]): string {
  if (wayOf(plan.ways, "directions").value !== "one-a-day") return weakerSide(evidence);
  const last = worked.findLast(({ side }) => side !== null)?.side;
  return last == null ? "" : ` One side a day: last time ${last === "L" ? "left" : "right"}, today ${last === "L" ? "right" : "left"}.`;
}

/** The side a session begins on, or null where nothing says. */
export function beginningSide(plan: LadderPlan, trials: readonly EvidenceTrial[]): "L" | "R" | null {
  if (wayOf(plan.ways, "directions").value !== "one-a-day") return null;
  const last = trials.findLast(({ side, kind }) => side !== null && kind === "work")?.side;
  return last == null ? null : last === "L" ? "R" : "L";
}

/**
 * Chooses the rung the next session starts on: the next one where the rule is
 * met, the one before where the last trials failed, otherwise the same; then
 * no higher than restrictions and age allow today.
 */
export function nextStart(input: NextStartInput, settings: WordSettings = DEFAULT_WORD_SETTINGS): NextStart {
  const wanted: NextStart = { ...startByEvidence(input, settings), barred: null };
  const { allowance, plan } = input;
  if (allowance === undefined) return wanted;
  const why = barredToday(input.involves ?? [], plan, allowance);
  if (why !== null) return { ...wanted, headline: "Not today", reason: why, barred: why };
  const open = allowedRung(plan, wanted.rung, allowance);
  if (open === null) {
    const reason = barredRung(plan, wanted.rung, allowance)[0]?.why ?? "";
    return { ...wanted, headline: "Not today", reason, barred: reason };
  }
  if (open.rung === wanted.rung) return wanted;
  return {
    ...wanted,
    rung: open.rung,
    kind: "work",
    headline: `Work on rung ${open.rung} for now`,
    reason: `${open.why} ${wanted.reason}`,
  };
}

/** Why nothing of a ladder may be worked under an allowance, or null. */
export function barredToday(involves: readonly string[], plan: LadderPlan, allowance: Allowance): string | null {
  return allowance.noWork?.why ?? barredBehaviour(involves, allowance) ?? barredMethod(plan.method, allowance);
}

function startByEvidence(input: NextStartInput, settings: WordSettings): Omit<NextStart, "barred"> {
  const { plan, ladder, version, trials, nowWallMs, maxAgeDays } = input;
  const top = plan.rungs.length;
  const worked = trials.filter((t) => t.ladder === ladder && t.kind === "work");
  const last = worked.at(-1);
  if (last === undefined) return { rung: 1, kind: "work", headline: "Start on rung 1", reason: "No work on this ladder yet." };
  const rung = Math.min(last.rung, top);
  const days = Math.floor((nowWallMs - last.wallMs) / MILLISECONDS_PER_DAY);
  if (days > maxAgeDays) {
    return {
      rung,
      kind: "probe",
      headline: `Test rung ${rung} first`,
      reason: `The last work was ${counted(days, "day")} ago; what it showed is too old to count.`,
    };
  }
  if (last.version !== version) {
    return {
      rung,
      kind: "work",
      headline: `Start on rung ${rung}`,
      reason: `The ladder was changed since: rung ${rung} of version ${version} has no trials yet.`,
    };
  }
  const evidence = evidenceForRung(worked, { ladder, version, rung, nowWallMs, maxAgeDays });
  const met = evidence.filter((t) => t.outcome === "met").length;
  const share = shareSentence(met, evidence.length);
  const goal = valuesGoalOf(plan, rung);
  const ease = easeThresholds(plan.mastery, settings);
  const recent = worked.slice(-ease.window).filter((t) => t.session === last.session && t.rung === rung);
  const misses = recent.filter((t) => t.outcome === "miss" || t.outcome === "refused").length;
  const sides = asksBothSides(plan, rung) ? (["L", "R"] as const).map((side) => evidence.filter((t) => t.side === side)) : [evidence];
  if (sides.every((side) => progressOf(plan.mastery, goal, side).passed)) {
    const rule = movingOnSentence(plan.mastery, goal);
    return rung < top
      ? {
          rung: rung + 1,
          kind: "work",
          headline: `Start on rung ${rung + 1}`,
          reason: `Rung ${rung} is met by the rule, ${rule}. ${share}`,
        }
      : {
          rung,
          kind: "work",
          headline: `Keep rung ${rung}`,
          reason: `The top rung is met by the rule, ${rule}. ${share} Keep it, or plan what comes next.`,
        };
  }
  // On a bar that follows the values the share met is held constant by design and says nothing.
  if (goal === null && misses >= ease.misses && rung > 1) {
    return {
      rung: rung - 1,
      kind: "work",
      headline: `Go back to rung ${rung - 1}`,
      reason: `${misses} of the last ${recent.length} on rung ${rung} were missed or refused. ${share}`,
    };
  }
  return { rung, kind: "work", headline: `Stay on rung ${rung}`, reason: `${share}${sideToBegin(plan, worked, evidence)}` };
}
