import { createServer } from "node:http";
import type { Page } from "@playwright/test";
import { eventsOnDisk } from "../support/driver";
import { payloadsOf } from "../support/payloads";
import { freePort, TestServer } from "../support/server";
import { allSaved, expect, makeHorse, openRecorder, pad, test, workerReady } from "./fixtures";

// The pages' own worker is part of what is tried here.
test.use({ serviceWorkers: "allow", viewport: { width: 390, height: 664 } });

const post = (url: string, body: object = {}) =>
  fetch(url, { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(body) });

async function tap(page: Page, times: number): Promise<void> {
  for (let i = 0; i < times; i++) await pad(page, "got it").click();
  await allSaved(page);
}

/** One visit while the server runs: the worker keeps the pen whole. */
async function visited(page: Page, url: string): Promise<void> {
  await page.goto(url);
  await workerReady(page);
  await page.goto(`${url}/pen?horses=1`);
  await expect(page.getByText("All of them are on this device")).toBeVisible();
}

test("a restore under two open recorders loses no confirmed tap, with no further press", async ({ page, browser }) => {
  const server = new TestServer(await freePort());
  await server.start();
  const { horse } = await makeHorse(server.url, "Put back");
  await openRecorder(page, server.url, horse);
  const session = page.url().split("/").at(-1)?.split("?")[0] ?? "";
  const other = await (await browser.newContext({ viewport: { width: 390, height: 664 } })).newPage();
  await other.goto(page.url());
  await expect(pad(other, "got it")).toBeVisible();
  await tap(page, 3);
  const copy = (await (await post(`${server.url}/api/store/backup`)).json()) as { name: string };
  // What comes after the copy is confirmed to both devices, and the copy does not have it.
  await tap(page, 4);
  await tap(other, 2);
  const answer = await post(`${server.url}/api/store/restore`, { file: copy.name });
  expect(answer.status, await answer.clone().text()).toBe(200);
  await expect.poll(async () => payloadsOf(await eventsOnDisk(server.file, session), "trial").length, { timeout: 60_000 }).toBe(9);
  // Both go on, and see each other's taps.
  await tap(other, 1);
  await expect(page.getByTestId("block-count")).toContainText("10 met of 10");
  const ids = (await eventsOnDisk(server.file, session)).map(({ id }) => id);
  expect(new Set(ids).size).toBe(ids.length);
  await other.context().close();
  await server.stop();
});

test("a page in between that answers everything with 200 is nobody: the taps wait, the pen opens from the device", async ({ page }) => {
  const port = await freePort();
  const server = new TestServer(port);
  await server.start();
  const { horse } = await makeHorse(server.url, "Portal");
  await visited(page, server.url);
  await openRecorder(page, server.url, horse);
  await tap(page, 2);
  const session = new URL(page.url()).pathname.split("/").at(-1) ?? "";
  await server.kill();
  const portal = createServer((request, response) => {
    // A browser complains of a live line that is none; what matters here are the taps and the pages.
    if (request.url?.includes("/live") === true) return void response.writeHead(404).end();
    const api = request.url?.startsWith("/api/") === true;
    response.writeHead(200, { "content-type": api ? "application/json" : "text/html" });
    response.end(api ? "{}" : "<h1>Accept our terms</h1>");
  });
  await new Promise<void>((resolve) => portal.listen(port, "127.0.0.1", resolve));
  for (let i = 0; i < 4; i++) await pad(page, "got it").click();
  await expect(page.getByTestId("block-count")).toContainText("6 met of 6");
  await page.reload();
  // The recorder comes from the device, not from the portal.
  await expect(page.getByTestId("block-count")).toContainText("6 met of 6");
  await expect(page.locator("[data-waiting]").first()).toHaveAttribute("data-waiting", "4");
  portal.closeAllConnections();
  await new Promise((resolve) => portal.close(resolve));
  await server.start();
  await allSaved(page);
  expect(payloadsOf(await eventsOnDisk(server.file, session), "trial")).toHaveLength(6);
  await server.stop();
});

test("kept files that the browser threw away are fetched again at the next load, and the pen opens with no server", async ({ page }) => {
  const server = new TestServer(await freePort());
  await server.start();
  await makeHorse(server.url, "Cleared");
  await visited(page, server.url);
  // What storage pressure does: the files go, the worker stays.
  await page.evaluate(async () => {
    for (const name of await caches.keys()) await caches.delete(name);
  });
  await page.goto(`${server.url}/pen?horses=1`);
  await expect(page.getByText("All of them are on this device")).toBeVisible({ timeout: 60_000 });
  await server.kill();
  await page.goto(`${server.url}/pen?horses=1`);
  await expect(page.getByRole("link", { name: "Cleared" })).toBeVisible();
});

test("a session the server was too slow to begin is opened from the device, and is on the server once", async ({ page }) => {
  const server = new TestServer(await freePort());
  await server.start();
  const { horse } = await makeHorse(server.url, "Slow");
  await visited(page, server.url);
  await page.goto(`${server.url}/horses/${horse}/work`);
  await page.route("**/api/sessions", async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 7000));
    await route.continue().catch(() => undefined);
  });
  await page.getByRole("button", { name: "Open the recorder" }).click();
  await page.waitForURL(/\/pen\?horse=.*session=/);
  await page.unroute("**/api/sessions");
  await page.getByRole("button", { name: "Skip", exact: true }).click();
  await page.getByRole("button", { name: "Start the block" }).click();
  await tap(page, 2);
  const session = new URL(page.url()).searchParams.get("session") ?? "";
  expect(payloadsOf(await eventsOnDisk(server.file, session), "trial")).toHaveLength(2);
  await server.stop();
});

test("a session put in the bin under its recorder says so, keeps every tap, and comes out by one press", async ({ page }) => {
  const server = new TestServer(await freePort());
  await server.start();
  const { horse } = await makeHorse(server.url, "Binned");
  await openRecorder(page, server.url, horse);
  const session = new URL(page.url()).pathname.split("/").at(-1) ?? "";
  await tap(page, 2);
  expect((await post(`${server.url}/api/bin`, { kind: "session", id: session, back: false })).status).toBe(200);
  await expect(page.getByTestId("binned")).toContainText("This session lies in the bin.");
  await tap(page, 1);
  await page.getByRole("button", { name: "Take it out" }).click();
  await expect(page.getByTestId("binned")).toHaveCount(0);
  await page.goto(`${server.url}/horses/${horse}/review/${session}`);
  await expect(page.getByText("3 of 3").first()).toBeVisible();
  await server.stop();
});
