import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { SessionNews } from "@/core/pack";
import { DEFAULT_SETTINGS } from "@/core/settings";
import { addHorse, addRestriction, addSession, bringBack, closeStore, eventReach, putInBin, type Store, setSettings } from "@/store";
import { newStore } from "@/tests/support/new-store";
import { PLAIN_HORSE } from "@/tests/support/plain-horse";
import { SessionWriter, testId } from "@/tests/support/session-writer";
import { LiveSessions, MOST_LINES, MOST_LINES_OF_ONE } from "./live";

const NOW = Date.UTC(2026, 4, 4, 10);
const SESSION = testId(900_000);
let folder: string;
let store: Store;
let horse: string;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "live-"));
  store = await newStore(join(folder, "own.sqlite"), () => NOW);
  horse = await addHorse(store, PLAIN_HORSE);
  for (const id of [SESSION, testId(900_001)])
    await addSession(store, { id, horseId: horse, ladderId: null, personId: null, placeId: null, startRung: null });
});
afterEach(async () => {
  await closeStore(store);
  rmSync(folder, { recursive: true, force: true });
});

const settle = (ms = 900) => new Promise((resolve) => setTimeout(resolve, ms));
async function taps(count: number, session = SESSION): Promise<string[]> {
  const w = new SessionWriter(session);
  for (let i = 0; i < count; i++) w.add(i, "mark");
  await store.events.append({ recorder: "phone:a", events: w.events, clocks: { [testId(1)]: 5 } });
  return w.events.map(({ id }) => id);
}
const idsOf = (news: readonly SessionNews[]) => news.flatMap(({ events }) => events.map(({ id }) => id));

describe("following a session", () => {
  it("tells each tap once, in order, right after it was saved, and only of that session", async () => {
    const live = new LiveSessions(store);
    const before = await taps(2);
    const told: SessionNews[] = [];
    const stop = await live.follow(
      SESSION,
      0,
      (news) => told.push(news),
      () => undefined,
    );
    await settle();
    expect(idsOf(told)).toEqual(before);
    expect(told[0]?.care?.wordSettings).toEqual(DEFAULT_SETTINGS);
    await taps(3, testId(900_001));
    const [a, b] = await Promise.all([taps(5), taps(4)]);
    await settle();
    expect(idsOf(told)).toEqual([...before, ...a, ...b]);
    expect(told.at(-1)?.clocks).toEqual({ [testId(1)]: 5 });
    expect(told.slice(1).every(({ care }) => care === undefined)).toBe(true);
    stop();
    await taps(1);
    await settle();
    expect(idsOf(told)).toHaveLength(11);
    live.close();
  });

  it("begins where it left off, so that who comes back catches up and hears nothing twice", async () => {
    const live = new LiveSessions(store);
    await taps(2);
    const first: SessionNews[] = [];
    const stop = await live.follow(
      SESSION,
      0,
      (news) => first.push(news),
      () => undefined,
    );
    await settle();
    stop();
    const missed = await taps(3);
    const second: SessionNews[] = [];
    await live.follow(
      SESSION,
      first.at(-1)?.position ?? 0,
      (news) => second.push(news),
      () => undefined,
    );
    await settle();
    expect(idsOf(second)).toEqual(missed);
    live.close();
  });

  it.each([
    ["another restore", (reach: number) => ({ after: reach, epoch: "before the restore" })],
    ["a position the store does not reach", (reach: number) => ({ after: reach + 1, epoch: null })],
  ])("begins from the first for who counted from %s", async (_, from) => {
    const live = new LiveSessions(store);
    const all = await taps(3);
    const { after, epoch } = from(await eventReach(store.models));
    const told: SessionNews[] = [];
    await live.follow(
      SESSION,
      after,
      (news) => told.push(news),
      () => undefined,
      undefined,
      { epoch },
    );
    await settle();
    expect(idsOf(told)).toEqual(all);
    expect(told[0]?.epoch).toBe(store.epoch);
    live.close();
  });

  it("reads once for all who follow a session, and each of a thousand taps' followers hears it", async () => {
    const live = new LiveSessions(store);
    const told: SessionNews[][] = Array.from({ length: 200 }, () => []);
    for (const list of told)
      await live.follow(
        SESSION,
        0,
        (news) => list.push(news),
        () => undefined,
      );
    await settle();
    const read = vi.spyOn(store.sequelize, "query");
    const ids = await taps(1);
    await settle();
    expect(told.every((list) => idsOf(list).join() === ids.join())).toBe(true);
    // A handful for the write, the reading and what is allowed; not one for each line.
    expect(read.mock.calls.length).toBeLessThan(40);
    read.mockRestore();
    // And nothing is heard twice, nor missed, where taps come while it is read.
    const more = (await Promise.all([taps(2), taps(3), taps(1)])).flat();
    await settle();
    for (const list of told) expect(idsOf(list).toSorted()).toEqual([...ids, ...more].toSorted());
    live.close();
  });

  it("tells who comes after everybody left what is so now, not what was read for them", async () => {
    const live = new LiveSessions(store);
    const follow = (list: SessionNews[]) =>
      live.follow(
        SESSION,
        0,
        (news) => list.push(news),
        () => undefined,
      );
    const first: SessionNews[] = [];
    const stop = await follow(first);
    await settle();
    stop();
    await setSettings(store, { ...DEFAULT_SETTINGS, restAfterMinutes: 7 });
    const second: SessionNews[] = [];
    await follow(second);
    await settle();
    expect(second[0]?.care?.wordSettings.restAfterMinutes).toBe(7);
    live.close();
  });

  it("holds so many lines open and no more, in all and for one who signed in; a line that ends makes room", async () => {
    const live = new LiveSessions(store);
    const follow = (signIn: string | null) =>
      live.follow(
        SESSION,
        0,
        () => undefined,
        () => undefined,
        undefined,
        { signIn },
      );
    const own = await Promise.all(Array.from({ length: MOST_LINES_OF_ONE }, () => follow("hilda")));
    await expect(follow("hilda")).rejects.toThrow("Too many pages");
    own[0]?.();
    await follow("hilda");
    for (let n = MOST_LINES_OF_ONE; n < MOST_LINES; n++) await follow(null);
    await expect(follow(null)).rejects.toThrow("Too many pages");
    await expect(follow("olga")).rejects.toThrow("Too many pages");
    live.close();
  });

  it("tells that the session was put in the bin, and that it came out of it, to who follows it and to who comes anew", async () => {
    const live = new LiveSessions(store);
    const told: SessionNews[] = [];
    const follow = (list: SessionNews[]) =>
      live.follow(
        SESSION,
        0,
        (news) => list.push(news),
        () => undefined,
      );
    await follow(told);
    await settle();
    expect(told.at(-1)?.binned).toBe(false);
    await putInBin(store, "session", SESSION);
    await settle(1200);
    expect(told.at(-1)?.binned).toBe(true);
    const anew: SessionNews[] = [];
    await follow(anew);
    const late = await taps(1);
    await settle();
    expect(anew[0]?.binned).toBe(true);
    expect(idsOf(told)).toEqual(late);
    await bringBack(store, "session", SESSION);
    await settle(1200);
    expect(told.at(-1)?.binned).toBe(false);
    live.close();
  });

  it("tells a restriction or a threshold that changes while the horse is worked", async () => {
    const live = new LiveSessions(store);
    const told: SessionNews[] = [];
    await live.follow(
      SESSION,
      0,
      (news) => told.push(news),
      () => undefined,
    );
    await settle();
    await setSettings(store, { ...DEFAULT_SETTINGS, restAfterMinutes: 5 });
    await settle(1200);
    expect(told.at(-1)?.care?.wordSettings.restAfterMinutes).toBe(5);
    await addRestriction(store, horse, {
      kind: "no-work",
      amount: null,
      detail: "",
      reason: "lame",
      given_by: "veterinarian",
      from_day: "2026-05-01",
      until_day: null,
    } as never);
    await settle(1200);
    expect(told.at(-1)?.care?.allowance.noWork).not.toBeNull();
    live.close();
  });

  it("ends every line when it is closed, and refuses a session that is not there", async () => {
    const live = new LiveSessions(store);
    const ended: unknown[] = [];
    await live.follow(
      SESSION,
      0,
      () => undefined,
      (error) => ended.push(error),
    );
    live.close();
    expect(ended).toEqual([null]);
    await expect(
      live.follow(
        testId(1),
        0,
        () => undefined,
        () => undefined,
      ),
    ).rejects.toThrow(/no such session/);
  });
});
