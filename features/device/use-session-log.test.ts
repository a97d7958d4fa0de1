// @vitest-environment happy-dom
import { act, cleanup, renderHook, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { SessionNews } from "@/core/pack";
import type { SessionEvent } from "@/core/schemas";
import { SessionWriter } from "@/tests/support/session-writer";
import { useSessionLog } from "./use-session-log";

/** What the device kept, what it is told, and what it was given to keep. */
const device = vi.hoisted(() => ({
  kept: [] as SessionEvent[],
  given: [] as SessionEvent[],
  restores: [] as string[],
  after: (): { position: number; epoch: string | null } => ({ position: -1, epoch: null }),
  tell: (_: unknown): void => undefined,
  stopped: 0,
}));
vi.mock("./sender", () => ({
  senderFor: () => ({
    tieLoad: () => undefined,
    keepSession: async () => true,
    ofSession: async () => device.kept,
    offsetsKept: async () => new Map(),
    heardRestore: (epoch: string) => device.restores.push(epoch),
    keep: async (events: SessionEvent[]) => {
      device.given.push(...events);
      return true;
    },
  }),
}));
vi.mock("./follow", () => ({
  followSession: (_session: string, after: typeof device.after, told: typeof device.tell) => {
    device.after = after;
    device.tell = told;
    return () => {
      device.stopped++;
    };
  },
}));

const w = () => {
  const writer = new SessionWriter();
  writer.add(0, "session.start", { horse: "Bo", method: "combined" });
  writer.block(1);
  return writer;
};
const begun = { id: "s", horse: "h", kind: "work", ladder: null, person: null, place: null, start_rung: 1, kit: [] } as const;
const opened = (events: readonly SessionEvent[] = w().events, position = 7) =>
  renderHook(() =>
    useSessionLog({ storeId: "store", sessionId: "s", person: "ana", events, clocks: {}, position, silenceMinutes: 20, begun }),
  );
const news = (change: Partial<SessionNews>): SessionNews =>
  ({ position: 9, epoch: "one", events: [], clocks: {}, ...change }) as SessionNews;
const met = { type: "trial", payload: { outcome: "met", phase: 1, logged: "tally" } } as const;

beforeEach(() => {
  device.kept = [];
  device.given = [];
  device.restores = [];
  device.stopped = 0;
  localStorage.clear();
});
afterEach(cleanup);

describe("the log of a session on this page", () => {
  it("is ready once what the device kept has been read, and holds it beside the server's, each once", async () => {
    const writer = w();
    const before = [...writer.events];
    writer.add(5, "trial", { outcome: "met", phase: 1 });
    device.kept = [...writer.events];
    const { result } = opened(before);
    expect(result.current.ready).toBe(false);
    await waitFor(() => expect(result.current.ready).toBe(true));
    await waitFor(() => expect(result.current.record.trials).toHaveLength(1));
    expect(result.current.events.map(({ id }) => id)).toEqual(writer.events.map(({ id }) => id));
  });

  it("gives every fact of a press one moment and a place of its own, and keeps it before it is drawn", async () => {
    const { result } = opened();
    await waitFor(() => expect(result.current.ready).toBe(true));
    act(() => result.current.log(met, { type: "mark", payload: {} }));
    expect(device.given.map(({ type, seq }) => [type, seq])).toEqual([
      ["trial", 0],
      ["mark", 1],
    ]);
    const [first, second] = device.given;
    expect(second?.mono_ms).toBe(first?.mono_ms);
    expect(second?.wall_ms).toBe(first?.wall_ms);
    expect(first?.session).toBe("s");
    // The newest are there for the next press, whether they are drawn yet or not.
    expect(result.current.latest().record.trials).toHaveLength(1);
    expect(result.current.tapped().slice(-2)).toEqual(device.given);
    await waitFor(() => expect(result.current.record.trials).toHaveLength(1));
    act(() => result.current.logAgo(2000, met));
    expect((first?.wall_ms ?? 0) - (device.given[2]?.wall_ms ?? 0)).toBeGreaterThan(1000);
    expect(device.given[2]?.seq).toBe(2);
  });

  it("takes in what others tapped once, however often it is told, and asks on from where it is", async () => {
    const { result } = opened();
    await waitFor(() => expect(result.current.ready).toBe(true));
    expect(device.after()).toEqual({ position: 7, epoch: null });
    const other = new SessionWriter();
    other.add(9, "note", { text: "from the gate" }, "tablet:bo", "00000000-0000-4000-8000-0000000000aa");
    const fresh = news({ position: 11, events: [...other.events].map((event) => ({ ...event, id: "other-1" })) });
    act(() => device.tell(fresh));
    act(() => device.tell(fresh));
    await waitFor(() => expect(result.current.events.filter(({ id }) => id === "other-1")).toHaveLength(1));
    expect(device.after()).toEqual({ position: 11, epoch: "one" });
    // News that comes late moves nothing back.
    act(() => device.tell(news({ position: 10 })));
    expect(device.after().position).toBe(11);
  });

  it("counts positions anew after a restore, and says so to what sends", async () => {
    const { result } = opened();
    await waitFor(() => expect(result.current.ready).toBe(true));
    act(() => device.tell(news({ position: 40 })));
    act(() => device.tell(news({ position: 3, epoch: "two" })));
    expect(device.after()).toEqual({ position: 3, epoch: "two" });
    expect(device.restores).toEqual(["one", "two"]);
  });

  it("says that the session lies in the bin, and when it no longer does", async () => {
    const { result } = opened();
    await waitFor(() => expect(result.current.ready).toBe(true));
    act(() => device.tell(news({ binned: true })));
    expect(result.current.binned).toBe(true);
    act(() => device.tell(news({})));
    expect(result.current.binned).toBe(true);
    act(() => device.tell(news({ binned: false })));
    expect(result.current.binned).toBe(false);
  });

  it("logs under the part this device has taken, until it gives it back", async () => {
    const { result, unmount } = opened();
    await waitFor(() => expect(result.current.ready).toBe(true));
    act(() => result.current.setPart("watches"));
    act(() => result.current.log(met));
    act(() => result.current.setPart(undefined));
    act(() => result.current.log(met));
    expect(device.given.map(({ part }) => part)).toEqual(["watches", undefined]);
    unmount();
    expect(device.stopped).toBe(1);
  });
});
