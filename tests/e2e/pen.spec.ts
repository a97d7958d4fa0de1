import type { Page } from "@playwright/test";
import { eventsOnDisk } from "../support/driver";
import { payloadsOf } from "../support/payloads";
import { freePort, TestServer } from "../support/server";
import { expect, finishSession, makeHorse, noAxeFindings, pad, startBlock, test } from "./fixtures";

// The pages' own worker is what is tried here.
test.use({ serviceWorkers: "allow", viewport: { width: 390, height: 664 } });

/** One visit while the server runs: the worker keeps the pen, and what it needs is fetched. */
async function visitOnce(page: Page, url: string, horses: number): Promise<void> {
  await page.goto(url);
  await expect
    .poll(() => page.evaluate(async () => (await navigator.serviceWorker.getRegistration())?.active?.state ?? ""), { timeout: 30_000 })
    .toBe("activated");
  await page.goto(`${url}/pen?horses=1`);
  await expect(page.getByRole("listitem")).toHaveCount(horses);
  await expect(page.getByText("not on this device yet")).toHaveCount(0);
}

const where = (page: Page) => page.getByTestId("kept");

test("a whole session with no server, then another; all of it is on the computer once, when it is back", async ({ page, context }) => {
  test.setTimeout(180_000);
  const server = new TestServer(await freePort());
  await server.start();
  const { horse } = await makeHorse(server.url, "Far pen");
  await visitOnce(page, server.url, 1);
  await server.kill();

  // From the home screen: the horse, a session, work, finish, its review.
  await page.goto(`${server.url}/pen?horses=1`);
  await page.getByRole("link", { name: "Far pen" }).click();
  await page.getByLabel("Handler, new name").or(page.getByLabel("Handler")).fill("Nell Far");
  await page.getByRole("button", { name: "Open the recorder" }).click();
  await startBlock(page);
  for (const word of ["got it", "got it", "try", "got it"]) await pad(page, word).click();
  await expect(page.getByTestId("block-count")).toContainText("3 met of 4");
  const first = new URL(page.url()).searchParams.get("session") ?? "";
  // The browser is closed in the middle and opened again: what was tapped is there.
  await page.reload();
  await expect(page.getByTestId("block-count")).toContainText("3 met of 4");
  await pad(page, "got it").click();
  await finishSession(page);
  await expect(page.getByRole("heading", { name: "Blocks" })).toBeVisible();
  await expect(page.getByText("4 of 5").first()).toBeVisible();
  await noAxeFindings(page, "review in the pen");

  // Another begins from what the first one came to.
  await page.getByRole("link", { name: "Begin another" }).click();
  await page.getByRole("button", { name: "Open the recorder" }).click();
  await expect(page).toHaveURL(/session=/);
  const second = new URL(page.url()).searchParams.get("session") ?? "";
  expect(second).not.toBe(first);
  await expect(page.getByText("Today already: 1 session", { exact: false })).toBeVisible();
  await startBlock(page);
  await pad(page, "got it").click();
  await page.goto(`${server.url}/pen?horses=1`);
  await expect(where(page)).toHaveAttribute("data-sessions-away", "2");

  // A page of the server leads to what the device can show of it.
  await page.goto(`${server.url}/horses/${horse}/review/${first}`);
  await expect(page.getByRole("heading", { name: "Blocks" })).toBeVisible();
  await page.goto(`${server.url}/people`);
  await expect(page.getByText("That page is on the computer, which does not answer.")).toBeVisible();

  await server.start();
  await page.goto(`${server.url}/pen?horses=1`);
  await expect(where(page)).toHaveAttribute("data-sessions-away", "0", { timeout: 30_000 });
  await expect(where(page)).toHaveAttribute("data-away", "0");
  const outcomes = payloadsOf(await eventsOnDisk(server.file, first), "trial").map(({ outcome }) => outcome);
  expect(outcomes).toEqual(["met", "met", "try", "met", "met"]);
  expect(payloadsOf(await eventsOnDisk(server.file, second), "trial")).toHaveLength(1);
  // The server's own review says the same, and the person named in the pen is one of the yard.
  await page.goto(`${server.url}/horses/${horse}/review/${first}`);
  await expect(page.getByText("4 of 5").first()).toBeVisible();
  await page.goto(`${server.url}/people`);
  await expect(page.getByText("Nell Far")).toHaveCount(1);
  await context.close();
  await server.stop();
});
