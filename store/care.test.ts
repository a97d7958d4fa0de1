import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, utimesSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { PLAIN_HORSE } from "@/tests/support/plain-horse";
import { SessionWriter, testId } from "@/tests/support/session-writer";
import { checkStore, copyNow, copyOf, copyOfDay, keepDailyCopies, listCopies, lookAtCopy, ownCopy, storeCare } from "./care";
import { addHorse } from "./horses";
import { addPerson } from "./people";
import { addSession } from "./sessions";
import { closeStore, openStore, type Store } from "./store";

let folder: string;
let store: Store;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "care-"));
  store = await openStore(join(folder, "own.sqlite"));
});
afterEach(async () => {
  await closeStore(store);
  rmSync(folder, { recursive: true, force: true });
});

describe("copies of a store", () => {
  it("are made while it is written, checked, and listed", async () => {
    const writes = Array.from({ length: 20 }, (_, i) => addPerson(store, { name: `p${i}`, role: "handler" }));
    const copy = await copyNow(store);
    await Promise.all(writes);
    expect(copy.bytes).toBeGreaterThan(10_000);
    expect(listCopies(store.file).map(({ name }) => name)).toEqual([copy.name]);
    expect(await lookAtCopy(store.file, copy.name)).toEqual({ horses: 0, sessions: 0, taps: 0 });
    expect((await storeCare(store)).copies).toHaveLength(1);
  });

  it("are made once a day, so many are kept, and those by hand stay", async () => {
    await keepDailyCopies(store, 3);
    const byHand = await copyNow(store);
    for (const day of ["2026-01-01", "2026-01-02", "2026-01-03", "2026-01-04", "2026-01-05"]) {
      expect(await copyOfDay(store, day)).not.toBeNull();
      expect(await copyOfDay(store, day)).toBeNull();
    }
    const names = listCopies(store.file).map(({ name }) => name);
    expect(names.filter((name) => name.includes("daily")).sort()).toEqual([
      "own-daily-2026-01-03.sqlite",
      "own-daily-2026-01-04.sqlite",
      "own-daily-2026-01-05.sqlite",
    ]);
    expect(names).toContain(byHand.name);
  });

  it("go by what is in them: one of a day to come, from a machine whose clock ran ahead, pushes no real one out", async () => {
    await keepDailyCopies(store, 2);
    const session = testId(900_000);
    const horseId = await addHorse(store, PLAIN_HORSE);
    await addSession(store, { id: session, horseId, ladderId: null, personId: null, placeId: null, startRung: null });
    const tapAndCopy = async (day: string) => {
      const w = new SessionWriter(session);
      w.add(1, "mark");
      await store.events.append({ recorder: "phone:a", events: w.events, clocks: {} });
      await copyOfDay(store, day);
    };
    for (const day of ["2027-06-01", "2026-06-01", "2026-06-02"]) await tapAndCopy(day);
    const daily = () =>
      listCopies(store.file)
        .map(({ name }) => name)
        .filter((name) => name.includes("daily"))
        .sort();
    expect(daily()).toEqual(["own-daily-2026-06-01.sqlite", "own-daily-2026-06-02.sqlite"]);
  });

  it("that cannot be made leave the old ones, nothing half made, and are said on the page", async () => {
    await copyOfDay(store, "2026-01-01");
    const taken = join(folder, "backups", "own-daily-2026-01-02.sqlite.part");
    mkdirSync(taken);
    writeFileSync(join(taken, "in the way"), "");
    await expect(copyOfDay(store, "2026-01-02")).rejects.toThrow();
    expect((await storeCare(store)).problem).toContain("2026-01-02");
    rmSync(taken, { recursive: true });
    expect(listCopies(store.file).map(({ name }) => name)).toEqual(["own-daily-2026-01-01.sqlite"]);
    await copyOfDay(store, "2026-01-02");
    expect((await storeCare(store)).problem).toBeNull();
  });

  it.each([
    "../own.sqlite",
    "/etc/passwd",
    "..",
    "",
    "none.sqlite",
    "own-a.sqlite/../../own.sqlite",
    "own-%2e%2e.sqlite",
    "own-a.sqlite\0",
  ])("are named, never pathed: %j is none", async (name) => {
    await copyNow(store);
    expect(() => copyOf(store.file, name)).toThrow(/no copy of that name/);
  });

  it("that are damaged are found before anybody goes back to one", async () => {
    const copy = await copyNow(store);
    writeFileSync(join(folder, "backups", copy.name), "no database, only a long enough line of text");
    await expect(lookAtCopy(store.file, copy.name)).rejects.toThrow(/damaged/);
  });

  it("are listed newest first, and nothing else of the folder with them", async () => {
    const a = await copyNow(store);
    utimesSync(join(folder, "backups", a.name), 1, 1);
    writeFileSync(join(folder, "backups", "notes.txt"), "");
    const b = await copyOfDay(store, "2026-02-01");
    expect(listCopies(store.file).map(({ name }) => name)).toEqual([b?.name, a.name]);
    expect(readdirSync(join(folder, "backups"))).toContain("notes.txt");
  });

  it("of other data are not gone back to", async () => {
    const other = await openStore(join(folder, "other.sqlite"));
    const copy = await copyNow(other);
    await closeStore(other);
    const { renameSync } = await import("node:fs");
    renameSync(join(folder, "backups", copy.name), join(folder, "backups", "own-wrong.sqlite"));
    await expect(ownCopy(store, "own-wrong.sqlite")).rejects.toThrow(/other data/);
    const own = await copyNow(store);
    expect(await ownCopy(store, own.name)).toBe(join(folder, "backups", own.name));
  });

  it("the store is checked, and the answer remembered", async () => {
    expect((await storeCare(store)).lastCheck).toBeNull();
    expect(await checkStore(store)).toBe(true);
    expect((await storeCare(store)).lastCheck).toMatchObject({ ok: true });
    expect(existsSync(store.file)).toBe(true);
  });
});
