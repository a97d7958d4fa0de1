import { describe, expect, it } from "vitest";
import { SessionWriter } from "@/tests/support/session-writer";
import { reduceSession } from "./reduce-session";
import { whereNow } from "./where";

describe("whereNow", () => {
  it("is the last zone tapped; a departure stays open until the return, which leads back", () => {
    const w = new SessionWriter();
    const now = () => whereNow(reduceSession(w.events));
    w.block(0);
    expect(now()).toEqual({ zone: null, away: false });
    w.add(1, "zone", { zone: "gate" });
    w.add(2, "zone", { zone: "plate" });
    expect(now()).toEqual({ zone: "plate", away: false });
    w.add(3, "depart", { from: "plate" });
    expect(now()).toEqual({ zone: null, away: true });
    w.add(4, "zone", { zone: "companion" });
    w.add(5, "depart");
    expect(now()).toEqual({ zone: "companion", away: true });
    w.add(6, "return");
    expect(now()).toEqual({ zone: "plate", away: false });
    w.add(7, "return");
    expect(now()).toEqual({ zone: "plate", away: false });
  });
});

describe("the zone of a trial", () => {
  it("is where the horse is: where it went while away, and where it left from once it is back", () => {
    const w = new SessionWriter();
    w.block(0);
    const met = { outcome: "met" };
    w.add(1, "zone", { zone: "plate" });
    w.add(2, "trial", met);
    w.add(3, "depart");
    w.add(4, "trial", met);
    w.add(5, "zone", { zone: "corner NE" });
    w.add(6, "trial", met);
    w.add(7, "return");
    w.add(8, "trial", met);
    w.add(9, "depart", { to: "gate" });
    w.add(10, "trial", met);
    w.add(11, "return", { to: "arch" });
    w.add(12, "trial", met);
    expect(reduceSession(w.events).trials.map(({ zone }) => zone)).toEqual(["plate", null, "corner NE", "plate", "gate", "arch"]);
  });
});
