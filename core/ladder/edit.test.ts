import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { difficulty, notch, STRAND_CATALOGUE, stepFaults, strandFromCatalogue } from "../strands";
import {
  addStrand,
  changeStrand,
  copyRung,
  deleteRung,
  likeTheOneBefore,
  MOST_RUNGS,
  mergeRungs,
  mirrorStrand,
  moveRung,
  type Rope,
  RopeProblem,
  removeStrand,
  setRung,
  setValue,
  splitRung,
  splitStep,
  stepValue,
} from "./index";

const rope = (rows: readonly (readonly [number, number, string])[]): Rope => ({
  strands: [strandFromCatalogue("steps", "steps"), strandFromCatalogue("stay", "stay"), strandFromCatalogue("tether", "tether")],
  rungs: rows.map(([steps, stay, tether]) => ({ values: { steps, stay, tether } })),
});
const shown = ({ rungs }: Rope) => rungs.map(({ values }) => [values.steps, values.stay, values.tether]);
const TWO = rope([
  [1, 1, "short lead"],
  [2, 1, "short lead"],
]);

describe("editing the rope", () => {
  it("sets, copies, moves and deletes rungs, and never changes the one it was given", () => {
    const before = JSON.stringify(TWO);
    const set = setValue(TWO, 2, "stay", 2);
    expect(shown(set)).toEqual([
      [1, 1, "short lead"],
      [2, 2, "short lead"],
    ]);
    expect(set.rungs[0]).toBe(TWO.rungs[0]);
    expect(setValue(TWO, 2, "steps", 2)).toBe(TWO);
    expect(shown(copyRung(set, 1))).toEqual([
      [1, 1, "short lead"],
      [1, 1, "short lead"],
      [2, 2, "short lead"],
    ]);
    // A copy that stands beside what it was copied from asks nothing new, whatever its fault is kept for.
    expect(likeTheOneBefore(copyRung(set, 1).rungs)).toEqual([2]);
    expect(likeTheOneBefore(setRung(copyRung(set, 1), 2, { kept: "known" }).rungs)).toEqual([2]);
    expect(likeTheOneBefore(setRung(copyRung(set, 1), 2, { schedule: { kind: "variable", ratio: 3 } }).rungs)).toEqual([]);
    expect(likeTheOneBefore(set.rungs)).toEqual([]);
    expect(shown(moveRung(set, 2, 1))[0]).toEqual([2, 2, "short lead"]);
    expect(shown(moveRung(set, 1, 99))[1]).toEqual([1, 1, "short lead"]);
    expect(moveRung(set, 1, 0)).toBe(set);
    expect(shown(deleteRung(copyRung(set, 2), 1))).toHaveLength(2);
    expect(JSON.stringify(TWO)).toBe(before);
  });

  it("merges two rungs into one with the harder value of each strand", () => {
    const three = rope([
      [1, 4, "short lead"],
      [3, 2, "short lead"],
      [4, 2, "long line"],
    ]);
    expect(shown(mergeRungs(three, 1))).toEqual([
      [3, 4, "short lead"],
      [4, 2, "long line"],
    ]);
    expect(() => mergeRungs(three, 3)).toThrow(RopeProblem);
  });

  it("keeps to the fewest and the most rungs and strands, and says so", () => {
    expect(() => deleteRung(TWO, 1)).toThrow(/at least 2 rungs/);
    let long = TWO;
    while (long.rungs.length < MOST_RUNGS) long = copyRung(long, 1);
    expect(() => copyRung(long, 1)).toThrow(/at most 40/);
    expect(() => addStrand(TWO, strandFromCatalogue("stay", "stay"), 1)).toThrow(RopeProblem);
    expect(() => deleteRung(TWO, 9)).toThrow(/no rung 9/);
    expect(() => removeStrand({ ...TWO, strands: TWO.strands.slice(0, 1) }, "steps")).toThrow(/at least one strand/);
  });

  it("adds and removes a strand on every rung", () => {
    const added = addStrand(TWO, strandFromCatalogue("ease", "ease"), "soft");
    expect(added.rungs.map(({ values }) => values.ease)).toEqual(["soft", "soft"]);
    expect(removeStrand(added, "ease")).toEqual(TWO);
  });

  it("renames levels in place and turns a strand about with its rungs", () => {
    const levels = ["short lead", "loose line", "free"];
    const renamed = changeStrand(
      rope([
        [1, 1, "long line"],
        [1, 1, "draped line"],
      ]),
      "tether",
      { levels },
    );
    expect(shown(renamed).map((row) => row[2])).toEqual(["loose line", "free"]);
    const turned = mirrorStrand(renamed, "tether");
    expect(turned.strands[2]?.levels).toEqual(["free", "loose line", "short lead"]);
    expect(shown(turned).map((row) => row[2])).toEqual(["loose line", "short lead"]);
    expect(
      stepFaults(
        turned.strands,
        turned.rungs.map(({ values }) => values),
      ),
    ).toEqual([]);
    expect(() => mirrorStrand(TWO, "steps")).toThrow(RopeProblem);
  });

  it("sets what a rung says beside its values, and takes the ladder's own again", () => {
    const own = setRung(TWO, 2, { schedule: { kind: "variable", ratio: 3 }, kept: "known already" });
    expect(own.rungs[1]).toMatchObject({ schedule: { kind: "variable", ratio: 3 }, kept: "known already" });
    expect("schedule" in (setRung(own, 2, { schedule: undefined }).rungs[1] ?? {})).toBe(false);
    expect(copyRung(own, 2).rungs[2]?.kept).toBeUndefined();
  });

  it("steps a value by notches and stays inside the strand", () => {
    expect(stepValue(TWO, 1, "stay", 3).rungs[0]?.values.stay).toBe(2);
    expect(stepValue(TWO, 1, "tether", -2).rungs[0]?.values.tether).toBe("short lead");
    expect(stepValue(TWO, 1, "steps", -5).rungs[0]?.values.steps).toBe(1);
  });
});

describe("notch", () => {
  it("goes through sensible values, and through zero by the least step", () => {
    const stay = strandFromCatalogue("stay", "stay");
    const up: unknown[] = [0];
    for (let n = 0; n < 9; n++) up.push(notch(stay, up.at(-1) as number, 1));
    expect(up).toEqual([0, 1, 1.2, 1.5, 2, 2.5, 3, 4, 5, 6]);
    const own = strandFromCatalogue("own", "own");
    expect(notch(own, -2, 1)).toBe(-1.5);
    expect(notch(own, -1, 1)).toBe(0);
    expect(notch(strandFromCatalogue("approach", "a"), 1, 1)).toBe(0.8);
  });

  it("up and down again never ends harder or easier by more than one notch", () => {
    const numbers = STRAND_CATALOGUE.filter(({ kind }) => kind === "number");
    fc.assert(
      fc.property(
        fc.constantFrom(...numbers),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.constantFrom(1 as const, -1 as const),
        (template, share, way) => {
          const strand = strandFromCatalogue(template.key, "s");
          const [least, most] = template.range;
          const raw = least + share * (Math.min(most, 1000) - least);
          const value = template.wholeNumbers ? Math.round(raw) : raw;
          const next = notch(strand, value, way);
          const change = difficulty(strand, next) - difficulty(strand, value);
          expect(change * way).toBeGreaterThanOrEqual(0);
          expect(Number(next)).toBeGreaterThanOrEqual(least);
          expect(Number(next)).toBeLessThanOrEqual(most);
        },
      ),
    );
  });
});

describe("splitStep", () => {
  it("splits a number into geometric steps of sensible values", () => {
    const long = rope([
      [1, 1, "short lead"],
      [1, 30, "short lead"],
    ]);
    expect(shown(splitRung(long, 2)).map((row) => row[1])).toEqual([1, 2, 4, 8, 15, 30]);
  });

  it("gives each harder strand rungs of its own, the smaller rise first, and eases at once", () => {
    const steep = rope([
      [1, 8, "short lead"],
      [2, 1, "long line"],
      [8, 1, "draped line"],
    ]);
    const split = splitRung(steep, 2);
    expect(shown(split)).toEqual([
      [1, 8, "short lead"],
      [2, 1, "short lead"],
      [2, 1, "long line"],
      [8, 1, "draped line"],
    ]);
    const further = splitRung(split, 4);
    expect(
      stepFaults(
        further.strands,
        further.rungs.map(({ values }) => values),
      ),
    ).toEqual([]);
  });

  it("puts in the levels that were skipped", () => {
    const skipping = rope([
      [1, 1, "short lead"],
      [1, 1, "neck loop"],
    ]);
    expect(shown(splitRung(skipping, 2)).map((row) => row[2])).toEqual(["short lead", "long line", "draped line", "neck loop"]);
  });

  it("leaves a good step alone, drops the kept reason and refuses the first rung", () => {
    expect(splitRung(TWO, 2).rungs).toEqual(TWO.rungs);
    const kept = setRung(
      rope([
        [1, 1, "short lead"],
        [4, 1, "short lead"],
      ]),
      2,
      { kept: "knows it", schedule: { kind: "fixed", ratio: 2 } },
    );
    const split = splitRung(kept, 2);
    expect(split.rungs.slice(1).every(({ kept: reason, schedule }) => reason === undefined && schedule?.kind === "fixed")).toBe(true);
    expect(() => splitStep(TWO.strands, TWO.rungs, 1)).toThrow(RangeError);
  });

  it("leaves no fault, begins and ends where the step did, whatever the step (property)", () => {
    const strands = STRAND_CATALOGUE.map(({ key }) => strandFromCatalogue(key, key));
    const value = (at: number, share: number) => {
      const template = STRAND_CATALOGUE[at];
      if (template === undefined) throw new Error("no template");
      if (template.kind === "levels") return template.levels[Math.floor(share * template.levels.length * 0.999)] ?? "";
      const [least, most] = template.key === "own" ? [-50, 50] : [template.range[0], Math.min(template.range[1], 500)];
      const raw = least + share * (most - least);
      return template.wholeNumbers ? Math.round(raw) : Math.round(raw * 10) / 10;
    };
    const shares = fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: strands.length, maxLength: strands.length });
    fc.assert(
      fc.property(shares, shares, fc.integer({ min: 1, max: (1 << strands.length) - 1 }), (a, b, chosen) => {
        const used = strands.filter((_, i) => (chosen >> i) & 1);
        const rung = (list: readonly number[]) => ({
          values: Object.fromEntries(used.map((strand) => [strand.id, value(strands.indexOf(strand), list[strands.indexOf(strand)] ?? 0)])),
        });
        const split = splitStep(used, [rung(a), rung(b)], 2);
        expect(split[0]).toEqual(rung(a));
        expect(split.at(-1)?.values).toEqual(rung(b).values);
        expect(
          stepFaults(
            used,
            split.map(({ values }) => values),
          ),
        ).toEqual([]);
      }),
      { numRuns: 300 },
    );
  });
});
