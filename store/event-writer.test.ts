import { mkdtempSync, readdirSync, readlinkSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { SessionEvent } from "@/core/schemas";
import { newStore } from "@/tests/support/new-store";
import { PLAIN_HORSE } from "@/tests/support/plain-horse";
import { SessionWriter, testId } from "@/tests/support/session-writer";
import { withRaw } from "./file";
import { addHorse, addPerson, addSession, closeStore, EventConflictError, type Store, storeFailure } from "./index";

let folder: string;
let store: Store;
const SESSION = testId(900_000);

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "deft-writer-"));
  store = await newStore(join(folder, "own.sqlite"), () => Date.UTC(2026, 5, 20), { busyMs: 400 });
  const horseId = await addHorse(store, PLAIN_HORSE);
  await addSession(store, { id: SESSION, horseId, ladderId: null, personId: null, placeId: null, startRung: null });
});
afterEach(async () => {
  await closeStore(store);
  rmSync(folder, { recursive: true, force: true });
});

function taps(count: number, recorder = "phone:a"): SessionEvent[] {
  const w = new SessionWriter(SESSION);
  for (let i = 0; i < count; i++) w.add(i, "mark", {}, recorder);
  return w.events;
}
const batch = (events: readonly SessionEvent[], recorder = "phone:a") => ({ recorder, events, clocks: {} });
/** What another program would find in the file. */
const idsOnDisk = () =>
  withRaw(store.file, "read", async (database) =>
    (await database.all<{ id: string }>("SELECT id FROM event_log ORDER BY id")).map(({ id }) => id),
  );
const idsOf = (events: readonly SessionEvent[]) => events.map(({ id }) => id).sort();

/** Makes the real COMMIT fail wherever an event of the recorder "bad" is in it: a promise to a parent that never comes. */
const failCommitsOfBad = () =>
  withRaw(store.file, "write", (database) =>
    database.exec(`CREATE TABLE promised (id INTEGER PRIMARY KEY);
      CREATE TABLE promise (id INTEGER REFERENCES promised (id) DEFERRABLE INITIALLY DEFERRED);
      CREATE TRIGGER break_promise AFTER INSERT ON event WHEN (SELECT recorder FROM source WHERE no = NEW.source_no) = 'bad' BEGIN INSERT INTO promise VALUES (1); END;`),
  );

describe("a COMMIT that fails", () => {
  it("is answered as a failure, leaves nothing, and the next batch is saved", async () => {
    await failCommitsOfBad();
    await expect(store.events.append(batch(taps(20, "bad"), "bad"))).rejects.toThrow(/FOREIGN KEY/);
    expect(await idsOnDisk()).toEqual([]);
    const good = taps(3);
    expect(await store.events.append(batch(good))).toMatchObject({ saved: 3 });
    expect(await idsOnDisk()).toEqual(idsOf(good));
  });

  it("takes no good batch with it that was merged into the same transaction", async () => {
    await failCommitsOfBad();
    const good = Array.from({ length: 7 }, () => taps(5));
    // The first is alone in its transaction; the others wait meanwhile and are merged.
    const outcomes = await Promise.allSettled([
      store.events.append(batch(taps(1))),
      ...good.slice(0, 4).map((events) => store.events.append(batch(events))),
      store.events.append(batch(taps(5, "bad"), "bad")),
      ...good.slice(4).map((events) => store.events.append(batch(events))),
    ]);
    expect(outcomes.map(({ status }) => status)).toEqual([...Array(5).fill("fulfilled"), "rejected", ...Array(3).fill("fulfilled")]);
    expect(await idsOnDisk()).toEqual(expect.arrayContaining(idsOf(good.flat())));
    expect(await idsOnDisk()).toHaveLength(36);
  });

  it("leaks no descriptor", async () => {
    await failCommitsOfBad();
    vi.spyOn(console, "warn").mockReturnValue(undefined);
    const open = () =>
      readdirSync("/proc/self/fd").filter((fd) => {
        try {
          return readlinkSync(`/proc/self/fd/${fd}`).startsWith(folder);
        } catch {
          return false;
        }
      }).length;
    await store.events.append(batch(taps(1)));
    const before = open();
    for (let i = 0; i < 12; i++) await store.events.append(batch(taps(2, "bad"), "bad")).catch(() => undefined);
    await store.events.append(batch(taps(1)));
    expect(open()).toBe(before);
    vi.restoreAllMocks();
  });
});

describe("a write that cannot even begin", () => {
  it("answers what waits as held, and goes on once the other program lets go", async () => {
    const answered = await withRaw(store.file, "write", async (other) => {
      await other.exec("BEGIN IMMEDIATE");
      const started = Date.now();
      const outcomes = await Promise.allSettled([
        store.events.append(batch(taps(2))),
        store.events.append(batch(taps(2))),
        // Forms that wait behind the taps are answered with them, not one lock after another.
        ...["a", "b", "c", "d"].map((name) => addPerson(store, { name, role: "handler" })),
      ]);
      expect(Date.now() - started).toBeLessThan(1200);
      await other.exec("ROLLBACK");
      return outcomes;
    });
    expect(answered.map((outcome) => outcome.status === "rejected" && storeFailure(outcome.reason))).toEqual(Array(6).fill("held"));
    expect(await store.events.append(batch(taps(4)))).toMatchObject({ saved: 4 });
  }, 30_000);

  it("opens the file anew after it was taken away and put back", async () => {
    await store.events.append(batch(taps(1)));
    // A connection that was opened on a broken place must not be kept.
    const manager = (store.sequelize as unknown as { connectionManager: { getConnection: () => Promise<unknown> } }).connectionManager;
    const open = manager.getConnection;
    manager.getConnection = () => Promise.reject(new Error("SQLITE_CANTOPEN: unable to open database file"));
    await expect(store.events.append(batch(taps(1)))).rejects.toThrow(/CANTOPEN/);
    manager.getConnection = open;
    expect(await store.events.append(batch(taps(2)))).toMatchObject({ saved: 2 });
  });
});

describe("a statement that fails", () => {
  it("for one batch of a merged transaction saves the seven beside it", async () => {
    const bad = taps(2, "no\0name");
    const good = Array.from({ length: 7 }, () => taps(3));
    const outcomes = await Promise.allSettled([bad, ...good].map((events) => store.events.append(batch(events, events[0]?.recorder))));
    expect(outcomes.filter(({ status }) => status === "fulfilled")).toHaveLength(7);
    expect(await idsOnDisk()).toEqual(idsOf(good.flat()));
  });
});

describe("where a tap came from", () => {
  it("is written down with it, and for nothing that is refused", async () => {
    const sources = () => store.models.source.count();
    const [first, second] = taps(2);
    if (first === undefined || second === undefined) throw new Error("two taps");
    await store.events.append(batch([first]));
    expect(await sources()).toBe(1);
    // The same tap from another phone is a conflict, in the store and in one batch; an unknown session is refused.
    const elsewhere = { ...first, recorder: "phone:other" };
    await expect(store.events.append(batch([elsewhere]))).rejects.toBeInstanceOf(EventConflictError);
    await expect(store.events.append(batch([second, { ...second, recorder: "phone:third" }]))).rejects.toBeInstanceOf(EventConflictError);
    await expect(store.events.append(batch([{ ...second, session: testId(5), recorder: "phone:fourth" }]))).rejects.toThrow();
    expect(await sources()).toBe(1);
    await store.events.append(batch([second, { ...second, id: testId(77), seq: 9, recorder: "phone:fifth" }]));
    expect(await sources()).toBe(2);
    expect(await store.models.eventLog.count({ where: { recorder: "phone:fifth" } })).toBe(1);
  });
});

describe("the same id", () => {
  it("with the same event is known; with another one it is a conflict, said, and the first stays", async () => {
    const events = taps(3);
    await store.events.append(batch(events));
    const [first, second, third] = events;
    if (first === undefined || second === undefined || third === undefined) throw new Error("three taps");
    expect(await store.events.append(batch([{ ...first, payload: { ...first.payload } } as SessionEvent]))).toMatchObject({
      saved: 0,
      known: 1,
    });
    for (const other of [
      { ...second, payload: { other: 1 } },
      { ...second, wall_ms: second.wall_ms + 1 },
      { ...second, type: "release" as const },
    ]) {
      const caught = await store.events.append(batch([first, other as SessionEvent])).catch((error: unknown) => error);
      expect(caught).toBeInstanceOf(EventConflictError);
      expect((caught as EventConflictError).events).toEqual([second.id]);
    }
    const fresh = taps(1)[0];
    if (fresh === undefined) throw new Error("a tap");
    await expect(store.events.append(batch([fresh, { ...fresh, seq: 77 }]))).rejects.toBeInstanceOf(EventConflictError);
    expect(await idsOnDisk()).toEqual(idsOf(events));
  });
});

describe("how far the events reach", () => {
  it("never falls, whatever is removed", async () => {
    const before = await store.events.append(batch(taps(5)));
    await store.models.event.destroy({ where: {} });
    expect(await store.events.append(batch([]))).toMatchObject({ position: before.position });
  });
});
