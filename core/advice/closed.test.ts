import { describe, expect, it } from "vitest";
import { emptyDraft } from "@/tests/support/plan";
import { allowanceOn, type Restriction } from "../welfare";
import { closedNow } from "./closed";

const plan = emptyDraft().plan;
const allow = (...given: Partial<Restriction>[]) =>
  allowanceOn(
    given.map((one) => ({
      kind: "other" as const,
      amount: null,
      detail: null,
      reason: "",
      givenBy: "the vet",
      from: null,
      until: null,
      ...one,
    })),
    "2026-06-01",
    null,
  );
const RIGHT_FORE: Partial<Restriction> = { kind: "touch-off", detail: "fetlock", limb: "right fore", carriesOthers: true };

describe("what closes a running block", () => {
  it("closes one side where the other may be worked", () => {
    expect(closedNow(plan, ["legs"], null, "R", allow(RIGHT_FORE))).toMatchObject({ side: true });
    expect(closedNow(plan, ["legs"], null, "L", allow(RIGHT_FORE))).toBeNull();
  });

  it("closes the whole where one restriction takes the left and another the right", () => {
    const both = allow(RIGHT_FORE, { kind: "one-side", detail: "right" });
    for (const side of ["L", "R"] as const) expect(closedNow(plan, ["legs"], null, side, both)).toMatchObject({ side: false, rung: null });
    expect(closedNow(plan, [], null, "R", both)).toBeNull();
  });
});
