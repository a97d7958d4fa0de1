import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { reduceSession } from "@/core/record";
import { newStore } from "@/tests/support/new-store";
import { randomSession } from "@/tests/support/random-session";
import { addHorse, addSession, closeStore, listSessions, rebuildCaches, type Store } from "../index";
import { staleSessions } from "./stale";

const NOW = Date.UTC(2026, 6, 20);
let folder: string;
let store: Store;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "rebuild-"));
  store = await newStore(join(folder, "own.sqlite"), () => NOW);
});
afterEach(async () => {
  vi.restoreAllMocks();
  await closeStore(store);
  rmSync(folder, { recursive: true, force: true });
});

describe("sums that are made anew", () => {
  it("hold a tap that came while they were worked out", async () => {
    const horseId = await addHorse(store, { name: "Bo", kind: "", history: "" } as never);
    const { id, events } = randomSession(5);
    await addSession(store, { id, horseId, ladderId: null, personId: null, placeId: null, startRung: 1 });
    const send = (list: typeof events) => store.events.append({ recorder: "phone:ana", events: list, clocks: {} });
    const half = Math.floor(events.length / 2);
    await send(events.slice(0, half));
    const asks = async () => (await listSessions(store, horseId, { limit: 1 }))[0]?.summary.n;
    const all = reduceSession(events).trials.length;
    expect(await asks()).toBeLessThan(all);
    const write = store.writer.write.bind(store.writer);
    let came = false;
    vi.spyOn(store.writer, "write").mockImplementation((async (work: never, kind: never) => {
      if (kind === "sums" && !came) {
        came = true;
        await send(events.slice(half));
      }
      return write(work, kind);
    }) as never);
    await rebuildCaches(store);
    expect(came).toBe(true);
    expect(await staleSessions(store, horseId, 9)).toEqual([]);
    expect(await asks()).toBe(all);
  });
});
