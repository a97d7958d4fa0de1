import { describe, expect, it } from "vitest";
import { emptyDraft } from "@/tests/support/plan";
import { allowanceOn, type Restriction } from "../welfare";
import { whyNotToBegin } from "./may-begin";

const restriction = (kind: Restriction["kind"]): Restriction => ({
  kind,
  amount: null,
  detail: null,
  reason: "lame behind",
  givenBy: "the veterinarian",
  from: null,
  until: null,
});
const beginning = (change: Partial<Parameters<typeof whyNotToBegin>[0]> = {}) => ({
  watching: false,
  horse: { name: "Bo", away: null },
  allowance: allowanceOn([], "2026-04-01", null),
  ladder: { plan: emptyDraft().plan, involves: [], rung: 1 },
  ...change,
});

describe("who may begin what", () => {
  it("is anybody where nothing bars it", () => {
    expect(whyNotToBegin(beginning())).toBeNull();
    expect(whyNotToBegin(beginning({ ladder: null }))).toBeNull();
  });

  it("is nobody with a horse that is put away or may not work, but for watching it", () => {
    const away = { horse: { name: "Bo", away: "resting" } };
    expect(whyNotToBegin(beginning(away))).toMatch(/put away \(resting\)/);
    expect(whyNotToBegin(beginning({ ...away, watching: true }))).toBeNull();
    const allowance = allowanceOn([restriction("no-work")], "2026-04-01", null);
    expect(whyNotToBegin(beginning({ allowance }))).toMatch(/lame behind/);
    expect(whyNotToBegin(beginning({ allowance, watching: true }))).toBeNull();
  });

  it("is nobody with a behaviour that involves what is not allowed", () => {
    const allowance = allowanceOn([restriction("no-circling")], "2026-04-01", null);
    const ladder = { plan: emptyDraft().plan, involves: ["circling"], rung: 1 };
    expect(whyNotToBegin(beginning({ allowance, ladder }))).toMatch(/lame behind/);
    expect(whyNotToBegin(beginning({ allowance, ladder: { ...ladder, involves: [] } }))).toBeNull();
  });
});
