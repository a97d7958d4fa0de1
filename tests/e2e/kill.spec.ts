import type { Page } from "@playwright/test";
import { eventsOnDisk } from "../support/driver";
import { payloadsOf } from "../support/payloads";
import { freePort, runCommand, TestServer } from "../support/server";
import { allSaved, expect, fromMore, makeHorse, openRecorder, pad, test } from "./fixtures";

// What is lost once is lost: no second try.
test.describe.configure({ retries: 0 });

/** How often a server under four browsers is killed; `npm run faults` asks for many more. */
const ROUNDS = Number(process.env.DEFT_FAULT_ROUNDS ?? 2);

test("taps made while the server is dead are kept on the device, through a reload, and sent when it is back", async ({ page }) => {
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
  const outcomes = payloadsOf(await eventsOnDisk(server.file, session), "trial").map(({ outcome }) => outcome);
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
  await expect(page.getByTestId("met")).toHaveText("4 of 4");
});

/** Runs a command line on a server's data and gives what it said. */
async function command(name: string, server: TestServer, parameters: readonly string[]): Promise<string> {
  const run = runCommand(name, server.folder, parameters);
  await run.ended;
  return run.output();
}

/** How many taps this page's device still has to send, and what the status says. */
const status = (page: Page) => page.locator("[data-waiting]");

test("a server killed under four browsers loses nothing that was tapped in any of them", async ({ browser }) => {
  test.setTimeout(120_000 + ROUNDS * 30_000);
  const server = new TestServer(await freePort());
  await server.start();
  const { horse } = await makeHorse(server.url, "Four hands");
  const contexts = await Promise.all([0, 1, 2, 3].map(() => browser.newContext()));
  const pages = await Promise.all(contexts.map((context) => context.newPage()));
  const sessions: string[] = [];
  for (const page of pages) {
    page.goto = ((go) => async (url: string) => {
      const response = await go(url);
      await page.locator("html[data-ready]").waitFor({ state: "attached" });
      return response;
    })(page.goto.bind(page));
    await openRecorder(page, server.url, horse);
    // The next one is to see this session running, and to begin its own beside it.
    await allSaved(page);
    sessions.push(page.url().split("/").at(-1) ?? "");
  }
  let taps = 0;
  for (let round = 0; round < ROUNDS; round++) {
    for (const page of pages) for (const word of ["got it", "try"]) await pad(page, word).click();
    await server.kill();
    for (const page of pages) await pad(page, "got it").click();
    taps += 3;
    await server.start();
  }
  for (const page of pages) await allSaved(page);
  for (const session of sessions) {
    const outcomes = payloadsOf(await eventsOnDisk(server.file, session), "trial").map(({ outcome }) => outcome);
    expect(outcomes).toHaveLength(taps);
    expect(outcomes.filter((outcome) => outcome === "try")).toHaveLength(ROUNDS);
  }
  for (const context of contexts) await context.close();
  await server.stop();
});

test("a device that takes no more taps: they are held on the page, said to be so, and sent", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Full phone");
  await openRecorder(page, server.url, horse);
  await allSaved(page);
  const before = Number(await status(page).getAttribute("data-on-server"));
  // From here on the browser's store refuses every write, as a full one does, and cannot be opened anew.
  await page.evaluate(() => {
    const full = () => {
      throw new DOMException("full", "QuotaExceededError");
    };
    IDBObjectStore.prototype.put = full;
    indexedDB.open = full;
  });
  await page.route("**/api/events", (route) => route.abort());
  for (let i = 0; i < 5; i++) await pad(page, "got it").click();
  await expect(page.getByText("This device keeps none, 5 only on this page")).toBeVisible();
  await expect(status(page)).toHaveAttribute("data-on-server", String(before));
  await expect(status(page)).toHaveAttribute("data-waiting", "5");
  await expect(page.getByText(/[Nn]ot sent for \d+ s/)).toBeVisible();
  await page.unroute("**/api/events");
  await expect(status(page)).toHaveAttribute("data-on-server", String(before + 5));
  await expect(status(page)).toHaveAttribute("data-waiting", "0");
});

test("a way that swallows what is sent is given up, said, and tried again", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Silent way");
  await openRecorder(page, server.url, horse);
  await allSaved(page);
  await page.route("**/api/**", () => undefined);
  await pad(page, "got it").click();
  await expect(page.getByText(/[Nn]ot sent for \d+ s/)).toBeVisible();
  await expect(page.getByText("The server does not answer")).toBeVisible();
  await page.unroute("**/api/**");
  await allSaved(page);
});

test("a tap the server will not take is named on the review, tried again, and saved as a file", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Refused");
  await openRecorder(page, server.url, horse);
  await allSaved(page);
  const refuse = { status: 422, contentType: "application/problem+json", body: JSON.stringify({ detail: "It is not known here." }) };
  await page.route("**/api/events", (route) => route.fulfill(refuse));
  await pad(page, "got it").click();
  await expect(page.getByText("1 not taken by the server, kept here:")).toBeVisible();
  await page.goto(page.url().replace("/work/", "/review/"));
  await expect(page.getByRole("heading", { name: "One tap was not taken by the server" })).toBeVisible();
  await expect(page.getByRole("listitem").filter({ hasText: "It is not known here." })).toContainText("trial");
  const file = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save as a file" }).click();
  expect((await file).suggestedFilename()).toBe("not-taken.csv");
  await page.unroute("**/api/events");
  await page.getByRole("button", { name: "Try again" }).click();
  await expect(page.getByText("All are on the server now.")).toBeVisible();
  await page.reload();
  await expect(page.getByTestId("met")).toHaveText("1 of 1");
});

test("a page asked for under another name sends what was tapped there and goes to the printed address", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Two names");
  const other = server.url.replace("127.0.0.1", "localhost");
  await page.goto(`${server.url}/horses/${horse}/work`);
  // A tap left under the other name, as an earlier version allowed: the first visit there is let through to its own store.
  const { store } = (await (await fetch(`${server.url}/api/clock`)).json()) as { store: string };
  await page.route(`${other}/people`, (route) => route.fulfill({ contentType: "text/html", body: "<title>before</title>" }), { times: 1 });
  await page.evaluate((url) => window.location.assign(url), `${other}/people`);
  await page.waitForURL(`${other}/people`);
  const session = await page.evaluate(
    async ([storeId, horseId]) => {
      const id = crypto.randomUUID();
      const made = await fetch("/api/sessions", {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ id, horse: horseId, ladder: null, person: null, place: null }),
      });
      if (made.status !== 201) throw new Error(await made.text());
      const event = {
        id: crypto.randomUUID(),
        session: id,
        recorder: "old:a",
        load: crypto.randomUUID(),
        seq: 0,
        mono_ms: 1,
        wall_ms: Date.now(),
        type: "mark",
        payload: {},
      };
      const database = await new Promise<IDBDatabase>((done, failed) => {
        const opening = indexedDB.open(`deft-${storeId}`, 1);
        opening.onupgradeneeded = () => {
          const events = opening.result.createObjectStore("events", { keyPath: "id" });
          events.createIndex("standing", "standing");
          events.createIndex("session", "session");
          opening.result.createObjectStore("loads", { keyPath: "load" });
        };
        opening.onsuccess = () => done(opening.result);
        opening.onerror = () => failed(opening.error);
      });
      await new Promise<void>((done) => {
        const writing = database.transaction("events", "readwrite");
        writing.objectStore("events").put({ id: event.id, session: id, order: 1, standing: "waiting", savedAt: null, event });
        writing.oncomplete = () => done();
      });
      database.close();
      return id;
    },
    [store, horse] as const,
  );
  await page.evaluate((url) => window.location.assign(url), `${other}/kit?x=1`);
  await page.waitForURL(`${server.url}/kit?x=1`);
  expect(await eventsOnDisk(server.file, session)).toMatchObject([{ type: "mark", payload: {} }]);
});

test("a device offers what was confirmed again to a store that was put back to a backup", async ({ page }) => {
  const server = new TestServer(await freePort());
  await server.start();
  const { horse } = await makeHorse(server.url, "Went back");
  await openRecorder(page, server.url, horse);
  const session = page.url().split("/").at(-1) ?? "";
  await allSaved(page);
  const backup = `${server.folder}/backup.sqlite`;
  expect(await command("backup", server, [backup])).toContain("A copy lies at");
  for (let i = 0; i < 3; i++) await pad(page, "got it").click();
  // A press is on the screen before its tap is on the way: only what is counted is what is waited for.
  await expect(page.getByTestId("block-count")).toContainText("3 met of 3");
  await allSaved(page);
  const all = await eventsOnDisk(server.file, session);
  expect(await command("restore", server, [backup])).toContain("The program is running with this data; stop it first.");
  await server.kill();
  expect(await command("restore", server, [backup])).toContain("The backup is in place");
  expect((await eventsOnDisk(server.file, session)).length).toBe(all.length - 3);
  await server.start();
  await page.reload();
  await expect.poll(async () => (await eventsOnDisk(server.file, session)).length).toBe(all.length);
  expect(new Set((await eventsOnDisk(server.file, session)).map(({ id }) => id))).toEqual(new Set(all.map(({ id }) => id)));
  await server.stop();
});
