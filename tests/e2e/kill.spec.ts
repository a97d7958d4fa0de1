import sqlite3 from "sqlite3";
import { v4 as newId } from "uuid";
import type { SessionEvent } from "@/core/schemas";
import { freePort, TestServer } from "../support/server";
import { allSaved, expect, fromMore, makeHorse, makeSession, openRecorder, pad, test } from "./fixtures";

/** How often the server is killed; `npm run faults` asks for many more. */
const ROUNDS = Number(process.env.DEFT_FAULT_ROUNDS ?? 6);

/** Ids and payloads of a session's events, straight from the file. */
function eventsInFile(file: string, session: string): Promise<{ id: string; seq: number; type: string; payload: string }[]> {
  return new Promise((resolve, reject) => {
    const database = new sqlite3.Database(file, sqlite3.OPEN_READONLY);
    database.all("SELECT id, seq, type, payload FROM event WHERE session_id = ? ORDER BY seq", [session], (error, rows) => {
      database.close();
      if (error === null) resolve(rows as { id: string; seq: number; type: string; payload: string }[]);
      else reject(error);
    });
  });
}

/** What a comparison of the driver's own log of taps with the store finds: taps lost, taps doubled. */
function compare(log: readonly SessionEvent[], stored: readonly { seq: number; payload: string }[]) {
  const count = new Map<string, number>();
  for (const row of stored) {
    const tap = (JSON.parse(row.payload) as { tap?: string }).tap ?? "";
    count.set(tap, (count.get(tap) ?? 0) + 1);
  }
  const taps = log.map((event) => String(event.payload.tap));
  return { lost: taps.filter((tap) => !count.has(tap)), doubled: taps.filter((tap) => (count.get(tap) ?? 0) > 1) };
}

/**
 * A recorder without a browser: taps for a while, sends batches, and sends
 * again whatever was not confirmed. `fresh` takes idempotency out: each try
 * sends the tap under a new id.
 */
class Driver {
  readonly log: SessionEvent[] = [];
  readonly unconfirmed: SessionEvent[] = [];
  inFlight = false;
  private readonly load = newId();
  constructor(
    private readonly url: string,
    private readonly store: string,
    private readonly session: string,
    private readonly fresh: boolean,
  ) {}

  tap(): void {
    const seq = this.log.length;
    const event: SessionEvent = {
      id: newId(),
      session: this.session,
      recorder: "driver:t",
      load: this.load,
      seq,
      mono_ms: seq * 10,
      wall_ms: Date.now(),
      type: "signal",
      payload: { name: "ease", class: "ease", tap: `tap ${seq}` },
    };
    this.log.push(event);
    this.unconfirmed.push(event);
  }

  async send(): Promise<boolean> {
    const batch = this.unconfirmed.slice(0, 150).map((event) => (this.fresh ? { ...event, id: newId() } : event));
    if (batch.length === 0) return true;
    this.inFlight = true;
    try {
      const response = await fetch(`${this.url}/api/events`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ store: this.store, recorder: "driver:t", clocks: {}, events: batch }),
      });
      if (!response.ok) return false;
      await response.json();
      this.unconfirmed.splice(0, batch.length);
      return true;
    } catch {
      return false;
    } finally {
      this.inFlight = false;
    }
  }
}

/** Taps and kills the server while a batch is on its way, some times over, then sends the rest. */
async function tapThroughKills(
  server: TestServer,
  fresh: boolean,
  rounds: number,
): Promise<{ driver: Driver; session: string; cut: number }> {
  const session = newId();
  const made = await makeHorse(server.url, `Killed ${fresh}`);
  await makeSession(server.url, made, session);
  const { store } = (await (await fetch(`${server.url}/api/clock`)).json()) as { store: string };
  const driver = new Driver(server.url, store, session, fresh);
  let cut = 0;
  for (let round = 0; round < rounds; round++) {
    for (let i = 0; i < 140; i++) driver.tap();
    const sending = driver.send();
    // From the request on its way to the answer on its way back: each round a little later into the write.
    await new Promise((resolve) => setTimeout(resolve, (round % 8) * 6));
    await server.kill();
    if (!(await sending)) cut++;
    await server.start();
  }
  while (driver.unconfirmed.length > 0) await driver.send();
  return { driver, session, cut };
}

test("a server killed inside a write loses no tap and doubles none; without idempotency the same check finds doubles", async () => {
  test.setTimeout(120_000 + ROUNDS * 20_000);
  const server = new TestServer(await freePort());
  await server.start();
  const sound = await tapThroughKills(server, false, ROUNDS);
  expect(sound.cut).toBeGreaterThan(0);
  expect(compare(sound.driver.log, await eventsInFile(server.file, sound.session))).toEqual({ lost: [], doubled: [] });

  // The same comparison must be able to fail: a batch that was saved but not confirmed, sent again under new ids.
  const session = newId();
  await makeSession(server.url, await makeHorse(server.url, "Doubled"), session);
  const { store } = (await (await fetch(`${server.url}/api/clock`)).json()) as { store: string };
  const careless = new Driver(server.url, store, session, true);
  for (let i = 0; i < 20; i++) careless.tap();
  const before = [...careless.unconfirmed];
  await careless.send();
  careless.unconfirmed.push(...before);
  await careless.send();
  const found = compare(careless.log, await eventsInFile(server.file, session));
  expect(found.doubled).toHaveLength(20);
  expect(
    compare(
      careless.log.map((e) => ({ ...e, payload: { tap: `never sent ${e.seq}` } })),
      await eventsInFile(server.file, session),
    ).lost,
  ).toHaveLength(20);
  await server.stop();
});

test("taps made while the server is dead are kept on the device, through a reload, and sent when it is back", async ({ page }) => {
  test.setTimeout(150_000);
  const server = new TestServer(await freePort());
  await server.start();
  const { horse } = await makeHorse(server.url, "Stubborn");
  await openRecorder(page, server.url, horse);
  const session = page.url().split("/").at(-1) ?? "";
  for (let i = 0; i < 3; i++) await pad(page, "got it").click();
  await allSaved(page);
  await server.kill();
  for (const word of ["got it", "try", "other"]) await pad(page, word).click();
  await expect(page.getByTestId("block-count")).toContainText("4 met of 6");
  await expect(page.getByRole("status").filter({ hasText: "The server does not answer" })).toBeVisible();
  await server.start();
  await allSaved(page);
  await server.kill();
  await pad(page, "no answer").click();
  await expect(page.getByTestId("block-count")).toContainText("4 met of 7");
  await expect(page.locator("[data-waiting='0']")).toBeHidden();
  // The page itself is closed before the server comes back: only the device still has the last tap.
  const context = page.context();
  await page.close();
  await server.start();
  const again = await context.newPage();
  await again.goto(`${server.url}/horses/${horse}/work/${session}`);
  await expect(again.getByTestId("block-count")).toContainText("4 met of 7");
  await allSaved(again);
  const outcomes = (await eventsInFile(server.file, session))
    .filter((e) => e.type === "trial")
    .map((e) => (JSON.parse(e.payload) as { outcome: string }).outcome);
  expect(outcomes.sort()).toEqual(["met", "met", "met", "met", "miss", "refused", "try"]);
  await server.stop();
});

test("offline for a while and back: nothing is lost, and any page sends what is left", async ({ page, context, server }) => {
  const { horse } = await makeHorse(server.url, "Far field");
  await openRecorder(page, server.url, horse);
  const recorder = page.url();
  await allSaved(page);
  await context.setOffline(true);
  for (let i = 0; i < 4; i++) await pad(page, "got it").click();
  await expect(page.getByTestId("block-count")).toContainText("4 met of 4");
  await expect(page.getByRole("status").filter({ hasText: "The server does not answer" })).toBeVisible();
  await context.setOffline(false);
  await page.goto(server.url);
  await page.goto(recorder);
  await expect(page.getByTestId("block-count")).toContainText("4 met of 4");
  await allSaved(page);
  await fromMore(page, "finish");
  await context.setOffline(true);
  await page.getByRole("button", { name: "Finish the session" }).click();
  await page.getByRole("button", { name: "Save, to the review" }).click();
  await expect(page.getByText("kept on this device").first()).toBeVisible();
  await context.setOffline(false);
  // What was asked for comes by itself once everything is on the server.
  await expect(page.getByTestId("met")).toHaveText("4 of 4", { timeout: 45_000 });
});
