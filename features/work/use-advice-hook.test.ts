// @vitest-environment happy-dom
import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { reduceSession } from "@/core/record";
import type { Fact } from "@/core/schemas";
import { recorderStart } from "@/tests/support/recorder-start";
import { SessionWriter } from "@/tests/support/session-writer";
import type { SessionLog } from "../device/use-session-log";
import { useAdvice } from "./use-advice";

const MINUTE_MS = 60_000;

beforeEach(() => {
  vi.useFakeTimers();
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

/** A recorder that looks at a session as far as it was written, and keeps what the hook logs. */
function recorder(w: SessionWriter) {
  const logged: Fact[] = [];
  let nowMs = MINUTE_MS;
  let ready = true;
  const start = recorderStart();
  const log = (...facts: Fact[]) => {
    logged.push(...facts);
  };
  const now = () => nowMs;
  const state = () => ({ record: reduceSession(w.events), nowMs: now, log, ready }) as unknown as SessionLog;
  const { result, rerender } = renderHook(({ session }) => useAdvice(start, session), { initialProps: { session: state() } });
  return {
    logged,
    word: () => result.current?.word,
    look: () => rerender({ session: state() }),
    isReady: (yes: boolean) => {
      ready = yes;
    },
    at: (ms: number) => {
      nowMs = ms;
    },
  };
}

function session(met = 3) {
  const w = new SessionWriter();
  w.add(0, "session.start", { horse: "Bo", method: "combined" });
  w.block(1);
  for (let i = 0; i < met; i++) w.add(5 + 5 * i, "trial", { outcome: "met", phase: 1 });
  return w;
}

/** How files have always named them. */
const logKey = (word: string | undefined) => ({ Repeat: "Stay", Start: "Stay", Break: "Rest", Up: "Raise" })[word ?? ""] ?? word;
const words = (logged: readonly Fact[]) => logged.flatMap((fact) => (fact.type === "word" ? [fact.payload.word] : []));

describe("the word of a recorder", () => {
  it("is logged as it is said, once, and once more where it changes", () => {
    const w = session();
    const one = recorder(w);
    expect(words(one.logged)).toEqual(["Stay"]);
    w.add(30, "trial", { outcome: "met", phase: 1 });
    one.look();
    one.look();
    expect(words(one.logged)).toEqual(["Stay"]);
    one.at(12 * MINUTE_MS);
    w.add(12 * 60, "trial", { outcome: "met", phase: 1 });
    one.look();
    expect(one.word()).not.toBe("Repeat");
    expect(words(one.logged)).toEqual(["Stay", logKey(one.word())]);
    expect(one.logged.every((fact) => fact.type === "word" && fact.payload.taken === false)).toBe(true);
  });

  it("is not logged before the device has read what it kept, nor again after a reload, nor where another recorder said it", () => {
    const w = session();
    const early = recorder(w);
    expect(early.logged).toHaveLength(1);
    w.add(25, "word", { word: "Stay", why: "stay", reason: "", numbers: {}, taken: false });
    expect(recorder(w).logged).toEqual([]);
    const unread = recorder(session());
    unread.logged.length = 0;
    unread.isReady(false);
    unread.at(12 * MINUTE_MS);
    unread.look();
    expect(unread.logged).toEqual([]);
  });

  it("is said anew in a new block", () => {
    const w = session();
    w.add(25, "word", { word: "Stay", why: "stay", reason: "", numbers: {}, taken: false });
    const one = recorder(w);
    expect(one.logged).toEqual([]);
    w.add(60, "block.end", {});
    w.add(70, "block.start", { ...(w.events.find(({ type }) => type === "block.start")?.payload ?? {}), block: 2 } as never);
    w.add(75, "trial", { outcome: "met", phase: 1 });
    one.look();
    expect(words(one.logged)).toEqual([logKey(one.word())]);
  });

  it("looks at the clock by itself where nothing is tapped", () => {
    const one = recorder(session());
    one.at(12 * MINUTE_MS);
    expect(one.word()).toBe("Repeat");
    act(() => {
      vi.advanceTimersByTime(5000);
    });
    expect(one.word()).not.toBe("Repeat");
  });

  it("is logged no more once the session is finished", () => {
    const w = session();
    w.add(40, "session.end", {});
    expect(recorder(w).logged).toEqual([]);
  });
});
