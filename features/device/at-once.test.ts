import "fake-indexeddb/auto";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { SessionEvent } from "@/core/schemas";
import { SessionWriter, testId } from "@/tests/support/session-writer";
import { AtOnce } from "./at-once";
import { DeviceQueue, type EventQueue } from "./queue";
import { Sender } from "./sender";

/** The browser's small store: outlives a page. */
function smallStore(most = Number.POSITIVE_INFINITY): Map<string, string> {
  const kept = new Map<string, string>();
  vi.stubGlobal("localStorage", {
    get length() {
      return kept.size;
    },
    key: (index: number) => [...kept.keys()][index] ?? null,
    getItem: (key: string) => kept.get(key) ?? null,
    removeItem: (key: string) => kept.delete(key),
    setItem: (key: string, value: string) => {
      if (kept.size >= most) throw new DOMException("full", "QuotaExceededError");
      kept.set(key, value);
    },
  });
  return kept;
}

const SESSION = testId(910_000);
function taps(count: number): SessionEvent[] {
  const w = new SessionWriter(SESSION, 1_700_000_000_000);
  for (let i = 0; i < count; i++) w.add(i, "mark", {}, "phone:a", testId(911_000));
  return w.events;
}
const idsOf = (events: readonly SessionEvent[]) => events.map(({ id }) => id);
const never = () => new Promise<EventQueue>(() => undefined);

let kept = new Map<string, string>();
let name = 0;
const database = () => DeviceQueue.open(`at-once-${name}`);
beforeEach(() => {
  name++;
  kept = smallStore();
  vi.stubGlobal("fetch", () => Promise.reject(new TypeError("Failed to fetch")));
});
afterEach(() => vi.unstubAllGlobals());

describe("a tap from the press until the database has it", () => {
  it("is there for the next page when this one goes first, and leaves the small store when the database has it", async () => {
    const list = taps(3);
    const gone = new Sender("yard", never, 60_000);
    void gone.keep(list);
    const next = new Sender("yard", database);
    expect(idsOf(await next.ofSession(SESSION))).toEqual(idsOf(list));
    await expect.poll(() => kept.size).toBe(0);
    expect(idsOf(await (await database()).waiting(10))).toEqual(idsOf(list));
  });

  it("is taken up once by each page and never by other data", async () => {
    void new Sender("yard", never, 60_000).keep(taps(2));
    expect(await new Sender("another", database).ofSession(SESSION)).toEqual([]);
    const [one, two] = [new Sender("yard", database), new Sender("yard", database)];
    for (const sender of [one, two]) expect(await sender.ofSession(SESSION)).toHaveLength(2);
    expect(await (await database()).ofSession(SESSION)).toHaveLength(2);
  });

  it("is still counted where the small store is full or takes nothing", async () => {
    smallStore(1);
    const sender = new Sender("yard", database);
    expect(await sender.keep(taps(3))).toBe(true);
    vi.stubGlobal("localStorage", undefined);
    expect(await new Sender("yard", database).keep(taps(2))).toBe(true);
    expect(await (await database()).ofSession(SESSION)).toHaveLength(5);
  });

  it("throws away a line that is no tap and reads the others, oldest first", () => {
    const list = taps(3);
    const store = new AtOnce("yard");
    store.put([...list].reverse());
    kept.set("deft-tap-yard-x", "{");
    kept.set("deft-tap-yard-y", '{"id":"z"}');
    expect(idsOf(store.left())).toEqual(idsOf(list));
    expect(kept.size).toBe(3);
    store.drop(idsOf(list));
    expect(store.left()).toEqual([]);
  });
});
