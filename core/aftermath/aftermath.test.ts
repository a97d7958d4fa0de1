import { describe, expect, it } from "vitest";
import { emptyDraft } from "@/tests/support/plan";
import { SessionWriter } from "@/tests/support/session-writer";
import { nextStart } from "../advice";
import type { LadderPlan } from "../ladder";
import { evidenceOfSession, reduceSession } from "../record";
import { strandFromCatalogue } from "../strands";
import { aftermathOf, packAftermath, type SessionAftermath, unpackAftermath } from ".";

const PLAN = {
  ...emptyDraft().plan,
  strands: [strandFromCatalogue("steps", "steps")],
  rungs: [1, 2, 3, 4, 5].map((steps) => ({ values: { steps } })),
  mastery: { kind: "run", length: 3 },
} as const satisfies LadderPlan;

/** A session of three met answers on a rung, and what came after them. */
function session(rung: number, after: (w: SessionWriter) => void = () => {}, day = 0) {
  const w = new SessionWriter(`s${day}`, Date.UTC(2026, 4, 4 + day, 9));
  w.block(0, { ladder: "x", rung });
  for (const at of [10, 20, 30]) w.add(at, "trial", { outcome: "met", phase: 1, logged: "tally" });
  after(w);
  w.add(400, "session.end");
  const record = reduceSession(w.events);
  const aftermath = aftermathOf(record);
  return {
    evidence: evidenceOfSession(`s${day}`, record, null),
    aftermath: aftermath === null ? [] : [{ session: `s${day}`, ...aftermath }],
  };
}

const startAfter = (...sessions: readonly ReturnType<typeof session>[]) =>
  nextStart({
    plan: PLAN,
    ladder: "x",
    version: 1,
    trials: sessions.flatMap(({ evidence }) => evidence),
    nowWallMs: Date.UTC(2026, 4, 4 + sessions.length, 9),
    aftermaths: sessions.flatMap(({ aftermath }) => aftermath as SessionAftermath[]),
  });

describe("the start after last time", () => {
  it("goes up where nothing happened", () => {
    expect(startAfter(session(3)).rung).toBe(4);
  });

  it("goes two rungs lower where the line had to be given, though the rule was met", () => {
    const next = startAfter(session(3, (w) => w.add(40, "signal", { name: "pulls back", class: "danger" })));
    expect(next).toMatchObject({ rung: 1, headline: "Start on rung 1" });
    expect(next.reason).toContain("pulls back");
  });

  it("goes a rung lower after other danger", () => {
    expect(startAfter(session(3, (w) => w.add(40, "signal", { name: "bucks", class: "count" }))).rung).toBe(2);
    expect(startAfter(session(3, (w) => w.add(40, "wrong", { did: "kicked at", met: "moved on" }))).rung).toBe(2);
  });

  it("counts danger on a break, after the last block and before the first ask", () => {
    const rears = { name: "strikes", class: "danger" };
    expect(
      startAfter(
        session(3, (w) => {
          w.add(35, "break.start");
          w.add(40, "signal", rears);
        }),
      ).rung,
    ).toBe(2);
    expect(
      startAfter(
        session(3, (w) => {
          w.add(35, "block.end");
          w.add(40, "signal", rears);
        }),
      ).rung,
    ).toBe(2);
    const early = new SessionWriter("s1", Date.UTC(2026, 4, 5, 9));
    early.block(0, { ladder: "x", rung: 4 });
    early.add(5, "signal", rears);
    early.add(9, "session.end");
    const record = reduceSession(early.events);
    const aftermath = [{ session: "s1", ...(aftermathOf(record) as NonNullable<ReturnType<typeof aftermathOf>>) }];
    expect(startAfter(session(3), { evidence: [], aftermath }).rung).toBe(3);
  });

  it("tests the first rung where there is nothing lower, and says so", () => {
    const next = startAfter(session(1, (w) => w.add(40, "signal", { name: "kicks", class: "danger" })));
    expect(next).toMatchObject({ rung: 1, kind: "probe", headline: "Test rung 1 first" });
  });

  it("asks for a vet after a sign of pain", () => {
    const next = startAfter(session(3, (w) => w.add(40, "signal", { name: "nods", class: "pain" })));
    expect(next).toMatchObject({ rung: 2, kind: "probe" });
    expect(next.reason).toContain("vet");
  });

  it("names rung 1 where there are not two rungs to go down", () => {
    const next = startAfter(session(2, (w) => w.add(40, "signal", { name: "rears", class: "danger" })));
    expect(next.rung).toBe(1);
    expect(next.reason).toContain("Begin on rung 1");
  });

  it("says the pain too where danger was graver", () => {
    const next = startAfter(
      session(4, (w) => {
        w.add(30, "signal", { name: "nods", class: "pain" });
        w.add(60, "signal", { name: "kicks", class: "danger" });
      }),
    );
    expect(next.rung).toBe(3);
    expect(next.reason).toContain("kicks");
    expect(next.reason).toContain("nods: have a vet look before you work");
  });

  it("tests a rung lower after many wrong choices that met pressure, and not after choices that met none", () => {
    const wrongs = (met: string) =>
      session(3, (w) => {
        for (let at = 40; at < 200; at += 20) w.add(at, "wrong", { did: "left", met });
      });
    expect(startAfter(wrongs("moved on"))).toMatchObject({ rung: 2, kind: "probe" });
    expect(startAfter(wrongs("ignored")).rung).toBe(4);
  });

  it("tests a rung lower after far more tension than usual", () => {
    const calm = [0, 1, 2, 3, 4].map((day) => session(3, () => {}, day));
    const tense = session(
      3,
      (w) => {
        for (let at = 40; at < 300; at += 12) w.add(at, "signal", { name: "head high", class: "tension" });
      },
      5,
    );
    expect(
      startAfter(
        ...calm,
        session(3, () => {}, 5),
      ).rung,
    ).toBe(4);
    expect(startAfter(...calm, tense)).toMatchObject({ rung: 2, kind: "probe" });
  });

  it("forgets danger only by a later session of the ladder", () => {
    const danger = session(3, (w) => w.add(40, "signal", { name: "kicks", class: "danger" }), 0);
    expect(
      startAfter(
        danger,
        session(2, () => {}, 1),
      ).rung,
    ).toBe(3);
  });

  it("counts a safety release that was said on the card, and says when somebody was hurt", () => {
    const next = startAfter(
      session(4, (w) => {
        w.add(40, "signal", { name: "kicks", class: "danger" });
        w.add(50, "safety", { what: "kicks", then: "end", release: true, hurt: "injury" });
      }),
    );
    expect(next.rung).toBe(2);
    expect(next.reason).toContain("hurt");
  });

  it("is kept as a short text, and is the same out of it", () => {
    const [one] = session(4, (w) => {
      w.add(40, "signal", { name: "kicks", class: "danger" });
      w.add(50, "safety", { what: "kicks", then: "end", hurt: "fall" });
    }).aftermath;
    const { session: _, ...aftermath } = one as SessionAftermath;
    expect(unpackAftermath(JSON.parse(packAftermath(aftermath)))).toEqual({
      ...aftermath,
      minutes: Math.round(aftermath.minutes * 100) / 100,
    });
  });
});
