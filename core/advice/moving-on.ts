import { type Criterion, MOVEMENT_GRADES } from "../ladder";
import type { MasteryProgress } from "../mastery";
import type { EvidenceTrial } from "../record/evidence-scope";
import type { YardSettings } from "../settings";
import { EASE_GRADES } from "../strands";
import { counted, SIDE_WORDS } from "../words";
import type { Advice } from "./advice";
import { declineOf } from "./declined";
import { movingOnSentence, progressOf } from "./goal";
import type { AdviceInput } from "./input";
import { likelyShareWords } from "./likely-share";

/** Progress under the rule on each side the rung names: one entry, or left and right. */
function progressBySide(input: AdviceInput, evidence: readonly EvidenceTrial[]): { side: "L" | "R" | null; progress: MasteryProgress }[] {
  const goal = input.byValues ?? null;
  // What one side showed on an earlier day is not of today, though it is the last that side was asked.
  const now = input.nowWallMs ?? evidence.at(-1)?.wallMs;
  if (!input.bothSides) return [{ side: null, progress: progressOf(input.rule, goal, evidence, now) }];
  // The side in work comes first: a trainer on the right is told the right's own numbers.
  return (input.running === "R" ? (["R", "L"] as const) : (["L", "R"] as const)).map((side) => ({
    side,
    progress: progressOf(
      input.rule,
      goal,
      evidence.filter((t) => t.side === side),
      now,
    ),
  }));
}

/** Why the ease the rung asks for is not shown yet, or null where it is, or none is asked for. */
function easeLacking(input: AdviceInput, evidence: readonly EvidenceTrial[], settings: YardSettings): string | null {
  const { minEase } = input;
  if (minEase == null) return null;
  const graded = evidence.filter(({ outcome, ease }) => outcome === "met" && ease !== null).slice(-settings.easeGraded);
  const wanted = EASE_GRADES[minEase] ?? "soft";
  if (graded.length < settings.easeGraded)
    return `Say how calm the next ones are: ${graded.length} of ${settings.easeGraded} said so far. They should be at least ${wanted}.`;
  return graded.every(({ ease }) => ease !== null && ease >= minEase) ? null : `Not ${wanted} yet on each of the last ${graded.length}.`;
}

/** The grade of the movement a rung asks for; null where it asks for none. @example movementAsked({ sentence: "Any answer." }) // null */
export const movementAsked = (criterion: Pick<Criterion, "min_movement" | "movement"> | null): AdviceInput["movement"] =>
  criterion?.min_movement === undefined ? null : { least: criterion.min_movement, words: criterion.movement ?? MOVEMENT_GRADES };

/** The same of the movement, where the rung grades it. */
function movementLacking(input: AdviceInput, evidence: readonly EvidenceTrial[], settings: YardSettings): string | null {
  if (input.movement == null) return null;
  const { least, words } = input.movement;
  const wanted = words[least] ?? String(least);
  const graded = evidence.filter(({ outcome, movement }) => outcome === "met" && movement !== undefined).slice(-settings.easeGraded);
  if (graded.length < settings.easeGraded)
    return `Say how the next ones move: ${graded.length} of ${settings.easeGraded} said so far. They should be at least ${wanted}.`;
  return graded.every(({ movement }) => movement !== undefined && movement >= least)
    ? null
    : `Not ${wanted} yet on each of the last ${graded.length}.`;
}

/** Nothing was asked of the running block yet: the advice is to begin, whatever earlier days showed. */
function toBegin(input: AdviceInput, advice: Advice): Advice {
  const rule = movingOnSentence(input.rule, input.byValues ?? null);
  const said: Readonly<Record<string, string>> = {
    clean: "Begin. It was clean last time; one more is enough.",
    top: `Begin. This rung is held already: ${rule}. A few asks keep it fresh.`,
    barred: `Begin. This rung is held; the next one is not for today. ${input.nextBarred ?? ""}`,
    day: `Begin if you like. Today's part is done: ${advice.reason}`,
  };
  return { word: "Repeat", why: "", reason: (said[advice.why] ?? advice.reason).trim(), numbers: advice.numbers };
}

/**
 * Stay or Raise (or Finish on the top rung), by the mastery rule and the ease.
 * @example movingOn(input, [], settings) // { word: "Repeat", why: "", … }
 */
export function movingOn(input: AdviceInput, block: readonly EvidenceTrial[], settings: YardSettings): Advice {
  const found = byRule(input, block, settings);
  const advice = found.word === "Finish" && input.block.length === 0 ? toBegin(input, found) : found;
  if (advice.word === "Repeat") return advice;
  const before = declineOf(input.declined, advice.word, advice.why);
  if (before === undefined) return advice;
  // Declined, it is said again after half as many asks as the rule looks at.
  const since = before.thisBlock ? block.length - before.inBlock : before.trialsSince - (input.block.length - block.length);
  const step = stepAgain(input.rule);
  if (since >= step || since < 0) return advice;
  const { met = 0, of = 0 } = advice.numbers;
  const what = advice.word === "Up" ? "go up" : "end on it";
  return {
    word: "Repeat",
    why: "",
    reason: `${of > 0 ? `${met} of ${of} met, the rule holds` : "It holds"}: ${what} when you like. Said again after ${counted(step - since, "more ask")}.`,
    numbers: advice.numbers,
  };
}

/** Half as many asks as a rule looks at. */
function stepAgain(rule: AdviceInput["rule"]): number {
  switch (rule.kind) {
    case "share":
      return Math.ceil(rule.of / 2);
    case "run":
      return Math.ceil(rule.length / 2);
    case "posterior":
      return Math.ceil(rule.least / 2);
    case "first-clean":
      return 1;
  }
}

/** What the rule says, whatever was said before. */
function byRule(input: AdviceInput, block: readonly EvidenceTrial[], settings: YardSettings): Advice {
  const evidence = input.counts ? (input.earlier.length === 0 ? block : [...input.earlier, ...block]) : input.earlier;
  const sides = progressBySide(input, evidence);
  // A side that has shown enough for today waits for another day; what is still to be had comes first.
  const lacking = sides.find(({ progress }) => !progress.passed && !progress.enoughToday) ?? sides.find(({ progress }) => !progress.passed);
  const rule = movingOnSentence(input.rule, input.byValues ?? null);
  if (lacking === undefined) {
    const met = sides.reduce((sum, s) => sum + s.progress.met, 0);
    const of = sides.reduce((sum, s) => sum + s.progress.of, 0);
    const each = input.bothSides ? " on each side" : "";
    const numbers = { met, of };
    // A clean one holds the ease already.
    if (input.rule.kind === "first-clean" && input.byValues == null)
      return { word: "Finish", why: "clean", reason: "A clean one at the lightest cue. Stop on it.", numbers };
    const ease = easeLacking(input, evidence, settings) ?? movementLacking(input, evidence, settings);
    if (ease !== null) return { word: "Repeat", why: "", reason: `${met} of ${of} met${each}. ${ease}`, numbers };
    if (input.rung >= input.rungCount)
      return { word: "Finish", why: "top", reason: `The top rung is met: ${rule}${each}. End on it.`, numbers };
    if (input.nextBarred != null)
      return {
        word: "Finish",
        why: "barred",
        reason: `${met} of ${of} met${each}; rung ${input.rung + 1} is not for today. ${input.nextBarred} End on this one.`,
        numbers,
      };
    // The trials that meet a rule are picked for it: what they show is more than what is there.
    const likely = input.byValues == null ? `; ${likelyShareWords(evidence.map(({ outcome }) => outcome === "met"))}` : "";
    return {
      word: "Up",
      why: "rule",
      reason: `${met} of ${of} met${each}, the rule is ${rule}${likely}. Go to rung ${input.rung + 1}.`,
      numbers,
      rung: input.rung + 1,
    };
  }
  const { side, progress } = lacking;
  if (sides.every(({ progress: one }) => one.passed || one.enoughToday))
    return {
      word: "Finish",
      why: "day",
      reason: `${rule}. ${progress.needed}`,
      numbers: {
        met: progress.met,
        of: progress.of,
        ...(progress.days === undefined ? {} : { days: progress.days.shown, ofDays: progress.days.wanted }),
      },
    };
  const seen =
    input.rule.kind === "run" && input.byValues == null
      ? `${progress.met} in a row`
      : progress.of === 0
        ? "No asks since it came to this rung"
        : `${progress.met} of the last ${progress.of}`;
  const onSide = side === null ? "" : ` on the ${SIDE_WORDS[side]}`;
  return { word: "Repeat", why: "", reason: `${seen}${onSide}. ${progress.needed}`, numbers: { met: progress.met, of: progress.of } };
}
