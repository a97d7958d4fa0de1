import { describe, expect, it } from "vitest";
import { codeFor, sessionOfCode } from "./join-codes";
import { Guesses } from "./rate";
import { deviceWords } from "./sign-in";

const NOW = Date.UTC(2026, 4, 4, 10);

describe("a code for a session", () => {
  it("is five figures, the same while it is good, and stands for nothing after ten minutes", () => {
    const { code, untilMs } = codeFor("a", NOW);
    expect(code).toMatch(/^\d{5}$/);
    expect(codeFor("a", NOW + 60_000)).toEqual({ code, untilMs });
    expect(codeFor("b", NOW).code).not.toBe(code);
    expect(sessionOfCode(`${code.slice(0, 2)} ${code.slice(2)}`, NOW)).toBe("a");
    expect(sessionOfCode(code, untilMs - 1)).toBe("a");
    expect(sessionOfCode(code, untilMs)).toBeNull();
    expect(sessionOfCode("", NOW)).toBeNull();
  });
});

describe("guessing", () => {
  it("waits after so many failures from one place, and after so many from all", async () => {
    const guesses = new Guesses({ here: 3, everywhere: 5, minutes: 10 });
    for (let i = 0; i < 3; i++) {
      expect(await guesses.wait("a")).toBe(0);
      await guesses.failed("a");
    }
    expect(await guesses.wait("a")).toBeGreaterThan(500);
    expect(await guesses.wait("b")).toBe(0);
    for (let i = 0; i < 2; i++) await guesses.failed("b");
    expect(await guesses.wait("c")).toBeGreaterThan(500);
  });

  it("a success forgives what was", async () => {
    const guesses = new Guesses({ here: 3, everywhere: 50, minutes: 10 });
    for (let i = 0; i < 2; i++) await guesses.failed("a");
    await guesses.succeeded("a");
    for (let i = 0; i < 2; i++) await guesses.failed("a");
    expect(await guesses.wait("a")).toBe(0);
  });
});

describe("what a device is called", () => {
  it.each([
    [
      "Mozilla/5.0 (iPhone; CPU iPhone OS 18_5 like Mac OS X) AppleWebKit/605.1.15 Version/18.5 Mobile/15E148 Safari/604.1",
      "Safari on iPhone",
    ],
    ["Mozilla/5.0 (Linux; Android 15) AppleWebKit/537.36 Chrome/140 Mobile Safari/537.36", "Chrome on Android"],
    ["Mozilla/5.0 (Android 15; Mobile; rv:140.0) Gecko/140.0 Firefox/140.0", "Firefox on Android"],
    ["Mozilla/5.0 (Windows NT 10.0; Win64; x64) Chrome/140 Safari/537.36 Edg/140", "Edge on Windows"],
    ["", "a browser on a device"],
  ])("%s is %s", (agent, words) => expect(deviceWords(agent)).toBe(words));
});
