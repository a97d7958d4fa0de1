import { describe, expect, it } from "vitest";
import { everMastered } from "./ever";
import { masteryProgress } from "./progress";
import { type MasteryRule, type MasteryTrial, masterySentence } from "./rule";

/** "+" met, "." not met, "*" met and clean, "|" a new block, "/" the next day. */
function trials(text: string): MasteryTrial[] {
  let block = 0;
  let day = 0;
  const list: MasteryTrial[] = [];
  for (const c of text) {
    if (c === "|" || c === "/") block++;
    if (c === "/") day++;
    else if (c !== "|") list.push({ met: c !== ".", clean: c === "*", blockKey: String(block), wallMs: day * 86_400_000 + list.length });
  }
  return list;
}

const MOVING: MasteryRule = { kind: "share", met: 8, of: 10, window: "moving" };
const BLOCK: MasteryRule = { kind: "share", met: 8, of: 10, window: "block" };

describe("a moving share", () => {
  it.each([
    ["", false],
    ["++++++++", false],
    ["+++++++++", false],
    ["++++++++..", true],
    ["..++++++++", true],
    ["...+++++++", false],
    ["++++++++++...", false],
    ["....++++++++..", true],
    ["+++++|+++++", true],
  ])("%s passes: %s", (text, passed) => {
    expect(masteryProgress(MOVING, trials(text)).passed).toBe(passed);
  });

  it("says how many more in a row would get there, counting what leaves the window", () => {
    expect(masteryProgress(MOVING, trials("+++.+++.+")).needed).toBe("One more right would get you there.");
    expect(masteryProgress(MOVING, trials("....++++++")).needed).toBe("Two more right in a row would get you there.");
    expect(masteryProgress(MOVING, trials("")).needed).toBe("Ten more right in a row would get you there.");
  });
});

describe("a share in a block", () => {
  it.each([
    ["++++++++..", true],
    ["+++++|+++++", false],
    ["..++++++++", true],
    ["...+++++++", false],
    ["...+++++++|++++++++++", true],
    ["++++++++..|..........", false],
  ])("%s passes: %s", (text, passed) => {
    expect(masteryProgress(BLOCK, trials(text)).passed).toBe(passed);
  });
});

describe("a run", () => {
  const run: MasteryRule = { kind: "run", length: 3 };
  it.each([
    ["++", false],
    ["+++", true],
    ["+++.", false],
    [".+.+++", true],
  ])("%s passes: %s", (text, passed) => {
    expect(masteryProgress(run, trials(text)).passed).toBe(passed);
  });
});

describe("posterior", () => {
  const rule: MasteryRule = { kind: "posterior", target: 0.8, confidence: 0.85, least: 5 };
  it("passes five of five at 85 %: the chance is 0.874533", () => {
    const progress = masteryProgress(rule, trials("+++++"));
    expect(progress.passed).toBe(true);
    expect(progress.level).toBeCloseTo(0.874533, 6);
  });
  it("does not pass before its least trials, nor below its confidence", () => {
    expect(masteryProgress(rule, trials("++++")).passed).toBe(false);
    expect(masteryProgress(rule, trials("++++++++..")).passed).toBe(false);
    expect(masteryProgress(rule, trials("")).level).toBeNull();
  });
});

describe("first clean", () => {
  it("passes on a clean last one only", () => {
    const rule: MasteryRule = { kind: "first-clean" };
    expect(masteryProgress(rule, trials("..+*")).passed).toBe(true);
    expect(masteryProgress(rule, trials("*+")).passed).toBe(false);
    expect(masteryProgress(rule, trials("")).passed).toBe(false);
  });
});

describe("masterySentence", () => {
  it("puts every rule in words", () => {
    expect(masterySentence(MOVING)).toBe("8 of the last 10");
    expect(masterySentence(BLOCK)).toBe("8 of 10 in a block");
    expect(masterySentence({ kind: "run", length: 5 })).toBe("5 in a row");
    expect(masterySentence({ kind: "posterior", target: 0.8, confidence: 0.9, least: 5 })).toContain("90 % sure");
    expect(masterySentence({ kind: "first-clean" })).toContain("first clean");
  });
});

describe("a rule of different days", () => {
  const CALM: MasteryRule = { kind: "run", length: 3, days: 2 };
  const soft = (list: readonly MasteryTrial[]) => list.map((trial) => ({ ...trial, soft: true }));

  it("counts only what was said to be soft: silence is never a yes", () => {
    const said = (softness: readonly (boolean | undefined)[]) =>
      softness.map(
        (one, i): MasteryTrial => ({
          met: true,
          clean: true,
          blockKey: "b",
          wallMs: i * 60_000,
          ...(one === undefined ? {} : { soft: one }),
        }),
      );
    expect(masteryProgress(CALM, said([true, true, true])).enoughToday).toBe(true);
    expect(masteryProgress(CALM, said([true, true, false])).enoughToday).toBeUndefined();
    const silent = masteryProgress(CALM, said([true, true, undefined]));
    expect(silent.enoughToday).toBeUndefined();
    expect(silent.needed).toContain("Calm not said on 1, so not counted.");
    expect(
      everMastered(CALM, [
        ...said([true, true, true]),
        ...said([true, true, undefined]).map((t) => ({ ...t, wallMs: t.wallMs + 2 * 86_400_000 })),
      ]),
    ).toBe(false);
    // A rule of one day takes answers as it always did.
    expect(masteryProgress({ kind: "run", length: 3 }, said([undefined, undefined, undefined])).passed).toBe(true);
  });

  it.each([
    ["+++", false, true],
    ["+++/++", false, false],
    ["+++/+++", true, false],
    ["++/+", false, false],
    ["+++/.../+++", true, false],
    ["+++.../+++", true, false],
    ["+++/+++.", false, false],
    ["++++++", false, true],
  ])("%s", (text, passed, enoughToday) => {
    const progress = masteryProgress(CALM, soft(trials(text)));
    expect({ passed: progress.passed, enough: progress.enoughToday ?? false }).toEqual({ passed, enough: enoughToday });
  });

  it("says what is shown and that another day is wanted", () => {
    expect(masteryProgress(CALM, soft(trials("+++"))).needed).toBe("Shown today, 1 of 2 days so far. Again on another day.");
    // Nothing shown yet of two days: three in a row end today and not the rule.
    expect(masteryProgress(CALM, soft(trials("+"))).needed).toBe("Two more right in a row would do for today. 0 of 2 days so far.");
    expect(masteryProgress(CALM, soft(trials("+++/+"))).needed).toBe("Two more right in a row would get you there. 1 of 2 days so far.");
    expect(masterySentence(CALM)).toBe("3 in a row, on 2 days");
    expect(masterySentence({ kind: "first-clean", days: 1 })).toBe("first clean one, then stop");
  });

  it("counts an evening and the next morning as two days, a morning and its evening as one", () => {
    const at = (hours: number) => ({ met: true, clean: true, soft: true, blockKey: "b", wallMs: hours * 3_600_000 });
    const twice: MasteryRule = { kind: "first-clean", days: 2 };
    expect(masteryProgress(twice, [at(8), at(18)]).passed).toBe(false);
    expect(masteryProgress(twice, [at(18), at(24 + 8)]).passed).toBe(true);
  });
});
