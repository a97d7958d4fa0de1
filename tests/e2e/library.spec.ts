import type { Page } from "@playwright/test";
import { strandFromCatalogue } from "@/core/strands";
import { freePort, TestServer } from "../support/server";
import { expect, makeHorse, noAxeFindings, openRecorder, pad, startBlock, test } from "./fixtures";

const STEPS = {
  strands: [strandFromCatalogue("steps", "steps")],
  rungs: [1, 2, 3].map((steps) => ({ values: { steps } })),
  workingStrandId: null,
};

/** Opens the recorder of a horse whose start page is open already, and begins a block. */
async function goOn(page: Page): Promise<void> {
  await page.getByRole("button", { name: "Open the recorder" }).click();
  await startBlock(page);
}

test("a behaviour taught in two ways: each has its reason and its rungs, and the ladder begun keeps the way", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Two ways");
  await page.goto(`${server.url}/horses/${horse}/shape/library/follow-feel`);
  const ways = page.getByRole("navigation", { name: "Ways of teaching it" });
  await expect(ways.getByRole("link", { name: /to the side first/ })).toHaveAttribute("aria-current", "true");
  const rung = page.getByRole("region", { name: "Rung 1" });
  await expect(rung).toContainText("Turns its head");
  await expect(page.getByText("9 of the last 10")).toBeVisible();
  await ways.getByRole("link", { name: /straight ahead first/ }).click();
  await expect(rung).toContainText("Leans to the feel");
  await noAxeFindings(page, "ways of teaching");
  await page.getByRole("link", { name: "Begin a ladder with it" }).click();
  await page.getByRole("button", { name: "Make the ladder" }).click();
  await page.waitForURL(/\/shape\/[0-9a-f-]{36}$/);
  await expect(page.getByText("straight ahead first")).toBeVisible();
  await page.goto(`${server.url}/horses/${horse}/shape/new?template=load&way=lead-on`);
  await page.getByRole("button", { name: "Make the ladder" }).click();
  await page.waitForURL(/\/shape\/[0-9a-f-]{36}$/);
  await expect(page.getByText("led on, you go first")).toBeVisible();
  // One without ways says nothing of them.
  await page.goto(`${server.url}/horses/${horse}/shape/library/lower-head`);
  await expect(page.getByRole("heading", { level: 1, name: "Lowers the head to a feel" })).toBeVisible();
  await expect(ways).toHaveCount(0);
});

test("a rule of two days: shown today it ends, and the next day it goes on", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Twice", { ...STEPS, mastery: { kind: "run", length: 3, days: 2 } });
  await openRecorder(page, server.url, horse);
  // What nobody said of counts for no rule over days.
  await pad(page, "got it").click();
  await expect(page.getByTestId("word")).toContainText("Calm not said on 1, so not counted.");
  const calm = page.getByRole("group", { name: "How the horse was on the last one" });
  await calm.getByRole("button", { name: "not soft", exact: true }).click();
  for (let i = 0; i < 2; i++) {
    await pad(page, "got it").click();
    await calm.getByRole("button", { name: "soft", exact: true }).click();
  }
  await expect(page.getByTestId("word")).toContainText("0 of 2 days so far.");
  await pad(page, "got it").click();
  await calm.getByRole("button", { name: "soft", exact: true }).click();
  await expect(page.getByTestId("word")).toContainText("Finish");
  await expect(page.getByTestId("word")).toContainText("Again on another day.");
});

test("a touch of the body map that work rests on is chosen, kept, and said to be missing", async ({ page, server }) => {
  const { horse, ladder } = await makeHorse(server.url, "Rests");
  await page.goto(`${server.url}/horses/${horse}/shape/${ladder}/edit`);
  await page.getByLabel("Rests on another behaviour").selectOption({ label: "a touch of the body map" });
  await page.getByLabel("Where, touch 1").selectOption("hind hoof");
  await page.getByLabel("With, touch 1").selectOption("brush");
  await page.getByRole("button", { name: /^Save/ }).first().click();
  await page.waitForURL(`${server.url}/horses/${horse}/shape/${ladder}`);
  await expect(page.getByText("hind hoof, brush, both sides, soft or softer").first()).toBeVisible();
  await expect(page.getByText("Not touched there with the brush yet.")).toBeVisible();
});

test("dates of a horse: added, said in the yard when due, done and put after it", async ({ page, server }) => {
  // First by its name: a yard of more than thirty draws those in sight alone.
  const { horse } = await makeHorse(server.url, "A dated one");
  const limits = `${server.url}/horses/${horse}/know/limits`;
  await page.goto(limits);
  await page.getByRole("button", { name: "Add a date" }).click();
  await page.getByRole("button", { name: "Add the date" }).click();
  await expect(page.getByText("Day: when is it?")).toBeVisible();
  const soon = new Date(Date.now() + 3 * 86_400_000).toISOString().slice(0, 10);
  await page.getByLabel("Day", { exact: true }).fill(soon);
  await page.getByLabel(/^Every, weeks/).fill("6");
  await page.getByRole("button", { name: "Add the date" }).click();
  await expect(page.getByText(/^Trim due/)).toBeVisible();
  await noAxeFindings(page, "limits and dates");
  await page.goto(server.url);
  await expect(page.getByText(/^Trim due/)).toBeVisible();
  await page.goto(limits);
  await page.getByRole("button", { name: /^Done: Trim/ }).click();
  await expect(page.getByText(/done on/)).toBeVisible();
  await page.goto(server.url);
  await expect(page.getByText(/^Trim due/)).toHaveCount(0);
});

test("a restriction is gone against for today with a reason that stays; age alone closes nothing", async ({ page, server }) => {
  const { horse, ladder } = await makeHorse(server.url, "Held");
  await fetch(`${server.url}/api/horses/${horse}/restrictions`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({
      kind: "no-work",
      amount: null,
      detail: "",
      reason: "stitches",
      given_by: "the veterinarian",
      from_day: null,
      until_day: null,
    }),
  });
  await page.goto(`${server.url}/horses/${horse}/work`);
  await expect(page.getByText("Not today").first()).toBeVisible();
  await page
    .getByRole("link", { name: /See the limit/ })
    .first()
    .click();
  await page.getByRole("button", { name: "Go against it today" }).click();
  await page.getByLabel(/it is advice of the veterinarian, ask first/).fill("the vet wants to see it walk");
  await page.getByRole("button", { name: "Go against it", exact: true }).click();
  await expect(page.getByText(/^Gone against on .*: the vet wants to see it walk/)).toBeVisible();
  // It can be taken back, and gone against once more.
  await page.getByRole("button", { name: "Hold to it today after all" }).click();
  await expect(page.getByText(/the vet wants to see it walk \(taken back\)/)).toBeVisible();
  await page.getByRole("button", { name: "Go against it today" }).click();
  await page.getByLabel(/it is advice of the veterinarian, ask first/).fill("the vet wants to see it walk");
  await page.getByRole("button", { name: "Go against it", exact: true }).click();
  await expect(page.getByRole("button", { name: "Hold to it today after all" })).toBeVisible();
  await page.goto(`${server.url}/horses/${horse}/work`);
  await expect(page.getByText(/Gone against today: the vet wants to see it walk/).first()).toBeVisible();
  await goOn(page);
  await expect(pad(page, "got it")).toBeVisible();
  expect(ladder).not.toBe("");
});

test("the sample yard says of each horse what to look at, and a walk of five stops is never in the way", async ({ page }) => {
  // A yard of its own: another test takes the sample data out of the shared one.
  const demo = new TestServer(await freePort(), "demo");
  await demo.start();
  await page.setViewportSize({ width: 390, height: 664 });
  await page.goto(demo.url);
  await expect(page.getByText("Stood still at one rung for weeks until it was split")).toBeVisible();
  await page.getByRole("button", { name: "Walk round it in 5 stops" }).click();
  const walk = page.getByRole("complementary", { name: "Walk round the sample yard" });
  for (let stop = 1; stop <= 5; stop++) {
    await expect(walk).toContainText(`${stop} of 5`);
    if (stop === 1) await noAxeFindings(page, "a stop of the walk");
    if (stop < 5) await walk.getByRole("link", { name: "On to the next" }).click();
  }
  await walk.getByRole("button", { name: "Done" }).click();
  await expect(walk).toHaveCount(0);
  await page.reload();
  await expect(walk).toHaveCount(0);
  await demo.stop();
});
