import { describe, expect, it, vi } from "vitest";
import { play, wasOwnSound } from "./feedback";

describe("the device's own sounds", () => {
  it("are known while they last and ring on, the high ones alone", () => {
    vi.spyOn(performance, "now").mockReturnValue(10_000);
    play([
      { at: 0, seconds: 0.06, hertz: 660 },
      { at: 1, seconds: 0.12, hertz: 1175 },
    ]);
    expect([10_010, 10_990, 11_100, 11_190, 11_300].map(wasOwnSound)).toEqual([false, true, true, true, false]);
  });
});
