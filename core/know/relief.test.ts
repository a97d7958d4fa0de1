import { describe, expect, it } from "vitest";
import { randomSession } from "@/tests/support/random-session";
import { SessionWriter } from "@/tests/support/session-writer";
import { reduceSession, workSeconds } from "../record";
import { entranceRelief, reliefMap, reliefOfSession } from "./index";

const relief = (w: SessionWriter) => reliefOfSession(reduceSession(w.events));
const zone = (w: SessionWriter, name: string) => relief(w).zones.find((one) => one.zone === name);
/** A timed met trial: pressure from `at` for `seconds`. */
function ask(w: SessionWriter, at: number, seconds: number): void {
  w.add(at, "ask", { phase: 1 });
  w.add(at + seconds, "response", { answer: "met" });
  w.add(at + seconds, "release");
}

describe("reliefOfSession", () => {
  it("sums each zone: time, pressure, releases, reinforcers, signs", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(10, "zone", { zone: "gate" });
    ask(w, 20, 5);
    w.add(26, "feed", { pieces: 2 });
    w.add(27, "signal", { name: "licks and chews", class: "ease" });
    w.add(40, "zone", { zone: "plate" });
    ask(w, 50, 8);
    w.add(60, "signal", { name: "braces", class: "tension" });
    w.add(70, "session.end");
    expect(relief(w)).toMatchObject({ secondsElsewhere: 10, departures: 0 });
    expect(zone(w, "gate")).toEqual({
      zone: "gate",
      seconds: 30,
      pressureSeconds: 5,
      releases: 1,
      reinforcers: 2,
      departuresFrom: 0,
      departuresTo: 0,
      trials: 1,
      met: 1,
      easeSigns: 1,
      tensionSigns: 0,
      untimed: 0,
      wrongs: 0,
      untimedWrongs: 0,
    });
    expect(zone(w, "plate")).toMatchObject({ seconds: 30, pressureSeconds: 8, tensionSigns: 1 });
  });

  // Worked by hand. Ask at the edge 10–40; the horse leaves it for the corner at 20 and is moved on 22–34, eight seconds of
  // it (26–34) after it came to the corner. At 50 it backs out and is let go, at 60 it is moved on where no zone is known.
  it("counts what a wrong choice met as pressure where it happened, and once", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(5, "zone", { zone: "edge" });
    w.add(10, "ask", { phase: 1 });
    w.add(22, "wrong", { did: "left", met: "moved on", goes_on: true });
    w.add(26, "zone", { zone: "corner" });
    w.add(34, "wrong.end");
    w.add(40, "response", { answer: "met" });
    w.add(40, "release");
    w.add(50, "wrong", { did: "backed out", met: "let go and asked again", seconds: 5 });
    w.add(56, "zone", { zone: "edge" });
    w.add(57, "wrong", { did: "crowded", met: "backed away farther" });
    w.add(70, "session.end");
    // The ask's 30 s less the 12 that were the wrong choice, and of those the first 4.
    expect(zone(w, "edge")).toMatchObject({ seconds: 35, pressureSeconds: 22, wrongs: 2, untimedWrongs: 1, trials: 1 });
    expect(zone(w, "corner")).toMatchObject({ seconds: 30, pressureSeconds: 8, wrongs: 0 });
  });

  it("takes the place that was said where none was tapped, and leaves breaks out", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(10, "wrong", { did: "pulled", met: "tapped", zone: "gate", goes_on: true });
    w.add(16, "break.start");
    w.add(30, "break.end");
    w.add(40, "session.end");
    expect(zone(w, "gate")).toMatchObject({ seconds: 6, pressureSeconds: 6, wrongs: 1 });
    expect(relief(w).secondsElsewhere).toBe(20);
  });

  it("takes breaks out, and cuts a stay there: it was not left", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(0, "zone", { zone: "in" });
    w.add(30, "break.start");
    w.add(90, "break.end");
    w.add(100, "zone", { zone: "out" });
    w.add(120, "session.end");
    expect(zone(w, "in")?.seconds).toBe(40);
    expect(relief(w).stays).toEqual([
      { zone: "in", seconds: 30, left: false },
      { zone: "in", seconds: 10, left: true },
      { zone: "out", seconds: 20, left: false },
    ]);
  });

  it("counts a departure from where it was to the zone tapped while it was away, and leads back", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(0, "zone", { zone: "middle" });
    w.add(10, "depart", { from: "middle" });
    w.add(12, "zone", { zone: "companion" });
    w.add(30, "return");
    w.add(50, "session.end");
    expect(relief(w).departures).toBe(1);
    expect(zone(w, "middle")).toMatchObject({ departuresFrom: 1, departuresTo: 0, seconds: 30 });
    expect(zone(w, "companion")).toMatchObject({ departuresFrom: 0, departuresTo: 1, seconds: 18 });
  });

  it("does not know the pressure of a tally, and says how many there were", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(0, "zone", { zone: "gate" });
    w.add(5, "trial", { outcome: "met" });
    w.add(9, "trial", { outcome: "met", waited_s: 3 });
    w.add(20, "session.end");
    expect(zone(w, "gate")).toMatchObject({ trials: 2, untimed: 1, pressureSeconds: 3 });
  });

  it("gives all working time to a zone or to none, in sessions as hurried people log them", () => {
    for (const seed of [1, 2, 3, 4, 5, 6]) {
      const { events, id } = randomSession(seed);
      const [first] = events;
      if (first === undefined) throw new Error("no events");
      const zones = Array.from({ length: 9 }, (_, i) => ({
        ...first,
        id: `00000000-0000-4000-9000-${String(i).padStart(12, "0")}`,
        session: id,
        seq: 100_000 + i,
        load: "00000000-0000-4000-9000-999999999999",
        mono_ms: 30_000 + i * 70_000,
        wall_ms: first.wall_ms + i * 70_000,
        type: "zone" as const,
        payload: { zone: `z${i % 3}` },
      }));
      const record = reduceSession([...events, ...zones]);
      const found = reliefOfSession(record);
      const sum = found.zones.reduce((all, one) => all + one.seconds, 0) + found.secondsElsewhere;
      expect(sum, `seed ${seed}`).toBeCloseTo(workSeconds(record), 6);
      expect(found.stays.reduce((all, one) => all + one.seconds, 0)).toBeCloseTo(sum - found.secondsElsewhere, 6);
    }
  });
});

/** A session with so much time and pressure in each zone. */
const session = (zones: Record<string, [seconds: number, pressure: number]>) => {
  const w = new SessionWriter();
  w.block(0);
  let at = 0;
  for (const [name, [seconds, pressure]] of Object.entries(zones)) {
    w.add(at, "zone", { zone: name });
    if (pressure > 0) ask(w, at, pressure);
    at += seconds;
  }
  w.add(at, "session.end");
  return relief(w);
};

describe("reliefMap", () => {
  it("adds sessions up and says where it is easier once sessions show it again and again", () => {
    const one = session({ gate: [100, 10], corner: [100, 60] });
    const map = reliefMap([one, one]);
    expect(map.zones[0]).toMatchObject({ sessions: 2, seconds: 200 });
    expect(map.sentence).toBe("No zone stands out: compared in 2 sessions, and it takes 9 or more.");
    // Where it always goes to the same place first, cold and tired look the same as the place.
    expect(reliefMap(Array.from({ length: 12 }, () => one)).sentence).toMatch(
      /^No zone can be called: in 12 sessions the order varied too little to tell (gate|corner) from warming up/,
    );
    // Nobody knowing how long it stayed where is no better.
    expect(reliefMap(Array.from({ length: 12 }, () => ({ ...one, stays: [] }))).sentence).toMatch(/^No zone can be called/);
    const turned = session({ corner: [100, 60], gate: [100, 10] });
    const steady = Array.from({ length: 10 }, (_, i) => (i % 2 === 0 ? one : turned));
    expect(reliefMap(steady).sentence).toBe("Easier at gate: under pressure 10 % of the time there, 60 % elsewhere, in 10 sessions.");
    // Whichever comes last is the easier one: the place is not it, whichever came last more often.
    const last = session({ corner: [100, 10], gate: [100, 60] });
    expect(
      reliefMap(
        Array.from({ length: 16 }, (_, i) =>
          i % 3 === 0 ? session({ gate: [100, 60], corner: [100, 10] }) : session({ corner: [100, 60], gate: [100, 10] }),
        ),
      ).sentence,
    ).not.toMatch(/^(Easier|Harder)/);
    expect(reliefMap([last]).sentence).toMatch(/^No zone stands out/);
    // Alike on the whole, whatever single days showed.
    const other = session({ gate: [100, 60], corner: [100, 10] });
    expect(reliefMap([...steady, ...steady.map(() => other)]).sentence).toMatch(/^No zone stands out/);
  });

  it("names the harder zone where no easier one stands out, and pays for every zone looked at", () => {
    const orders = [
      ["gate", "middle", "corner"],
      ["corner", "gate", "middle"],
      ["middle", "corner", "gate"],
    ] as const;
    const day = (i: number) => {
      const pressure = { gate: i % 2 === 0 ? 1 : 39, middle: i % 2 === 0 ? 39 : 1, corner: 40 };
      return session(Object.fromEntries((orders[i % 3] ?? []).map((zone) => [zone, [100, pressure[zone]]])));
    };
    expect(reliefMap(Array.from({ length: 6 }, (_, i) => day(i))).sentence).toMatch(/^No zone stands out/);
    expect(reliefMap(Array.from({ length: 18 }, (_, i) => day(i))).sentence).toMatch(
      /^Harder at corner: under pressure 40 % of the time there, 20 % elsewhere, in 18 sessions\.$/,
    );
  });

  it("does not say it from one zone or asks that were not timed", () => {
    const one = session({ gate: [100, 10], corner: [100, 60] });
    const alone = session({ gate: [100, 10] });
    expect(reliefMap([alone, alone]).sentence).toMatch(/^Too little to tell/);
    const untimed = { ...one, zones: one.zones.map((z) => ({ ...z, untimed: 4, trials: 5 })) };
    expect(reliefMap([untimed, untimed])).toMatchObject({ zones: [{ pressureShare: null }, { pressureShare: null }] });
    expect(reliefMap(Array.from({ length: 9 }, () => untimed)).sentence).toMatch(/^Too little to tell/);
    expect(reliefMap([]).sentence).toBe("No zone was tapped yet.");
  });
});

describe("entranceRelief", () => {
  it("sets ease inside against pressure outside, and estimates how long it stays in", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(0, "zone", { zone: "before" });
    ask(w, 5, 10);
    for (const [i, stay] of [6, 6, 6].entries()) {
      w.add(20 + i * 20, "zone", { zone: "inside" });
      w.add(20 + i * 20 + stay, "zone", { zone: "before" });
    }
    w.add(80, "zone", { zone: "inside" });
    w.add(87, "session.end");
    const found = entranceRelief([relief(w)], ["inside"], ["before"]);
    expect(found).toMatchObject({ insideEasySeconds: 25, insidePressureSeconds: 0, outsidePressureSeconds: 10, outsideEasySeconds: 52 });
    // Three left after 6 s, one was cut off at 7 s: S(6) = 1/4 (Kaplan & Meier 1958, by hand).
    expect(found?.stays).toMatchObject({ answered: 3, censored: 1, medianSeconds: 6 });
    expect(found?.stays.steps[0]?.[1]).toBeCloseTo(0.25, 12);
  });

  it("has nothing to say where nboth sides was tapped", () => {
    expect(entranceRelief([session({ gate: [10, 1] })], ["inside"], ["before"])).toBeNull();
  });
});
