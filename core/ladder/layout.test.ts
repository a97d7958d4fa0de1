import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type LayoutStrand, layOut } from "./index";

const number = (
  id: string,
  start: number,
  goal: number,
  change: Partial<Extract<LayoutStrand, { kind: "number" }>> = {},
): LayoutStrand => ({
  id,
  kind: "number",
  start,
  goal,
  ...change,
});
const LEVELS = ["a", "b", "c", "d", "e"] as const;
const column = (strand: LayoutStrand, order: "one-by-one" | "in-turn" = "one-by-one") =>
  layOut([strand], { order }).map((rung) => rung[strand.id]);

describe("layOut", () => {
  it.each([
    ["from a second to half a minute", number("stay", 1, 30), [1, 2, 4, 8, 15, 30]],
    ["from zero by the least step", number("stay", 0, 4), [0, 1, 2, 4]],
    ["down to zero by the least step", number("near", 4, 0, { least: 0.5 }), [4, 2, 1, 0.5, 0]],
    ["whole numbers one by one below four", number("steps", 1, 12, { whole: true }), [1, 2, 3, 4, 8, 12]],
    ["a smaller ratio", number("reach", 2, 4, { maxRatio: 1.5 }), [2, 3, 4]],
    ["nothing to do", number("stay", 5, 5), [5]],
    ["a faster answer", number("latency", 8, 2), [8, 4, 2]],
    ["levels", { id: "s", kind: "levels", levels: LEVELS, start: "b", goal: "d" } as LayoutStrand, ["b", "c", "d"]],
  ])("%s", (_, strand, values) => {
    expect(column(strand)).toEqual(values);
  });

  it("takes one strand to its goal and then the next, or all in turn", () => {
    const strands = [number("a", 1, 4), number("b", 1, 2)];
    expect(layOut(strands, { order: "one-by-one" })).toEqual([
      { a: 1, b: 1 },
      { a: 2, b: 1 },
      { a: 4, b: 1 },
      { a: 4, b: 2 },
    ]);
    expect(layOut(strands, { order: "in-turn" })).toEqual([
      { a: 1, b: 1 },
      { a: 2, b: 1 },
      { a: 2, b: 2 },
      { a: 4, b: 2 },
    ]);
  });

  it("eases the others once when a new strand starts, and climbs back before its second step", () => {
    const rungs = layOut([number("stay", 1, 8), number("reach", 1, 4)], { order: "one-by-one", easeOnNew: 0.5 });
    expect(rungs.map(({ stay, reach }) => `${stay}/${reach}`)).toEqual(["1/1", "2/1", "4/1", "8/1", "2/2", "4/2", "8/2", "8/4"]);
  });

  it("keeps its promises for any strands: start, goal, one harder strand, no step over its limit, no goal passed", () => {
    const strand = fc.oneof(
      fc
        .record({
          start: fc.double({ min: 0.2, max: 60, noNaN: true }),
          goal: fc.double({ min: 0.2, max: 60, noNaN: true }),
          maxRatio: fc.double({ min: 1.3, max: 3, noNaN: true }),
        })
        .map((r) => ({ kind: "number" as const, ...r })),
      fc
        .record({ start: fc.integer({ min: 0, max: 30 }), goal: fc.integer({ min: 0, max: 30 }) })
        .map((r) => ({ kind: "number" as const, whole: true, ...r })),
      fc.record({ start: fc.constant(0), goal: fc.integer({ min: 1, max: 40 }) }).map((r) => ({ kind: "number" as const, ...r })),
      fc
        .record({ start: fc.constantFrom(...LEVELS), goal: fc.constantFrom(...LEVELS) })
        .map((r) => ({ kind: "levels" as const, levels: LEVELS, ...r })),
    );
    const all = fc
      .array(strand, { minLength: 1, maxLength: 4 })
      .map((list) => list.map((one, i) => ({ ...one, id: `s${i}` }) as LayoutStrand));
    fc.assert(
      fc.property(
        all,
        fc.constantFrom("one-by-one" as const, "in-turn" as const, "own" as const),
        fc.constantFrom(0, 0.3, 0.5, 1),
        fc.array(fc.nat(), { maxLength: 6 }),
        (strands, order, easeOnNew, picks) => {
          // Legs of the user's own: each pick takes one strand one or two of its own steps further.
          const at = new Map<string, number>();
          const legs = picks.flatMap((pick) => {
            const strand = strands[pick % strands.length];
            if (strand === undefined) return [];
            const path = layOut([strand], { order: "one-by-one" }).map((rung) => rung[strand.id] as number | string);
            const place = Math.min(path.length - 1, (at.get(strand.id) ?? 0) + 1 + (pick % 2));
            at.set(strand.id, place);
            return place === 0 ? [] : [{ id: strand.id, to: path[place] as number | string }];
          });
          const rungs = layOut(strands, { order, easeOnNew, ...(order === "own" ? { legs } : {}) });
          expect(rungs[0]).toEqual(Object.fromEntries(strands.map((s) => [s.id, s.start])));
          expect(rungs.at(-1)).toEqual(Object.fromEntries(strands.map((s) => [s.id, s.goal])));
          const hard = (s: LayoutStrand, value: unknown) => {
            const raw = s.kind === "levels" ? s.levels.indexOf(String(value)) : Number(value);
            const [from, to] = s.kind === "levels" ? [s.levels.indexOf(s.start), s.levels.indexOf(s.goal)] : [s.start, s.goal];
            return from <= to ? raw : -raw;
          };
          rungs.slice(1).forEach((rung, i) => {
            const before = rungs[i] ?? {};
            expect(rung).not.toEqual(before);
            let harder = 0;
            for (const s of strands) {
              const rise = hard(s, rung[s.id]) - hard(s, before[s.id]);
              expect(hard(s, rung[s.id])).toBeLessThanOrEqual(hard(s, s.goal) + 1e-9);
              expect(hard(s, rung[s.id])).toBeGreaterThanOrEqual(hard(s, s.start) - 1e-9);
              if (rise <= 1e-12) continue;
              harder++;
              if (s.kind === "levels") expect(rise).toBe(1);
              else {
                const [low, high] = [Number(rung[s.id]), Number(before[s.id])].sort((a, b) => a - b) as [number, number];
                const ratio = s.maxRatio ?? 2;
                if (low === 0) expect(high).toBeLessThanOrEqual(1 + 1e-9);
                else if (s.whole) expect(high).toBeLessThanOrEqual(low < 4 ? low + 1 : Math.max(low + 1, Math.floor(low * ratio)));
                else expect(high / low).toBeLessThanOrEqual(ratio + 1e-6);
              }
            }
            expect(harder).toBeLessThanOrEqual(1);
          });
        },
      ),
      { numRuns: 300 },
    );
  });

  it("goes the user's own legs, and then every strand to its goal", () => {
    const strands = [number("a", 1, 8), number("b", 1, 4)];
    const legs = [
      { id: "b", to: 2 },
      { id: "a", to: 4 },
      { id: "b", to: 4 },
    ];
    expect(layOut(strands, { order: "own", legs }).map(({ a, b }) => [a, b])).toEqual([
      [1, 1],
      [1, 2],
      [2, 2],
      [4, 2],
      [4, 4],
      [8, 4],
    ]);
    expect(() => layOut(strands, { order: "own", legs: [{ id: "z", to: 3 }] })).toThrow(/no strand/);
    expect(() =>
      layOut(strands, {
        order: "own",
        legs: [
          { id: "a", to: 6 },
          { id: "a", to: 2 },
        ],
      }),
    ).toThrow(/none back/);
    expect(() => layOut(strands, { order: "own", legs: [{ id: "a", to: 9 }] })).toThrow(/past it/);
  });

  it("passes zero by the least step", () => {
    expect(layOut([number("a", -2, 2)], { order: "one-by-one" }).map(({ a }) => a)).toEqual([-2, -1, 0, 1, 2]);
  });

  it.each<[string, readonly LayoutStrand[]]>([
    ["no strand", []],
    ["one id twice", [number("a", 1, 2), number("a", 1, 2)]],
    ["a level nobody wrote", [{ id: "s", kind: "levels", levels: LEVELS, start: "a", goal: "z" }]],
    ["half a step", [number("a", 1.5, 3, { whole: true })]],
    ["a ratio of 1", [number("a", 1, 3, { maxRatio: 1 })]],
    ["no least step", [number("a", 0, 3, { least: 0 })]],
    ["no number", [number("a", Number.NaN, 3)]],
    ["a goal too far off", [number("a", 1, 1e9, { maxRatio: 1.01 })]],
  ])("refuses %s", (_, strands) => {
    expect(() => layOut(strands, { order: "one-by-one" })).toThrow(RangeError);
  });
});
