import { type MasteryRule, ruleCheck } from "@/core/mastery";
import { arithmeticMs } from "./yardstick";

/** For npm run bench: how long the whole rule-check table takes, for the rules with the most to follow. Prints JSON. */
const ps = Array.from({ length: 19 }, (_, i) => (i + 1) / 20);
const WITHIN = 400;
const RUNS = 15;
const RULES: Readonly<Record<string, MasteryRule>> = {
  "6 of 12": { kind: "share", met: 6, of: 12, window: "moving" },
  "8 of 10": { kind: "share", met: 8, of: 10, window: "moving" },
  "10 of 12": { kind: "share", met: 10, of: 12, window: "moving" },
  "12 in a row": { kind: "run", length: 12 },
};
const out: Record<string, number[]> = {};
for (const [name, rule] of Object.entries(RULES)) {
  // The first runs are the compiler's.
  for (let n = 0; n < 3; n++) ruleCheck(rule, ps, WITHIN);
  out[name] = Array.from({ length: RUNS }, () => {
    const started = performance.now();
    ruleCheck(rule, ps, WITHIN);
    return performance.now() - started;
  });
}
process.stdout.write(JSON.stringify({ times: out, yardstickMs: arithmeticMs() }));
