import { describe, expect, it } from "vitest";
import { SteadyClock } from "./steady-clock";

const START = 1_800_000_000_000;

function device() {
  const at = { wallMs: START, monoMs: 5000 };
  const clock = new SteadyClock(() => ({ ...at }));
  const pass = (ms: number) => {
    at.wallMs += ms;
    at.monoMs += ms;
  };
  return { at, clock, pass, since: () => clock.nowMs() - START };
}

describe("a page's clock", () => {
  it("is the wall clock, its small drift too", () => {
    const { at, pass, since } = device();
    pass(60_000);
    at.wallMs += 40;
    expect(since()).toBe(60_040);
  });
  it("goes on where the wall clock is set back", () => {
    const { at, pass, since } = device();
    pass(60_000);
    expect(since()).toBe(60_000);
    at.wallMs -= 3_600_000;
    pass(1000);
    expect(since()).toBe(61_000);
    pass(30_000);
    expect(since()).toBe(91_000);
  });
  it("takes a jump forward for a sleep where nobody can be asked", async () => {
    const { at, pass, clock, since } = device();
    clock.doubt = () => Promise.reject(new Error("no server"));
    pass(10_000);
    at.wallMs += 300_000;
    expect(since()).toBe(310_000);
    await Promise.resolve();
    expect(since()).toBe(310_000);
  });
  it("and for a clock that was set where the server's says so", async () => {
    const { at, pass, clock, since } = device();
    const asked: number[] = [];
    clock.doubt = (jump) => {
      asked.push(jump);
      return Promise.resolve(true);
    };
    at.wallMs += 7_200_000;
    pass(2000);
    since();
    await new Promise((resolve) => setTimeout(resolve, 0));
    expect(since()).toBe(2000);
    expect(asked).toEqual([7_200_000]);
    pass(1000);
    expect(since()).toBe(3000);
  });
});
