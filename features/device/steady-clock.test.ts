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
  it("takes a jump ahead for a sleep at once where the page was hidden, and where nobody answers", async () => {
    const hidden = device();
    hidden.clock.doubt = () => Promise.reject(new Error("not asked"));
    hidden.pass(10_000);
    hidden.clock.hide();
    hidden.at.wallMs += 300_000;
    expect(hidden.since()).toBe(310_000);
    const lid = device();
    lid.clock.doubt = () => Promise.reject(new Error("no server"));
    lid.pass(10_000);
    lid.at.wallMs += 300_000;
    expect(lid.since()).toBe(10_000);
    await expect.poll(() => lid.since()).toBe(310_000);
    const alone = device();
    alone.at.wallMs += 300_000;
    alone.since();
    await expect.poll(() => alone.since()).toBe(300_000);
  });
  it("and for a clock that was set where the server's says so, from the first look on", async () => {
    const { at, pass, clock, since } = device();
    let asked = 0;
    clock.doubt = () => {
      asked++;
      return Promise.resolve(true);
    };
    at.wallMs += 7_200_000;
    pass(2000);
    expect(since()).toBe(2000);
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(since()).toBe(2000);
    expect(asked).toBe(1);
    pass(1000);
    expect(since()).toBe(3000);
  });
  it("gives an answer that is too slow up: it slept", async () => {
    const { at, clock, since } = device();
    clock.doubt = () => new Promise(() => undefined);
    at.wallMs += 60_000;
    expect(since()).toBe(0);
    await expect.poll(since, { timeout: 4000 }).toBe(60_000);
  });
});
