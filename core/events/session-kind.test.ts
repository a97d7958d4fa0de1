import { describe, expect, it } from "vitest";
import { isWatch, isWork, kindFacts, kindsWhere, SESSION_KINDS, WORK_KINDS, worksLadders } from "./session-kind";

describe("kinds of session", () => {
  it("are told apart by what is evidence, what is asked, and which recorder they open", () => {
    expect(SESSION_KINDS).toEqual(["work", "first-look", "touch", "connection", "signs", "circle"]);
    expect(WORK_KINDS).toEqual(["work", "circle"]);
    expect(SESSION_KINDS.filter(isWork)).toEqual(["work", "circle"]);
    expect(SESSION_KINDS.filter(worksLadders)).toEqual(["work"]);
    expect(SESSION_KINDS.filter(isWatch)).toEqual(["connection", "signs"]);
    expect(kindsWhere(({ plan }) => plan === "battery")).toEqual(["first-look"]);
    expect(kindsWhere(({ needs }) => needs === "circle plan")).toEqual(["circle"]);
    expect(new Set(SESSION_KINDS.map((kind) => kindFacts(kind).word)).size).toBe(SESSION_KINDS.length);
  });

  it("never open work by watching, nor count as evidence what nobody asked", () => {
    for (const kind of SESSION_KINDS.filter(isWatch)) expect(isWork(kind)).toBe(false);
  });

  it("are no other, not by a name every object has either", () => {
    for (const kind of ["", "lesson", "constructor", "__proto__"]) expect(() => kindFacts(kind)).toThrow(RangeError);
  });
});
