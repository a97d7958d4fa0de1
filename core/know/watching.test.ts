import { describe, expect, it } from "vitest";
import { SessionWriter } from "@/tests/support/session-writer";
import { reduceSession } from "../record";
import { HEART_STRAND } from "../welfare";
import {
  addSigns,
  agreementWords,
  CONNECTION_QUESTION,
  commonestSigns,
  compareSigns,
  connectionOf,
  knowDigest,
  type NamedHorse,
  NO_SIGNS,
  noNames,
  REST_BEHAVIOUR,
  type Sample,
  SIGNS,
  type SignCounts,
  signRate,
  tellApart,
} from "./index";

const looks = (answers: readonly string[], observer = "first"): Sample[] => answers.map((answer, i) => ({ beep: i + 1, answer, observer }));
const many = (answer: string, n: number) => new Array<string>(n).fill(answer);

describe("connectionOf", () => {
  it("gives shares with intervals, the leading answer and what to teach next", () => {
    const found = connectionOf(looks(new Array(4).fill([...many("other horses", 4), "people"]).flat()));
    expect(found.shares.map(({ answer, n }) => [answer, n])).toEqual([
      ["other horses", 16],
      ["people", 4],
    ]);
    expect(found.leading).toBe("other horses");
    expect(found.sentence).toBe("other horses: 16 of 20 looks in one watch: there, 58 to 92 % of the time.");
    expect(found.teachNext).toContain("Company away by steps");
    expect(found.agreement).toBeNull();
  });

  it("names no leader where looks in a row are one long stay", () => {
    // 16 looks and 4, each in one go: neighbours agree in 18 of 19, 68 % by chance, so they are worth 2 looks and not 20.
    expect(connectionOf(looks([...many("other horses", 16), ...many("people", 4)]))).toMatchObject({
      leading: null,
      sentence: "other horses 16 of 20: too few to tell apart yet.",
    });
  });

  it("names no leader where it cannot be told apart, and nothing where nothing was watched", () => {
    expect(connectionOf(looks([...many("people", 11), ...many("a place", 9)]))).toMatchObject({ leading: null });
    expect(connectionOf(looks(many("people", 5)))).toMatchObject({ leading: null });
    expect(connectionOf([])).toMatchObject({ n: 0, shares: [], leading: null, sentence: "Nothing watched yet." });
    expect(connectionOf(looks(["the moon"])).n).toBe(0);
  });

  it("gives two observers' agreement at the beeps both answered", () => {
    const first = looks([...many("people", 25), ...many("a place", 25)]);
    // 20 and 15 the same, 5 and 10 not: the worked example of Cohen's κ again.
    const second = looks([...many("people", 20), ...many("a place", 5), ...many("people", 10), ...many("a place", 15)], "second");
    const found = connectionOf([...first, ...second, { beep: 99, answer: "people", observer: "second" }]);
    expect(found.n).toBe(50);
    expect(found.agreement).toMatchObject({ n: 50, observed: 0.7 });
    expect(found.agreement?.kappa).toBeCloseTo(0.4, 12);
    if (found.agreement !== null) expect(agreementWords(found.agreement)).toContain("35 of 50 beeps, κ 0.40");
    expect(agreementWords({ kappa: 1, observed: 1, expected: 0.5, n: 4 })).toContain("too few");
  });
});

const signs = (minutes: number, tension: number, ease = 0): SignCounts => ({
  minutes,
  byClass: { ease, tension, danger: 0, pain: 0 },
  byName: noNames(),
});

describe("signs", () => {
  it("have a rate for ten minutes: exact within one session, by sessions over several, none unwatched", () => {
    expect(signRate([signs(20, 10)], "tension")).toMatchObject({ count: 10, perTenMinutes: 5, sessions: 1 });
    // Ten counts: 4.795 to 18.39 in printed tables of exact Poisson limits.
    expect(signRate([signs(10, 10)], "tension")?.interval?.[1]).toBeCloseTo(18.39, 2);
    expect(signRate([signs(10, 4), signs(10, 6)], "tension")).toMatchObject({ perTenMinutes: 5, interval: null });
    // Bouts: 0, 0, 30 in ten minutes each are not thirty independent signs. V = 3/2·(100 + 100 + 400)/900 = 1,
    // r/M = 1/30, so 30 times the variance; t with 2 degrees 4.3027: one and a fifth of a sign in 1.2 minutes.
    const bouts = signRate([signs(10, 0), signs(10, 0), signs(10, 30)], "tension");
    expect(bouts?.interval?.[0]).toBeLessThan(0.2);
    expect(bouts?.interval?.[1]).toBeGreaterThan(150);
    // Two seconds are no session: three watches make the range, not four.
    const three = [signs(10, 2), signs(10, 3), signs(10, 4)];
    expect(signRate([...three, signs(2 / 60, 0)], "tension")).toEqual(signRate(three, "tension"));
    expect(signRate([signs(1.9, 1)], "tension")).toBeNull();
    expect(signRate([signs(2, 1)], "tension")).toMatchObject({ count: 1, sessions: 1 });
    expect(signRate([], "ease")).toBeNull();
    expect(signRate([NO_SIGNS], "ease")).toBeNull();
  });

  it("are compared with the horse's own usual, session by session", () => {
    const usual = [9, 11, 10, 10, 10].map((count) => signs(100, count));
    expect(compareSigns(signs(10, 12), usual, "tension")?.words).toBe(
      "12.0 tension signs in ten minutes, in 5 earlier sessions 1.0: more than usual.",
    );
    expect(
      compareSigns(
        signs(40, 0),
        Array.from({ length: 6 }, () => signs(40, 60)),
        "tension",
      )?.words,
    ).toContain("fewer than usual");
    expect(compareSigns(signs(10, 2), usual, "tension")?.words).toContain("no difference shown");
    // A horse with bouts: what would be much for independent signs is one of its days.
    const bouts = [0, 22, 1, 0, 18, 2].map((count) => signs(20, count));
    expect(compareSigns(signs(20, 20), bouts, "tension")?.unusual).toBe(false);
    // By hand: y = √(1.375/10) four times and √(0.375/10), so ȳ = 0.33540, s = 0.07918;
    // five in ten minutes lie 0.39775 away, against t with 4 degrees 2.7764 · √max(s²·1.2, 1/40 + 5/(40·25)) = 0.4812.
    const few = [1, 1, 0, 1, 1].map((count) => signs(10, count));
    expect(compareSigns(signs(10, 5), few, "tension")?.unusual).toBe(false);
    expect(compareSigns(signs(10, 8), few, "tension")?.unusual).toBe(true);
    expect(compareSigns(signs(10, 9), usual.slice(0, 3), "tension")).toBeNull();
    expect(compareSigns(signs(1, 9), usual, "tension")).toBeNull();
  });

  it("are added up by class and name, the commonest first", () => {
    const one: SignCounts = {
      minutes: 5,
      byClass: { ease: 3, tension: 0, danger: 0, pain: 0 },
      byName: { ...noNames(), ease: { "blows out": 2, "lowers head": 1 } },
    };
    const sum = addSigns([one, one, signs(2, 1)]);
    expect(sum).toMatchObject({ minutes: 12, byClass: { ease: 6, tension: 1, danger: 0, pain: 0 } });
    expect(commonestSigns(sum, "ease")).toEqual([
      { name: "blows out", n: 4 },
      { name: "lowers head", n: 2 },
    ]);
    for (const names of Object.values(SIGNS)) expect(new Set(names).size).toBe(names.length);
  });
});

describe("knowDigest", () => {
  it("keeps what knowing the horse needs, and nothing that was undone", () => {
    const w = new SessionWriter();
    w.block(0, { behaviour: REST_BEHAVIOUR, rung: "rest" });
    w.add(5, "signal", { name: "blows out", class: "ease" });
    const slip = w.add(6, "signal", { name: "rears", class: "danger" });
    w.add(7, "undo", { event: slip });
    w.add(10, "breath", { taps_ms: [0, 5000, 10_000] });
    w.add(11, "breath", { taps_ms: [3, 3] });
    w.add(12, "measure", { strand: HEART_STRAND, value: 38 });
    w.add(13, "touch", { zone: "neck", side: "L", tool: "hand", grade: 3 });
    w.add(14, "touch", { zone: "soul", side: "L", tool: "hand", grade: 3 });
    w.add(15, "sample", { question: CONNECTION_QUESTION, answer: "people", observer: "first", beep: 1, interval_s: 10 });
    w.add(16, "sample", { question: "weather", answer: "rain" });
    w.add(60, "session.end");
    const digest = knowDigest(reduceSession(w.events));
    expect(digest).toMatchObject({
      atRest: true,
      firstLook: null,
      beepSeconds: 10,
      trials: 0,
      signs: { minutes: 1, byClass: { ease: 1, tension: 0, danger: 0, pain: 0 }, byName: { ...noNames(), ease: { "blows out": 1 } } },
      breaths: [{ breaths: 2, seconds: 10 }],
      heart: [{ perMinute: 38 }],
      touches: [{ zone: "neck", grade: 3 }],
      samples: [{ beep: 1, answer: "people", observer: "first" }],
    });
  });
});

describe("tellApart", () => {
  const horse = (id: string, name: string, change: Partial<NamedHorse> = {}): NamedHorse => ({
    id,
    name,
    sex: null,
    birthYear: null,
    kind: "",
    createdMs: Number(id),
    ...change,
  });
  it("adds nothing to a name of its own", () => {
    expect(tellApart([horse("1", "Bo"), horse("2", "Kit")]).get("1")).toBe("");
  });
  it("takes the first fact that sets namesakes apart, whatever the case", () => {
    const words = tellApart([horse("1", "Bo", { sex: "mare", birthYear: 2019 }), horse("2", "bo ", { sex: "mare", birthYear: 2012 })]);
    expect([words.get("1"), words.get("2")]).toEqual(["born 2019", "born 2012"]);
  });
  it("counts them where nothing does", () => {
    const words = tellApart([horse("2", "Bo"), horse("1", "Bo"), horse("3", "Bo", { kind: "cob" })]);
    expect([words.get("1"), words.get("2"), words.get("3")]).toEqual(["no. 1", "no. 2", "cob"]);
  });
});
