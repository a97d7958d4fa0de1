import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import type { HorseInput } from "@/core/schemas";
import { goneAgainstOn } from "@/core/welfare";
import { newStore } from "@/tests/support/new-store";
import {
  addDate,
  addHorse,
  addRestriction,
  asRestriction,
  closeStore,
  dateDone,
  datesByHorse,
  getHorse,
  goAgainst,
  goneAgainst,
  listDates,
  listRestrictions,
  removeDate,
  type Store,
  takeBackAgainst,
} from ".";

const named = (name: string): HorseInput => ({
  name,
  born_day: null,
  birth_year: 2018,
  sex: "mare",
  kind: "",
  height_cm: null,
  mass_kg: null,
  history: "",
  triggers: "",
  preferred_reinforcers: "",
  resting_breaths_per_min: null,
  resting_heart_per_min: null,
});

let folder: string;
let store: Store;
let horse: string;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "deft-dates-"));
  store = await newStore(join(folder, "store.sqlite"));
  horse = await addHorse(store, named("Tallow"));
});
afterEach(async () => {
  await closeStore(store);
  rmSync(folder, { recursive: true });
});

const trim = { kind: "trim" as const, day: "2026-03-10", every_weeks: 6, note: "" };

describe("dates of a horse", () => {
  it("lie ahead until they are done, and come again where they do", async () => {
    const id = await addDate(store, horse, trim);
    await addDate(store, horse, { kind: "vet", day: "2026-02-01", every_weeks: null, note: "teeth" });
    expect((await datesByHorse(store)).get(horse)?.map(({ day }) => day)).toEqual(["2026-02-01", "2026-03-10"]);
    await dateDone(store, horse, id, "2026-03-12");
    // Pressed twice, it is done once.
    await dateDone(store, horse, id, "2026-03-12");
    expect((await datesByHorse(store)).get(horse)?.map(({ day }) => day)).toEqual(["2026-02-01", "2026-04-23"]);
    expect(await listDates(store, horse)).toHaveLength(3);
  });

  it("are those of their horse alone", async () => {
    const id = await addDate(store, horse, trim);
    const other = await addHorse(store, named("Other"));
    await expect(dateDone(store, other, id, "2026-03-12")).rejects.toThrow("There is no such date.");
    await expect(removeDate(store, other, id)).rejects.toThrow("There is no such date.");
    await removeDate(store, horse, id);
    expect(await listDates(store, horse)).toEqual([]);
    await expect(addDate(store, "nobody", trim)).rejects.toThrow();
  });
});

describe("going against a restriction", () => {
  const tying = {
    kind: "no-tying" as const,
    amount: null,
    detail: "",
    reason: "neck",
    given_by: "the veterinarian",
    from_day: null,
    until_day: null,
  };

  it("stays with its reason, day by day", async () => {
    const id = await addRestriction(store, horse, tying);
    await goAgainst(store, horse, id, "2026-03-10", "only held");
    await goAgainst(store, horse, id, "2026-03-11", "again");
    const [row] = await listRestrictions(store, horse);
    if (row === undefined) throw new Error("no restriction");
    expect(asRestriction(row).goneAgainst).toMatchObject([
      { day: "2026-03-10", reason: "only held" },
      { day: "2026-03-11", reason: "again" },
    ]);
    await goAgainst(store, horse, null, "2026-03-11", "farrier");
    expect(goneAgainst(await getHorse(store, horse))).toMatchObject([{ day: "2026-03-11", reason: "farrier" }]);
    // Taken back it holds again, and what was said stays in the list.
    await takeBackAgainst(store, horse, id, "2026-03-11");
    await takeBackAgainst(store, horse, null, "2026-03-11");
    const [after] = await listRestrictions(store, horse);
    if (after === undefined) throw new Error("no restriction");
    expect(goneAgainstOn(asRestriction(after), "2026-03-11")).toBeNull();
    expect(goneAgainstOn(asRestriction(after), "2026-03-10")).toMatchObject({ reason: "only held" });
    expect(asRestriction(after).goneAgainst).toHaveLength(2);
    expect(goneAgainstOn({ goneAgainst: goneAgainst(await getHorse(store, horse)) }, "2026-03-11")).toBeNull();
    // And gone against once more, it is open once more.
    await goAgainst(store, horse, id, "2026-03-11", "the vet is here now");
    const [last] = await listRestrictions(store, horse);
    expect(last === undefined ? null : goneAgainstOn(asRestriction(last), "2026-03-11")).toMatchObject({ reason: "the vet is here now" });
    await expect(takeBackAgainst(store, horse, "nothing", "2026-03-11")).rejects.toThrow("There is no such restriction.");
    await expect(goAgainst(store, horse, "nothing", "2026-03-11", "x")).rejects.toThrow("There is no such restriction.");
  });
});
