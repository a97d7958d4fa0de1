import { describe, expect, it } from "vitest";
import { allowanceOn, goneAgainstIn, restrictionSentence, UNREAD } from "../welfare";
import { type KeptRestriction, readRestriction } from ".";

const row = (over: Partial<KeptRestriction>): KeptRestriction => ({
  kind: "no-circling",
  amount: null,
  detail: "",
  limb: null,
  carries_others: null,
  reason: "a swollen joint",
  given_by: "the vet",
  from_day: null,
  until_day: null,
  gone_against: "[]",
  ...over,
});
const DAY = "2026-03-09";

describe("a restriction as it is kept", () => {
  it("is read where this version knows every word of it", () => {
    expect(readRestriction(row({ kind: "touch-off", detail: "fetlock", limb: "left hind", carries_others: "yes" }))).toEqual({
      kind: "touch-off",
      amount: null,
      detail: "fetlock",
      limb: "left hind",
      carriesOthers: true,
      reason: "a swollen joint",
      givenBy: "the vet",
      from: null,
      until: null,
    });
  });

  it.each<[string, Partial<KeptRestriction>, string]>([
    ["a kind of a later version", { kind: "no-jumping" }, "no-jumping"],
    ["a word that every object has", { kind: "constructor" }, "constructor"],
    ["an amount beyond all amounts", { kind: "work-minutes", amount: 1e300 }, "1e+300"],
    ["an amount that is none", { kind: "repetitions", amount: "many" }, "many"],
    ["no amount where one is needed", { kind: "circling-minutes", amount: null }, "circling-minutes"],
    ["a gait of a later version", { kind: "highest-gait", detail: "tolt" }, "tolt"],
    ["a third side", { kind: "one-side", detail: "both" }, "both"],
    ["a day that is none", { until_day: "2026-02-31" }, "2026-02-31"],
    ["a number for a kind", { kind: 7 }, "7"],
  ])("with %s closes all work and says what was written", (_, over, words) => {
    const read = readRestriction(row({ ...over, from_day: "2030-01-01", ...(over.until_day === undefined ? {} : over) }));
    expect(read.kind).toBe(UNREAD);
    const { noWork } = allowanceOn([read], DAY, null);
    expect(noWork?.why).toContain(words);
    expect(noWork?.why).toContain("a swollen joint");
    expect(restrictionSentence(read)).toContain("cannot read");
  });

  it("that cannot be read is opened by no reason: it is read first", () => {
    const against = JSON.stringify([{ day: DAY, reason: "only held" }]);
    expect(allowanceOn([readRestriction(row({ kind: "no-jumping", gone_against: against }))], DAY, null).noWork).not.toBeNull();
    expect(allowanceOn([readRestriction(row({ kind: "no-work", gone_against: against }))], DAY, null).noWork).toBeNull();
  });

  it("is opened by no reason that cannot be read", () => {
    for (const kept of ["", "null", "{}", "[null]", '[{"day":"never","reason":"x"}]', `[{"day":"${DAY}"}]`, "[", 7, null])
      expect(goneAgainstIn(kept), String(kept)).toEqual([]);
    expect(goneAgainstIn(`[{"day":"${DAY}","reason":"only held"}]`)).toHaveLength(1);
  });
});
