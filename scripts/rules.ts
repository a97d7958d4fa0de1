// Prints the study behind the default rule, the plan of a session and the thresholds of Ease and Split; docs/measures.md states it.

import { ALL_FAIL, AS_THE_LEARNER, chanceOfAddStep, chanceOfGoBack, type GoBackThresholds, goBackThresholds } from "@/core/advice";
import { PERCENTILE_DEFAULTS } from "@/core/evidence";
import { type FollowingBar, FRESH_ASKS, type RuleBand, ruleBand, USUAL_HABITS } from "@/core/forecast";
import { LEARNER_KINDS, OTHER_LEARNER_KINDS } from "@/core/learner";
import { DEFAULT_MASTERY_RULE, type MasteryRule, masterySentence } from "@/core/mastery";
import { DEFAULT_SETTINGS } from "@/core/settings";

const HORSES = 500;
const RUNGS = 12;
const share = (met: number, of: number): MasteryRule => ({ kind: "share", met, of, window: "moving" });
const RULES: readonly MasteryRule[] = [
  share(6, 10),
  share(7, 10),
  share(8, 10),
  share(9, 10),
  share(10, 10),
  share(4, 5),
  { kind: "run", length: 3 },
  { kind: "run", length: 5 },
  { kind: "posterior", target: 0.8, confidence: 0.9, least: 5 },
];
const out = (line: string) => process.stdout.write(`${line}\n`);
const percent = (x: number) => `${Math.round(100 * x)} %`;
const cells = ({ kinds }: RuleBand) =>
  kinds.map(({ reached, asks, notMet }) => `${percent(reached)}, ${asks?.[1] ?? "–"} / ${notMet?.[1] ?? "–"}`).join(" | ");
const head = `| ${LEARNER_KINDS.join(" | ")} |\n|---|${LEARNER_KINDS.map(() => "---|").join("")}`;

out(`Up ${RUNGS} rungs, sessions of 40 asks, ${HORSES} horses of each kind: how many get up, median asks / not met of those\n`);
out(`| rule ${head}`);
for (const rule of RULES)
  out(`| ${masterySentence(rule)} | ${cells(ruleBand(rule, { rungs: RUNGS, asksPerSession: 40, horses: HORSES }))} |`);

const BARS = [0.5, 0.6, 0.8, 0.9].map(
  (wantedShare): FollowingBar => ({ kind: "bar", top: DEFAULT_MASTERY_RULE, lookBack: PERCENTILE_DEFAULTS.lookBack, wantedShare }),
);
const barWords = ({ lookBack, wantedShare }: FollowingBar) =>
  `the bar that follows: ${percent(wantedShare)} earn it, of the last ${lookBack}`;
const climbed = { rungs: RUNGS, asksPerSession: 40, horses: HORSES };
for (const bar of BARS) out(`| ${barWords(bar)} | ${cells(ruleBand(bar, climbed))} |`);

out("\nThe same in a yard: begins cold, tires, days in moods, the trainer stops at four failures running\n");
out(`| rule ${head}`);
for (const rule of RULES) out(`| ${masterySentence(rule)} | ${cells(ruleBand(rule, { ...climbed, habits: USUAL_HABITS }))} |`);
for (const bar of BARS) out(`| ${barWords(bar)} | ${cells(ruleBand(bar, { ...climbed, habits: USUAL_HABITS }))} |`);

out("\nOther kinds of learner\n");
out(`| rule | ${OTHER_LEARNER_KINDS.join(" | ")} |\n|---|${OTHER_LEARNER_KINDS.map(() => "---|").join("")}`);
for (const rule of RULES) out(`| ${masterySentence(rule)} | ${cells(ruleBand(rule, { ...climbed, kinds: OTHER_LEARNER_KINDS }))} |`);

out(`\n${masterySentence(DEFAULT_MASTERY_RULE)}, by asks a session; ${FRESH_ASKS} come easy\n`);
out(`| asks ${head}`);
for (const asksPerSession of [16, 24, 40, 48, 64, 96])
  out(`| ${asksPerSession} | ${cells(ruleBand(DEFAULT_MASTERY_RULE, { rungs: RUNGS, asksPerSession, horses: HORSES }))} |`);

const AT = [0.9, 0.8, 0.7, 0.6] as const;
const fine = (x: number) => `${(100 * x).toFixed(1)} %`;
const thresholds: GoBackThresholds = goBackThresholds(DEFAULT_MASTERY_RULE, DEFAULT_SETTINGS);
out("\nEase in a block of ten, exact\n");
out(`| the horse | ${AT.map((p) => `at ${p}`).join(" | ")} |\n|---|${AT.map(() => "---|").join("")}`);
for (const [name, mix] of [
  ["every answer not met fails, one in seven refused", ALL_FAIL],
  ["as the simulated learner fails", AS_THE_LEARNER],
] as const)
  out(`| ${name} | ${AT.map((p) => fine(chanceOfGoBack(thresholds, p, 10, mix))).join(" | ")} |`);
out(
  `| Split by Ease: twice in five blocks, every failure counted | ${AT.map((p) => fine(chanceOfAddStep(thresholds, p, 2, 5))).join(" | ")} |`,
);
