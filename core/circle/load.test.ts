import { describe, expect, it } from "vitest";
import { aidPhases } from "./aid-phases";
import type { CircleDigest } from "./digest";
import { fitSentences, NO_FIT } from "./fit";
import { balanceOf, circlingMinutesOf, type LoadEntry, loadWeeks, mondayOf } from "./load";
import { relearnedOf, relearnedSentence } from "./relearn";
import { firstSide, USUAL_SETUP } from "./setup";
import { transitionSums } from "./transitions";

const digest = (seconds: Record<string, number>, more: Partial<CircleDigest> = {}): CircleDigest => ({
  form: "circle",
  ways: "both",
  radius: 10,
  seconds,
  laps: {},
  speeds: {},
  metres: 0,
  dose: null,
  obstacles: false,
  kit: null,
  stage: null,
  poor: false,
  easy: null,
  planned: 0,
  transitions: [],
  faults: {},
  slack: [0, 0],
  directions: [],
  overrides: [],
  cool: null,
  ...more,
});
const entry = (day: string, kind: LoadEntry["kind"], minutes: number, own: CircleDigest | null = null): LoadEntry => ({
  day,
  kind,
  minutes,
  circlingMinutes: own === null ? 0 : circlingMinutesOf(own),
  digest: own,
  byHand: own === null,
});

describe("the load book", () => {
  it("begins its weeks on Monday", () => {
    // 2026-03-02 was a Monday.
    expect(["2026-03-01", "2026-03-02", "2026-03-08", "2026-03-09"].map(mondayOf)).toEqual([
      "2026-02-23",
      "2026-03-02",
      "2026-03-02",
      "2026-03-09",
    ]);
  });
  it("adds a week up by kind, gait and side, and says the change of whole weeks alone", () => {
    const weeks = loadWeeks(
      [
        entry(
          "2026-03-03",
          "circle",
          20,
          digest(
            { "walk L": 480, "trot L": 120, "walk R": 480, "trot R": 120, "stand R": 300 },
            { laps: { "trot L": 3 }, metres: 2300, dose: 1.25 },
          ),
        ),
        entry("2026-03-05", "ridden", 45),
        entry("2026-03-10", "circle", 30, digest({ "walk L": 1800 }, { metres: 2900, dose: 1 })),
        entry("2026-03-24", "pen", 10, digest({ "trot L": 600 }, { form: "pen", radius: null })),
      ],
      "2026-03-02",
      "2026-03-25",
    );
    expect(weeks.map(({ monday, circlingMinutes, change, running }) => [monday, circlingMinutes, change, running])).toEqual([
      ["2026-03-02", 20, null, false],
      ["2026-03-09", 30, 0.5, false],
      ["2026-03-16", 0, -1, false],
      ["2026-03-23", 10, null, true],
    ]);
    expect(weeks[0]).toMatchObject({
      minutes: 65,
      circleSessions: 1,
      laps: 3,
      metres: 2300,
      doseGMinutes: 1.25,
      leftMinutes: 10,
      rightMinutes: 10,
    });
    expect(weeks[0]?.minutesByKind).toMatchObject({ circle: 20, ridden: 45, pen: 0 });
    expect(weeks[0]?.byGaitSide["trot L"]).toBe(2);
    expect(weeks[3]?.doseGMinutes).toBeNull();
  });
  it("holds the sides of fourteen days on a balance", () => {
    const entries = [
      entry("2026-03-03", "circle", 10, digest({ "walk L": 600 })),
      entry("2026-03-12", "circle", 10, digest({ "walk L": 300, "walk R": 900, "stand R": 600 })),
    ];
    expect(balanceOf(entries, "2026-03-16")).toEqual({ left: 15, right: 15, share: 0.5 });
    expect(balanceOf(entries, "2026-03-17")).toEqual({ left: 5, right: 15, share: 0.25 });
    expect(balanceOf([], "2026-03-17").share).toBeNull();
  });
  it("takes long lines away from a circle for no circling", () => {
    expect(circlingMinutesOf(digest({ "walk L": 600 }, { form: "lines", radius: null }))).toBe(0);
    expect(circlingMinutesOf(digest({ "walk L": 600 }, { form: "lines" }))).toBe(10);
  });
});

describe("how kit fits, and the side that goes first", () => {
  it("asks for even holes and a check that is due", () => {
    expect(fitSentences(null, "2026-03-02")).toHaveLength(1);
    expect(fitSentences({ ...NO_FIT, holesLeft: 4, holesRight: 5 }, "2026-03-02")).toEqual([
      "Holes 4 left and 5 right: even them before work.",
    ]);
    expect(fitSentences({ ...NO_FIT, holesLeft: 4, holesRight: 4, nextCheck: "2026-03-02" }, "2026-03-02")).toEqual([
      "Its next check is due.",
    ]);
    expect(fitSentences({ ...NO_FIT, nextCheck: "2026-03-03" }, "2026-03-02")).toEqual([]);
  });
  it("begins on the easier side unless the stiffer is to come first", () => {
    expect(firstSide(USUAL_SETUP).side).toBe("L");
    expect(firstSide({ stiffer: "L", stifferFirst: false }).side).toBe("R");
    expect(firstSide({ stiffer: "L", stifferFirst: true }).side).toBe("L");
  });
});

describe("transitions by gait and hand", () => {
  const one = (cameAfterSeconds: number | null, aids: readonly ("voice" | "whip")[], waitedSeconds = 20) => ({
    to: "walk",
    side: "L" as const,
    aids,
    cameAfterSeconds,
    waitedSeconds,
    outAfterSeconds: null,
  });
  it("count voice alone of all that were asked, and what never came as not yet", () => {
    const [sums] = transitionSums([one(2, ["voice"]), one(4, ["voice", "voice"]), one(6, ["voice", "whip"]), one(null, ["voice"])]);
    expect(sums).toMatchObject({ n: 4, came: 3, voiceAlone: 2, asksEach: 5 / 3, halfSeconds: 4 });
    // Wilson 1927 for two of four, by hand: (0.5 + z²/8 ± z·√(0.25/4 + z²/64))/(1 + z²/4), z = 1.959964.
    expect(sums?.voice95[0]).toBeCloseTo(0.150036, 5);
    expect(sums?.voice95[1]).toBeCloseTo(0.849964, 5);
    expect(transitionSums([one(null, ["voice"], 5), one(null, ["voice"], 9), one(3, ["voice"])])[0]?.halfSeconds).toBeNull();
  });
});

describe("what is learned again after a change of direction", () => {
  const pen = (first: number | null, second: number | null) => ({
    directions: [
      { side: "L" as const, startSeconds: 0, seconds: 120, shown: { "ear comes in": first, "turns in": null, "lowers head": null } },
      { side: "R" as const, startSeconds: 120, seconds: 120, shown: { "ear comes in": second, "turns in": null, "lowers head": null } },
    ],
  });
  it("is held by sessions: six sooner of six are shown, five of six are not", () => {
    // Exact sign test at even odds: 2·(1/2)^6 = 0.03125; 2·(1 + 6)/2^6 = 0.21875.
    const six = relearnedOf([20, 30, 40, 50, 60, 80].map((first) => pen(first, first / 2)));
    expect(six).toMatchObject([{ sign: "ear comes in", sessions: 6, sooner: 6, savedShare: 0.5, p: 0.03125 }]);
    expect(relearnedSentence(six[0] as never)).toBe(
      "ear comes in: sooner after the change of direction in 6 of 6 sessions; it takes 50 % less time there, by the middle session.",
    );
    const five = relearnedOf([...[20, 30, 40, 50, 60].map((first) => pen(first, 10)), pen(10, 20)]);
    expect(five[0]?.p).toBeCloseTo(0.21875, 12);
    expect(relearnedSentence(five[0] as never)).toMatch(/no difference shown yet\.$/);
  });
  it("leaves out what was not shown in both, and sessions that took as long", () => {
    expect(relearnedOf([pen(null, 5), pen(5, null), { directions: [] }])).toEqual([]);
    expect(relearnedOf([pen(10, 10), pen(10, 10)])).toMatchObject([{ sessions: 2, sooner: 0, p: null }]);
  });
  it("is said in at most five of a hundred horses that learn nothing, by counting every split", () => {
    // Of n sessions each split has its binomial chance; summed over those that would be said.
    const factorial = (n: number): number => (n <= 1 ? 1 : n * factorial(n - 1));
    for (let n = 1; n <= 20; n++) {
      let said = 0;
      for (let sooner = 0; sooner <= n; sooner++) {
        const list = Array.from({ length: n }, (_, i) => (i < sooner ? pen(20, 10) : pen(10, 20)));
        const p = relearnedOf(list)[0]?.p ?? 1;
        if (p < 0.05) said += (factorial(n) / factorial(sooner) / factorial(n - sooner)) * 0.5 ** n;
      }
      expect(said).toBeLessThanOrEqual(0.05);
    }
  });
});

describe("aids as phases of a ladder's ask", () => {
  it("are the phase of their kind, else after the voice, and the line the clearest", () => {
    const kinds = (...list: ("voice" | "wave" | "lead" | "body" | "point")[]) => aidPhases(list.map((kind) => ({ kind })));
    expect(kinds("voice", "wave", "lead")).toEqual({ voice: 1, whip: 2, smaller: 2, line: 3 });
    expect(kinds("body", "voice", "lead")).toEqual({ voice: 2, whip: 3, smaller: 3, line: 3 });
    expect(kinds("voice", "point", "wave")).toEqual({ voice: 1, whip: 2, smaller: 2, line: 3 });
    expect(kinds("voice")).toEqual({ voice: 1, whip: 1, smaller: 1, line: 1 });
    expect(aidPhases([])).toEqual({ voice: 1, whip: 1, smaller: 1, line: 1 });
  });
});
