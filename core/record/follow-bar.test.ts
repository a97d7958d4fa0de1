import { describe, expect, it } from "vitest";
import { emptyDraft } from "@/tests/support/plan";
import { randomSession } from "@/tests/support/random-session";
import { nextStart, theAdvice, valuesGoalOf } from "../advice";
import { seededChance } from "../chance";
import { beatsBar, percentileBar } from "../evidence";
import { type Criterion, criterionOf, type LadderPlan } from "../ladder";
import { eventOf, type Fact } from "../schemas";
import { strandFromCatalogue } from "../strands";
import { barOf, barSentence, evidenceOfSession, reduceSession } from "./index";

const plan: LadderPlan = {
  ...emptyDraft().plan,
  strands: [strandFromCatalogue("reach", "reach")],
  rungs: [{ values: { reach: 6 }, percentile: { lookBack: 5, wantedShare: 0.5 } }, { values: { reach: 8 } }],
  workingStrandId: "reach",
};
const criterion = criterionOf(plan, 1, { earlierValues: [9, 2, 3, 2, 3, 4] });
/** The block of {@link session}: its second event. */
const BLOCK = { number: 1, eventId: "00000000-0000-4000-8000-000000000001" };
const met = (value: number) => ({ outcome: "met" as const, tapped: "met" as const, value });

/** A session of whole trials with their values, on the rung above. */
function session(values: readonly number[], from: Criterion = criterion) {
  const event = (seq: number, fact: Fact) =>
    eventOf(
      {
        id: `00000000-0000-4000-8000-${String(seq).padStart(12, "0")}`,
        session: "s",
        recorder: "r",
        load: "l",
        seq,
        mono_ms: seq * 5000,
        wall_ms: Date.UTC(2026, 3, 1) + seq * 5000,
      },
      fact,
    );
  const start = {
    block: 1,
    behaviour: "b",
    ladder: "x",
    version: 1,
    rung: 1,
    criterion: from,
    side: "L",
    kind: "work",
    planned: 8,
  } as const;
  return reduceSession([
    event(0, { type: "session.start", payload: { horse: "h", handler: "p", place: "q", method: "combined" } }),
    event(1, { type: "block.start", payload: start }),
    ...values.map((value, i) => event(i + 2, { type: "trial", payload: { outcome: "met", phase: 1, value, unit: "m", logged: "tally" } })),
  ]);
}

describe("a bar that follows the horse's own values", () => {
  it("is null where the bar stands still, and looks at the last values only", () => {
    expect(barOf(criterionOf(plan, 2), BLOCK, [])).toBeNull();
    expect(criterion.working?.percentile?.earlier).toEqual([2, 3, 2, 3, 4]);
    // m = 5, w = 0.5: k = 3, the third smallest of 2, 2, 3, 3, 4.
    expect(barOf(criterion, BLOCK, [])?.criterion).toBe(3);
  });

  it("moves with the block, and leaves refusals and answers without a value out", () => {
    const after = barOf(criterion, BLOCK, [
      met(5),
      met(6),
      met(7),
      { outcome: "refused", tapped: "refused", value: null },
      { outcome: "try", tapped: "try", value: null },
    ]);
    expect(after?.criterion).toBe(5);
    // Put right since, a refusal may hold a value; it was tapped as a refusal all the same.
    const refused = { outcome: "met" as const, tapped: "refused" as const, value: 9 };
    expect(barOf(criterion, BLOCK, [met(5), met(6), met(7), refused, refused])?.criterion).toBe(5);
  });

  it("reads no more of a long block than it looks at, since it is asked for after every tap", () => {
    let read = 0;
    const watched = (length: number) =>
      new Proxy(
        Array.from({ length }, (_, i) => met(i % 7)),
        {
          get: (of, key) => {
            if (typeof key === "string" && /^\d+$/.test(key)) read++;
            return Reflect.get(of, key);
          },
        },
      );
    barOf(criterion, BLOCK, watched(40));
    const ofForty = read;
    read = 0;
    barOf(criterion, BLOCK, watched(4000));
    expect(read).toBe(ofForty);
  });

  it("is the same bar before the ask and when the session is derived", () => {
    const values = [2, 3, 3.5, 5, 4, 6, 5, 3, 8, 7];
    const { trials } = session(values);
    expect(trials).toHaveLength(values.length);
    trials.forEach((trial, i) => {
      const bar = barOf(criterion, BLOCK, trials.slice(0, i));
      if (bar === null) throw new Error("no bar");
      const earns =
        bar.criterion === null ? bar.letsAll : (values[i] ?? 0) > bar.criterion || (values[i] === bar.criterion && bar.equalCounts);
      expect(trial.outcome).toBe(earns ? "met" : "try");
      if (!earns) expect(trial.shortfall).toContain("earns it");
    });
    expect(trials.some(({ outcome }) => outcome === "try")).toBe(true);
    expect(trials.some(({ outcome }) => outcome === "met")).toBe(true);
  });

  it("judges no session that has none", () => {
    const { events } = randomSession(3);
    expect(reduceSession(events).trials.every(({ shortfall }) => shortfall === null || !shortfall.includes("earns it"))).toBe(true);
  });

  it("says what earns it", () => {
    const metres = { unit: "m", harder: "more" as const };
    expect(barSentence({ criterion: 3, equalCounts: true, letsAll: false }, metres)).toBe("3 m or more earns it.");
    expect(barSentence({ criterion: 3, equalCounts: false, letsAll: false }, { ...metres, harder: "less" })).toBe(
      "Less than 3 m earns it.",
    );
    expect(barSentence({ criterion: null, equalCounts: false, letsAll: true }, metres)).toBe("Any answer earns it.");
    expect(barSentence({ criterion: null, equalCounts: false, letsAll: false }, metres)).toBe("None earns it this time.");
  });

  it("drawn or asked directly, reinforces the wanted share of exchangeable values", () => {
    const chance = seededChance(5);
    const values: number[] = Array.from({ length: 5 }, () => chance());
    let earned = 0;
    const asks = 6000;
    for (let n = 0; n < asks; n++) {
      const value = Math.round(chance() * 12) / 12;
      if (beatsBar(percentileBar(values, 5, 0.37, "more"), value, "more", chance)) earned++;
      values.push(value);
    }
    expect(Math.abs(earned / asks - 0.37)).toBeLessThan(4 * Math.sqrt((0.37 * 0.63) / asks));
  });
});

describe("moving on from such a rung", () => {
  const evidence = (values: readonly number[]) => evidenceOfSession("s", session(values), null);
  const input = (values: readonly number[]) => ({
    rule: plan.mastery,
    bothSides: false,
    byValues: valuesGoalOf(plan, 1),
    rung: 1,
    rungCount: 2,
    earlier: [],
    block: evidence(values),
    counts: true,
    minutesSinceRest: 1,
    trialsSinceRest: 3,
    workMinutes: 3,
  });

  it("is judged by the median of the last values, whatever the share met", () => {
    expect(theAdvice(input([6, 7, 6, 8, 5])).word).toBe("Up");
    expect(theAdvice(input([6, 7, 6, 8])).reason).toContain("1 more with a value");
    expect(theAdvice(input([2, 3, 2, 3, 2]))).toMatchObject({ word: "Repeat" });
    expect(theAdvice(input([2, 3, 2, 3, 2])).reason).toContain("The median of the last 5 is 2 m, 6 m wanted.");
  });

  it("calls for no easing by shares", () => {
    const missed = evidence([2, 2, 2, 2, 2, 2, 2]).map((trial) => ({ ...trial, outcome: "miss" as const }));
    expect(theAdvice({ ...input([]), block: missed }).word).not.toBe("Go back");
    expect(theAdvice({ ...input([]), block: missed, byValues: null }).word).toBe("Go back");
  });

  it("starts the next session on the rung after it", () => {
    const start = (values: readonly number[]) =>
      nextStart({ plan, ladder: "x", version: 1, trials: evidence(values), nowWallMs: Date.UTC(2026, 3, 2) });
    expect(start([6, 7, 6, 8, 5])).toMatchObject({ rung: 2, headline: "Start on rung 2" });
    expect(start([2, 2, 3, 2, 2]).rung).toBe(1);
  });
});
