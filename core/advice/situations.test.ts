import { describe, expect, it } from "vitest";
import { DEFAULT_MASTERY_RULE, type MasteryRule } from "../mastery";
import type { EvidenceTrial } from "../record/evidence-scope";
import { asTyped, DEFAULT_SETTINGS, SETTING_KEYS, settingProblem, settingsFrom } from "../settings";
import { heatCaution } from "../welfare";
import { type AdviceInput, type AdviceWord, AS_THE_LEARNER, chanceOfGoBack, goBackThresholds, theAdvice } from ".";

const NOW = Date.UTC(2026, 5, 20);

/** "+" met, "*" met and clean, "~" try, "." miss, "!" refused at phase 2, "#" refused at phase 4; l and r set the side, 0–4 the ease of the last one. */
function trials(text: string, session = "today", block = "1"): EvidenceTrial[] {
  const outcome: Record<string, EvidenceTrial["outcome"]> = {
    "+": "met",
    "*": "met",
    "~": "try",
    ".": "miss",
    "!": "refused",
    "#": "refused",
  };
  const list: EvidenceTrial[] = [];
  let side: "L" | "R" | null = null;
  for (const c of text) {
    const last = list.at(-1);
    if (c === "l" || c === "r") side = c === "l" ? "L" : "R";
    else if (/[0-4]/.test(c) && last !== undefined) list[list.length - 1] = { ...last, ease: Number(c) };
    else
      list.push({
        session,
        handler: null,
        wallMs: NOW + list.length * 1000,
        ladder: "x",
        version: 1,
        rung: 3,
        kind: "work",
        blockKey: `${session}:${block}`,
        side,
        outcome: outcome[c] ?? "met",
        phase: c === "*" ? 1 : c === "#" ? 4 : 2,
        value: null,
        ease: null,
        clean: c === "*",
        comparable: true,
      });
  }
  return list;
}

const valued = (values: readonly number[], session = "today", clean = false) =>
  values.map((value, i) => ({ ...(trials("+", session)[0] as EvidenceTrial), wallMs: NOW + i * 1000, value, clean, phase: clean ? 1 : 2 }));

const EIGHT_OF_TEN: MasteryRule = { kind: "share", met: 8, of: 10, window: "moving" };
const BY_VALUES = { lookBack: 5, value: 4, unit: "m", harder: "more" } as const;
const EASED = trials("+...", "monday");
const cap = (value: number) => ({ value, why: "Advice of the veterinarian." });

const input = (block: string, change: Partial<AdviceInput> = {}): AdviceInput => ({
  rule: EIGHT_OF_TEN,
  bothSides: false,
  rung: 3,
  rungCount: 8,
  earlier: [],
  block: trials(block),
  counts: true,
  minutesSinceRest: 2,
  trialsSinceRest: 5,
  workMinutes: 5,
  splittable: true,
  fullPhase: 4,
  session: { trials: 10, planned: 60 },
  ...change,
});

type Situation = [what: string, block: string, change: Partial<AdviceInput>, word: AdviceWord, reason?: string];

/** As tied work is judged: three in a row, and again on another day. */
const CALM_ON_TWO_DAYS: MasteryRule = { kind: "run", length: 3, days: 2 };
const daysAgo = (text: string) => trials(text).map((trial) => ({ ...trial, session: "before", wallMs: trial.wallMs - 2 * 86_400_000 }));

const breath = (perMinute: number, restingPerMinute: number | null) => ({
  perMinute,
  restingPerMinute,
  settled: true,
  aboveHeart: null,
  notFallen: false,
});
const ABOVE = { wallMs: NOW, breaths: 80, heart: 64 };

const STOP: Situation[] = [
  ["a danger sign", "++", { danger: "rears" }, "Stop", "The horse rears"],
  ["an unnamed danger sign", "++", { danger: "danger" }, "Stop", "A danger sign"],
  ["danger before a due rest", "++", { danger: "kicks", minutesSinceRest: 20 }, "Stop"],
  ["danger before the day's limit", "++", { danger: "bolts", limits: { minutes: cap(5), trials: null, sessionTrials: 2 } }, "Stop"],
  ["danger before Raise", "++++++++++", { danger: "strikes" }, "Stop"],
  ["danger answered", "++", { danger: null }, "Repeat"],
  ["a sign of pain", "++", { danger: "nods", pain: true }, "Stop", "have a vet look"],
  ["too hot to work", "", { minutesSinceRest: 0, heat: heatCaution(36, 90) }, "Stop", "Too hot to work"],
  [
    "too hot, with a reason, at first",
    "+++++",
    { workMinutes: 2, heat: heatCaution(36, 90), heatReason: "vet present" },
    "Repeat",
    "Walk only, 3 minutes more",
  ],
  ["too hot, with a reason, after five minutes", "++", { workMinutes: 5, heat: heatCaution(36, 90), heatReason: "vet present" }, "Stop"],
  ["too hot before a rule that is met", "++++++++++", { heat: heatCaution(36, 90) }, "Stop"],
  ["breathing above heart rate", "++", { breathing: { ...breath(80, null), aboveHeart: ABOVE } }, "Stop", "above the heart rate of 64"],
  ["the same, come down since: it stops for today all the same", "++", { breathing: { ...breath(30, 12), aboveHeart: ABOVE } }, "Stop"],
  [
    "the same, not fallen in ten minutes",
    "++",
    { breathing: { ...breath(79, 12), aboveHeart: ABOVE, notFallen: true } },
    "Stop",
    "Call the vet now",
  ],
  ["a restriction that came in", "++", { closed: { why: "Stiff.", side: false, rung: null } }, "Stop", "Not today. Stiff."],
  ["one that closes this rung", "++", { closed: { why: "Walk only.", side: false, rung: 1 } }, "Stop", "Rung 1 is open"],
  [
    "one that closes this side",
    "++",
    { running: "L", closed: { why: "Sore.", side: true, rung: null } },
    "Change side",
    "Not the left today",
  ],
  [
    "the vet's minutes are up while it may walk in the heat",
    "++",
    { workMinutes: 3, heat: heatCaution(36, 90), heatReason: "vet present", limits: { minutes: cap(3), trials: null, sessionTrials: 2 } },
    "Stop",
    "the most for today",
  ],
  [
    "too hot, where the other side is open",
    "++",
    { running: "L", heat: heatCaution(36, 90), closed: { why: "Sore.", side: true, rung: null } },
    "Stop",
    "Too hot to work",
  ],
  [
    "too hot, where an easier rung is open",
    "++",
    { heat: heatCaution(36, 90), closed: { why: "Walk only.", side: false, rung: 1 } },
    "Stop",
    "Too hot to work",
  ],
  [
    "the day's minutes are up, where the other side is open",
    "++",
    {
      running: "L",
      workMinutes: 12,
      limits: { minutes: cap(12), trials: null, sessionTrials: 2 },
      closed: { why: "Sore.", side: true, rung: null },
    },
    "Stop",
    "the most for today",
  ],
];

const REST: Situation[] = [
  ["eight minutes running", "++", { minutesSinceRest: 8 }, "Break", "8 minutes of work without a break."],
  ["just short of eight", "++", { minutesSinceRest: 7.9 }, "Repeat"],
  ["thirty asks running", "++", { trialsSinceRest: 30 }, "Break", "30 asks"],
  ["six minutes in heat to watch", "++", { minutesSinceRest: 6, heat: heatCaution(25, 60) }, "Break", "shorter than usual"],
  ["six minutes on a usual day", "++", { minutesSinceRest: 6, heat: heatCaution(15, 50) }, "Repeat"],
  ["four minutes in heat that cuts work", "++", { minutesSinceRest: 4, heat: heatCaution(30, 50) }, "Break"],
  ["fifteen asks in heat that cuts work", "++", { trialsSinceRest: 15, heat: heatCaution(30, 50) }, "Break"],
  ["breathing three times resting", "++", { breathing: breath(36, 12) }, "Break", "12 at rest"],
  ["breathing twice resting", "++", { breathing: breath(24, 12) }, "Repeat"],
  ["breathing with resting not known", "++", { breathing: breath(50, null) }, "Repeat"],
  ["three times resting right after trot", "++", { breathing: { ...breath(36, 12), settled: false } }, "Repeat"],
  [
    "three times resting on a hot day",
    "++",
    { breathing: breath(36, 12), heat: heatCaution(25, 60) },
    "Break",
    "water over the whole body",
  ],
  ["three tension signs on the first rung", "++", { rung: 1, tensionSigns: 3 }, "Break", "3 tension signs in a minute"],
  ["two tension signs on the first rung", "++", { rung: 1, tensionSigns: 2 }, "Repeat"],
  ["rest before finish", "++", { minutesSinceRest: 9, workMinutes: 25 }, "Break"],
  ["rest before split", "...", { minutesSinceRest: 9, history: EASED }, "Break"],
];

const FINISH: Situation[] = [
  [
    "the vet's minutes are up, rest or not",
    "++",
    { workMinutes: 12, minutesSinceRest: 9, limits: { minutes: cap(12), trials: null, sessionTrials: 2 } },
    "Stop",
    "Advice of the veterinarian.",
  ],
  ["the vet's repetitions are up", "++", { limits: { minutes: null, trials: cap(12), sessionTrials: 12 } }, "Stop", "12 repetitions"],
  [
    "two minutes before the vet's minutes are up",
    "++",
    { workMinutes: 10, limits: { minutes: cap(12), trials: null, sessionTrials: 2 }, sureRung: 2 },
    "Finish",
    "10 of 12 minutes allowed today. End on rung 2",
  ],
  ["time nearly up", "++", { workMinutes: 18.2 }, "Finish", "18 minutes of work, 20 is usual. End on an easy one."],
  ["time nearly up, with a sure rung", "++", { workMinutes: 18, sureRung: 2 }, "Finish", "End on rung 2: it is mostly met."],
  [
    "time nearly up, on the sure rung already",
    "++",
    { workMinutes: 18, sureRung: 2, blockKind: "sure", counts: false },
    "Finish",
    "End on an easy one.",
  ],
  ["time not nearly up", "++", { workMinutes: 17.9 }, "Repeat"],
  ["the plan done", "++", { session: { trials: 60, planned: 60 } }, "Finish", "The plan is done: 60 of 60"],
  ["the plan not done", "++", { session: { trials: 59, planned: 60 } }, "Repeat"],
  ["no plan", "++", { session: { trials: 400, planned: null } }, "Repeat"],
  ["the first clean one after twelve", "+~++.+~+++~+*", {}, "Finish", "The first clean one at the lightest cue, after 12."],
  ["the first clean one too soon", "+~++.+~*", {}, "Repeat"],
  ["clean ones came before", "+*++.+~++.+~*", {}, "Repeat"],
  ["a clear best counts the blocks of today", "*", { today: trials("++~+.+~+++~+") }, "Finish"],
  ["a clear best in a probe block", "+~++.+~+++~+*", { counts: false, blockKind: "probe" }, "Repeat"],
  ["the top rung met", "++++++++++", { rung: 8 }, "Finish", "The top rung is met"],
  ["the next rung is closed today", "++++++++++", { nextBarred: "No trot: stiff." }, "Finish", "No trot: stiff."],
  ["calm ones in a row, another day wanted", "~+3+3+3", { rule: CALM_ON_TWO_DAYS }, "Finish", "Again on another day."],
  [
    "one side has shown enough for today, the other has not: it is told what is still to be had",
    "l+3+3+3r+3",
    { rule: CALM_ON_TWO_DAYS, bothSides: true, running: "L" },
    "Repeat",
    "1 in a row on the right.",
  ],
  ["calm ones in a row on the second day", "+3+3+3", { rule: CALM_ON_TWO_DAYS, earlier: daysAgo("+3+3+3") }, "Up", "3 in a row, on 2 days"],
  ["not in a row yet on the second day", "+3~+3", { rule: CALM_ON_TWO_DAYS, earlier: daysAgo("+3+3+3") }, "Repeat", "1 of 2 days so far."],
  ["first clean one, then stop", ".+*", { rule: { kind: "first-clean" } }, "Finish", "Stop on it."],
  ["met but not clean", ".++", { rule: { kind: "first-clean" } }, "Repeat"],
  ["finish before split", "...", { workMinutes: 19, history: EASED }, "Finish"],
  [
    "a value that is a clear best",
    "",
    { byValues: BY_VALUES, block: [...valued([2, 2, 1, 2, 2, 2, 1, 2, 2, 2, 2, 2], "today", true), ...valued([3], "today", true)] },
    "Finish",
    "3 m, a clear best: the best before was 2 m.",
  ],
  [
    "a value hardly above the best",
    "",
    { byValues: BY_VALUES, block: [...valued([2, 2, 1, 2, 2, 2, 1, 2, 2, 2, 2, 2], "today", true), ...valued([2.2], "today", true)] },
    "Repeat",
  ],
];

const SPLIT: Situation[] = [
  [
    "Ease for the second time on this rung",
    "...",
    { history: EASED },
    "Add a step",
    "Rung 3 has gone wrong twice. Add a step between 2 and 3.",
  ],
  [
    "Ease for the third time",
    "...",
    { history: [...EASED, ...trials("!!!", "tuesday")] },
    "Add a step",
    "Rung 3 has gone wrong three times.",
  ],
  ["Ease for the first time", "...", { history: trials("+++.+", "monday") }, "Go back"],
  ["two blocks of one session", "...", { history: trials("+...", "today", "0") }, "Add a step"],
  ["nothing fits in between", "...", { history: EASED, splittable: false }, "Go back"],
  ["the first rung has nothing before it", "...", { history: EASED, rung: 1 }, "Go back", "Ask for less."],
  [
    "no gain over three sessions",
    "+.+~.~+.~~",
    { over: true, history: [...trials("++.+~", "monday"), ...trials("+.~.+", "tuesday")] },
    "Add a step",
    "No gain over 3 sessions: 3 of 5, 2 of 5, 3 of 10.",
  ],
  [
    "not in the middle of a block: what sessions past say is said before the next begins",
    "+.+~.~+.~~",
    { history: [...trials("++.+~", "monday"), ...trials("+.~.+", "tuesday")] },
    "Repeat",
  ],
  [
    "and once more when the session is over",
    "+.+~.",
    { over: true, history: [...trials("++.+~", "monday"), ...trials("+.~.+", "tuesday")] },
    "Add a step",
    "3 of 5, 2 of 5, 2 of 5.",
  ],
  [
    "no gain near what the rule asks for is no wall",
    "+.++.+++.~",
    { over: true, history: [...trials("++++.", "monday"), ...trials("++.++", "tuesday")] },
    "Repeat",
  ],
  ["a gain in the second", "+.+~.~+.~~", { over: true, history: [...trials("+~.+~", "monday"), ...trials("+.+++", "tuesday")] }, "Repeat"],
  ["two sessions only", "+.+~.~+.~~", { over: true, history: trials("++.+~", "monday") }, "Repeat"],
  [
    "today too short to tell",
    "+.~.",
    { over: true, history: [...trials("++.+~", "monday"), ...trials("+.~.+", "tuesday"), ...trials("+.~.~", "friday")] },
    "Repeat",
  ],
  [
    "no gain in the values",
    "",
    {
      over: true,
      byValues: BY_VALUES,
      block: valued([2, 2, 2, 2, 2, 2, 2, 2, 2, 2]),
      history: [...valued([2, 2, 3, 2, 2], "monday"), ...valued([2, 1, 2, 2, 2], "tuesday")],
    },
    "Add a step",
    "middle values 2, 2, 2",
  ],
  ["a probe block never splits", "...", { history: EASED, counts: false, blockKind: "probe" }, "Go back"],
  ["split before ease", "##", { history: EASED }, "Add a step"],
];

const EASE: Situation[] = [
  ["three misses running", "++...", {}, "Go back", "Three in a row went wrong. Go back to rung 2."],
  ["three of miss and refusal", "++.!.", {}, "Go back"],
  ["four of the last seven", ".+.+.+.", {}, "Go back", "4 of the last 7 went wrong."],
  ["two misses running", "++..", {}, "Repeat"],
  ["tries are on the way", "~~~~~~", {}, "Repeat"],
  ["a refusal at the clearest cue", "++#", {}, "Repeat", "Refused at the clearest cue: one easier ask on this rung first."],
  ["the second refusal of five", "#+~+#", {}, "Go back", "2 of the last 5 got no answer. Go back to rung 2."],
  ["the second refusal of six", "#+~++#", {}, "Repeat"],
  ["two refusals at lighter cues", "!+!", {}, "Go back", "2 of the last 3 got no answer."],
  ["a refusal at a lighter phase", "++!", {}, "Repeat"],
  ["a refusal with one phase only", "++#", { fullPhase: null }, "Repeat"],
  ["three tension signs", "++", { tensionSigns: 3 }, "Go back", "3 tension signs in a minute."],
  ["values hold the share met constant", "", { byValues: BY_VALUES, block: trials("....") }, "Repeat"],
  ["a refusal where values are followed", "", { byValues: BY_VALUES, block: trials("#") }, "Repeat", "one easier ask"],
  ["two refusals where values are followed", "", { byValues: BY_VALUES, block: trials("##") }, "Go back"],
  ["a lax rule is eased later", "+...", { rule: { kind: "share", met: 5, of: 10, window: "moving" } }, "Repeat"],
  ["but it is eased", "......", { rule: { kind: "share", met: 5, of: 10, window: "moving" } }, "Go back"],
  ["ease before raise", "...", { earlier: trials("+".repeat(30), "monday") }, "Go back"],
  ["it stands for three asks", "...++", {}, "Go back"],
  ["and then it goes", "...+++", {}, "Repeat"],
];

const SIDES: Situation[] = [
  [
    "the planned share reached",
    "l++++++++",
    { sides: { running: "L", here: 0, there: 0, planned: 8 } },
    "Change side",
    "Eight done on the left. Change to the right.",
  ],
  ["not reached yet", "l+++++++", { sides: { running: "L", here: 0, there: 0, planned: 8 } }, "Repeat"],
  ["the other side has had its share", "l++++++++", { sides: { running: "L", here: 0, there: 8, planned: 8 } }, "Repeat"],
  ["reached over two blocks", "r++", { sides: { running: "R", here: 6, there: 2, planned: 8 } }, "Change side", "Change to the left."],
  [
    "the other side is known to be behind",
    "l+++++",
    { sides: { running: "L", here: 0, there: 0, planned: 8, weaker: "R" } },
    "Change side",
    "The right has been the weaker side these last weeks. Today it had",
  ],
  [
    "a gap of one day calls for nothing",
    "l+++++",
    { earlier: trials("r.~.+.", "monday"), sides: { running: "L", here: 0, there: 0, planned: 8 } },
    "Repeat",
  ],
  [
    "the running side is the weaker one and gets more",
    "l~~+~~~+~~~",
    { sides: { running: "L", here: 0, there: 4, planned: 8, weaker: "L" } },
    "Repeat",
  ],
  ["until it has had that too", "l~~+~~~+~~~~~", { sides: { running: "L", here: 0, there: 4, planned: 8, weaker: "L" } }, "Change side"],
  [
    "too few to tell a gap",
    "l+++++",
    { earlier: trials("r.~.+", "monday"), sides: { running: "L", here: 0, there: 0, planned: 8 } },
    "Repeat",
  ],
  ["change side before raise", `l${"+".repeat(10)}`, { sides: { running: "L", here: 0, there: 0, planned: 8 } }, "Change side"],
  ["ease before change side", "l+++++...", { sides: { running: "L", here: 0, there: 0, planned: 8 } }, "Go back"],
  [
    "a rung that names no sides has no share of its own",
    "l++++++++",
    { sides: { running: "L", here: 0, there: 0, planned: null } },
    "Repeat",
  ],
  [
    "but a side known to be weaker is called for",
    "l+++++",
    { sides: { running: "L", here: 0, there: 0, planned: null, weaker: "R" } },
    "Change side",
  ],
  ["no sides on this rung", "++++++++", { sides: null }, "Repeat"],
];

const RAISE: Situation[] = [
  [
    "the rule met",
    "++++++++++",
    {},
    "Up",
    "10 of 10 met, the rule is 8 of the last 10; its true share is likelier 8 to 10 in 10. Go to rung 4.",
  ],
  ["met with earlier evidence", "++", { earlier: trials("++++++++", "monday") }, "Up"],
  ["a warm-up does not count", "++++++++++", { counts: false, blockKind: "warm-up" }, "Repeat"],
  ["both sides, one lacking", `l${"+".repeat(10)}r++++`, { bothSides: true }, "Repeat", "on the right"],
  ["both sides there", `l${"+".repeat(10)}r${"+".repeat(10)}`, { bothSides: true }, "Up", "on each side"],
  ["so many in a row", "+++++", { rule: { kind: "run", length: 5 } }, "Up"],
  ["one short of it", "++++", { rule: { kind: "run", length: 5 } }, "Repeat", "4 in a row"],
  ["sure enough", "+++++", { rule: { kind: "posterior", target: 0.8, confidence: 0.85, least: 5 } }, "Up"],
  ["not sure enough", "+++++", { rule: { kind: "posterior", target: 0.8, confidence: 0.9, least: 5 } }, "Repeat"],
  ["the ease asked for is there", "++++++++3+3+3", { minEase: 3 }, "Up"],
  ["ease not graded", "++++++++++", { minEase: 3 }, "Repeat", "Say how calm the next ones are: 0 of 3 said so far."],
  ["ease not there on one of them", "++++++++3+2+3", { minEase: 3 }, "Repeat", "Not soft yet"],
  ["by the values", "", { byValues: BY_VALUES, block: valued([4, 5, 4, 4, 4]) }, "Up"],
  ["by the values, not there", "", { byValues: BY_VALUES, block: valued([4, 3, 3, 4, 3]) }, "Repeat"],
];

const STAY: Situation[] = [
  ["nothing yet", "", {}, "Start", "No asks since it came to this rung"],
  ["a good start", "++++", {}, "Repeat"],
  ["seven of eight", "++++++.+", {}, "Repeat", "7 of the last 8. Two more right in a row would get you there."],
  ["a mix", "+~+.+~+", {}, "Repeat"],
];

const ALL = [...STOP, ...REST, ...FINISH, ...SPLIT, ...EASE, ...SIDES, ...RAISE, ...STAY];

describe("the word in scripted situations", () => {
  it("is a table of so many, each word among them", () => {
    expect(ALL.length).toBe(131);
    expect(new Set(ALL.map(([, , , word]) => word)).size).toBe(9);
  });

  it.each(ALL)("%s", (_, block, change, word, reason) => {
    const advice = theAdvice(input(block, change));
    expect(`${advice.word}: ${advice.reason}`).toContain(`${word}: `);
    if (reason !== undefined) expect(advice.reason).toContain(reason);
    for (const number of Object.values(advice.numbers)) expect(Number.isFinite(number)).toBe(true);
  });
});

describe("the thresholds of Ease", () => {
  const all = (text: string, p: number) => [...text].reduce((chance, c) => chance * (c === "." ? 1 - p : p), 1);
  it("are checked exactly: every sequence of ten, weighed, gives the same as the dynamic programming", () => {
    for (const [run, misses, window, p] of [
      [3, 4, 7, 0.8],
      [2, 2, 5, 0.8],
      [3, 4, 7, 0.6],
      [4, 3, 6, 0.7],
    ] as const) {
      let eased = 0;
      for (let mask = 0; mask < 1024; mask++) {
        const text = Array.from({ length: 10 }, (_, i) => ((mask >> i) & 1 ? "." : "+")).join("");
        const cries = Array.from({ length: 10 }, (_, n) => text.slice(0, n + 1)).some(
          (soFar) => soFar.endsWith(".".repeat(run)) || [...soFar.slice(-window)].filter((c) => c === ".").length >= misses,
        );
        if (cries) eased += all(text, p);
      }
      expect(chanceOfGoBack({ run, misses, window }, p, 10, { miss: 1, refused: 0 })).toBeCloseTo(eased, 12);
    }
  });

  it("cry Ease in 29 % of ten-trial blocks at 0.8 for two running or three of the last five, and in 8.9 % by default", () => {
    expect(chanceOfGoBack({ run: 2, misses: 3, window: 5 }, 0.8)).toBeCloseTo(0.291, 3);
    expect(chanceOfGoBack({ run: 2, misses: 2, window: 5 }, 0.8)).toBeCloseTo(0.524, 3);
    expect(chanceOfGoBack({ run: 3, misses: 4, window: 7 }, 0.8)).toBeCloseTo(0.0888, 4);
  });

  it.each<[MasteryRule]>([
    [DEFAULT_MASTERY_RULE],
    [EIGHT_OF_TEN],
    [{ kind: "share", met: 6, of: 10, window: "moving" }],
    [{ kind: "share", met: 1, of: 3, window: "block" }],
    [{ kind: "posterior", target: 0.5, confidence: 0.8, least: 5 }],
    [{ kind: "run", length: 3 }],
  ])("never exceed the share allowed for a horse true to the rule: %o", (rule) => {
    const p = rule.kind === "share" ? Math.min(0.8, rule.met / rule.of) : rule.kind === "posterior" ? rule.target : 0.8;
    const thresholds = goBackThresholds(rule, DEFAULT_SETTINGS);
    const chance = chanceOfGoBack(thresholds, p, 10, { miss: 1, refused: 0 });
    expect(chance).toBeLessThanOrEqual(DEFAULT_SETTINGS.easeMostShare);
  });

  it("counts refusals as the learner makes them", () => {
    const { run, misses, window, refusals, refusalWindow } = goBackThresholds(DEFAULT_MASTERY_RULE, DEFAULT_SETTINGS);
    // Every sequence of ten of met, miss and refused, weighed: a horse at 0.8 that refuses one failure in seven.
    let eased = 0;
    for (let code = 0; code < 3 ** 10; code++) {
      let chance = 1;
      let text = "";
      for (let i = 0, left = code; i < 10; i++, left = Math.floor(left / 3)) {
        text += "+.!"[left % 3];
        chance *= [0.8, 0.2 * 0.85, 0.2 * 0.15][left % 3] as number;
      }
      const cries = Array.from({ length: 10 }, (_, n) => text.slice(0, n + 1)).some(
        (soFar) =>
          /[.!]/.test(soFar.at(-1) ?? "") &&
          ([...soFar.slice(-run)].filter((c) => c !== "+").length >= run ||
            [...soFar.slice(-window)].filter((c) => c !== "+").length >= misses ||
            [...soFar.slice(-(refusalWindow ?? 0))].filter((c) => c === "!").length >= (refusals ?? 0)),
      );
      if (cries) eased += chance;
    }
    expect(chanceOfGoBack({ run, misses, window, refusals, refusalWindow }, 0.8)).toBeCloseTo(eased, 12);
    // As the simulated learner fails, tries and all: no more than one block of ten in twenty.
    expect(chanceOfGoBack({ run, misses, window, refusals, refusalWindow }, 0.8, 10, AS_THE_LEARNER)).toBeLessThan(0.05);
  });

  it("refuses what cannot be", () => {
    expect(() => chanceOfGoBack({ run: 3, misses: 4, window: 13 }, 0.8)).toThrow(RangeError);
    expect(() => chanceOfGoBack({ run: 3, misses: 4, window: 7 }, 1.2)).toThrow(RangeError);
  });
});

describe("the settings of the word", () => {
  it("name every threshold, and every default lies within its bounds", () => {
    for (const key of SETTING_KEYS) expect([key, settingProblem(key, asTyped(key, DEFAULT_SETTINGS[key]))]).toEqual([key, null]);
  });
  it("fall back to the default for what is missing, no number or out of bounds", () => {
    expect(settingsFrom(null)).toEqual(DEFAULT_SETTINGS);
    expect(settingsFrom({ easeRun: "3", restAfterMinutes: -1, easeMisses: 2.5, planBlocks: Number.NaN })).toEqual(DEFAULT_SETTINGS);
    expect(settingsFrom({ easeRun: 4, sideGap: 0.2 })).toEqual({ ...DEFAULT_SETTINGS, easeRun: 4 });
    expect(settingsFrom({ easeMisses: 9, easeWindow: 5 })).toMatchObject({ easeMisses: 5, easeWindow: 5 });
  });
  it("are acted on", () => {
    expect(theAdvice(input("++..."), settingsFrom({ easeRun: 5, easeMisses: 6 })).word).toBe("Repeat");
    expect(theAdvice(input("++", { minutesSinceRest: 3 }), settingsFrom({ restAfterMinutes: 3 })).word).toBe("Break");
    expect(theAdvice(input("...+"), settingsFrom({ standsForTrials: 1 })).word).toBe("Repeat");
  });
});
