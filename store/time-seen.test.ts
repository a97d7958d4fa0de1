import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, expect, it } from "vitest";
import { PLAIN_HORSE } from "@/tests/support/plain-horse";
import { addHorse, closeStore, listBin, openStore, purgeExpired, putInBin, type Store, timeSeen } from ".";

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
let folder: string;
let store: Store;
let now = 0;
let steady = 0;
const open = async () => {
  store = await openStore(join(folder, "own.sqlite"), () => now);
};
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "deft-seen-"));
  now = Date.UTC(2026, 5, 1);
  steady = 0;
  await open();
});
afterEach(async () => {
  await closeStore(store);
  rmSync(folder, { recursive: true });
});
const seen = () => timeSeen(store, () => steady);
const again = async () => {
  await closeStore(store);
  steady = 0;
  await open();
};

it("goes on with the machine's clock while the program runs, and by a day at a start", async () => {
  expect(await seen()).toBe(now);
  now += 5 * HOUR;
  steady += 5 * HOUR;
  expect(await seen()).toBe(now);
  await again();
  now += 20 * HOUR;
  expect(await seen()).toBe(now);
  await again();
  const before = now;
  now += 60 * DAY;
  expect(await seen()).toBe(before + DAY);
});

it("follows no jump of the clock, ahead or back, under a running program", async () => {
  const start = await seen();
  now += 365 * DAY;
  steady += HOUR;
  expect(await seen()).toBe(start + HOUR);
  now -= 700 * DAY;
  steady += HOUR;
  expect(await seen()).toBe(start + HOUR);
  now += 335 * DAY + 2 * HOUR;
  steady += HOUR;
  expect(await seen()).toBe(start + 2 * HOUR);
});

it("sweeps nothing at a start a year ahead, and what was there is there when the clock is right again", async () => {
  const horse = await addHorse(store, PLAIN_HORSE);
  await putInBin(store, "horse", horse);
  await seen();
  await again();
  now += 365 * DAY;
  expect(await purgeExpired(store, await seen())).toBe(0);
  await again();
  now -= 364 * DAY;
  expect(await purgeExpired(store, await seen())).toBe(0);
  expect(await listBin(store)).toMatchObject([{ id: horse }]);
  // Seen day by day it is swept in the end.
  let swept = 0;
  for (let day = 0; day < 31; day++) {
    now += DAY;
    steady += DAY;
    swept += await purgeExpired(store, await seen());
  }
  expect(swept).toBe(1);
});
