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
