import { describe, expect, it } from "vitest";
import { SessionWriter } from "@/tests/support/session-writer";
import { dangerSigns, openDanger, openStopSign, reduceSession, signsWithin } from "../record";
import { classOfSign, dangerOfChoice, namesFor, SIGN_KINDS, SIGNS } from ".";

/** The class a session's one sign is read as. */
const readAs = (write: (w: SessionWriter) => void) => {
  const w = new SessionWriter();
  write(w);
  return reduceSession(w.events).facts.flatMap((fact) => (fact.type === "signal" ? [fact.payload.class] : []));
};

describe("the table of signs", () => {
  it("holds bucks and turned quarters for danger, whatever pad they were tapped on", () => {
    for (const name of ["bucks", "turns quarters"])
      expect(
        readAs((w) => {
          w.block(0);
          w.add(5, "signal", { name, class: "count" });
        }),
      ).toEqual(["danger"]);
  });

  it("holds a threat to kick for danger where somebody stands in reach, or nobody said where", () => {
    const threat = (handler_place?: string) =>
      readAs((w) => {
        w.block(0, { criterion: { sentence: "Stands.", ...(handler_place === undefined ? {} : { handler_place }) } });
        w.add(5, "signal", { name: "threatens to kick", class: "tension" });
      });
    expect(threat("hip")).toEqual(["danger"]);
    expect(threat("2 m off")).toEqual(["danger"]);
    expect(threat()).toEqual(["danger"]);
    expect(threat("shoulder")).toEqual(["tension"]);
    expect(threat("4 m off")).toEqual(["tension"]);
  });

  it("knows freezes, ears back and sweats as tension, and four signs of pain", () => {
    for (const name of ["freezes", "ears back", "sweats"]) expect(classOfSign(name, "count", false)).toBe("tension");
    for (const name of ["nods", "steps short", "guards a leg", "flinches at one place"])
      expect(classOfSign(name, "tension", false)).toBe("pain");
  });

  it("leaves a yard's own sign the class it was tapped with, and pawing both of its own", () => {
    expect(classOfSign("hums", "danger", false)).toBe("danger");
    expect(classOfSign("constructor", "count", false)).toBe("count");
    expect(classOfSign("paws", "count", false)).toBe("count");
    expect(classOfSign("paws", "tension", false)).toBe("tension");
  });

  it("reads a wrong choice that is danger as danger, once", () => {
    expect(dangerOfChoice("kicked at")).toBe("kicks");
    expect(dangerOfChoice("turned its quarters")).toBe("turns quarters");
    expect(dangerOfChoice("left")).toBeNull();
    expect(dangerOfChoice("__proto__")).toBeNull();
    const w = new SessionWriter();
    w.block(0);
    w.add(5, "wrong", { did: "kicked at", met: "moved on" });
    const record = reduceSession(w.events);
    expect(dangerSigns(record)).toBe(1);
    expect(openDanger(record)).toBe("kicks");
    expect(record.timeLine.wrongs).toHaveLength(1);
    w.add(9, "safety", { what: "kicks", then: "rest" });
    expect(openDanger(reduceSession(w.events))).toBeNull();
  });

  it("stops work for a sign of pain as for danger", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(5, "signal", { name: "tension", class: "tension" });
    w.add(7, "correct", { event: w.events[1]?.id, payload: { name: "nods" }, reason: "named" });
    const record = reduceSession(w.events);
    expect(openStopSign(record)?.payload).toEqual({ name: "nods", class: "pain" });
    expect(signsWithin(record, "tension", 8000, 60)).toBe(0);
  });

  it("names no sign in two classes but pawing", () => {
    const names = SIGN_KINDS.flatMap((kind) => SIGNS[kind]);
    expect(names.filter((name, i) => names.indexOf(name) !== i)).toEqual(["paws"]);
    expect(namesFor("danger")).toContain("nods");
    expect(namesFor("pain")).toContain("rears");
  });
});

describe("a sign within an ask", () => {
  it("of danger ends it as a safety release: no reinforcement, no fault, and the lift of the finger is none either", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(10, "ask", { phase: 1 });
    w.add(12, "signal", { name: "danger", class: "danger" });
    w.add(12.4, "release");
    w.add(13, "correct", { event: w.events[2]?.id, payload: { name: "rears" }, reason: "named" });
    const [trial] = reduceSession(w.events).trials;
    expect(trial).toMatchObject({ outcome: "miss", safety: true, troubled: "danger", released: false, reinforced: false, faults: [] });
  });

  it("of tension troubles the ask it came in, and no other", () => {
    const w = new SessionWriter();
    w.block(0);
    w.add(10, "ask", { phase: 1 });
    w.add(11, "signal", { name: "head high", class: "tension" });
    w.add(12, "response", { answer: "met", phase: 1 });
    w.add(12.2, "release");
    w.add(20, "trial", { outcome: "met", phase: 1, logged: "tally" });
    w.add(25, "signal", { name: "ears back", class: "tension" });
    w.add(30, "trial", { outcome: "met", phase: 1, logged: "tally" });
    w.add(31, "signal", { name: "lowers head", class: "ease" });
    w.add(40, "trial", { outcome: "met", phase: 1, logged: "tally" });
    const trials = reduceSession(w.events).trials;
    expect(trials.map(({ troubled }) => troubled)).toEqual(["tension", null, "tension", null]);
    expect(trials[0]).toMatchObject({ outcome: "met", released: true });
  });
});
