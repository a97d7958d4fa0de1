import { readEventsCsv } from "@/core/formats";
import { strandFromCatalogue } from "@/core/strands";
import { emptyDraft } from "@/tests/support/plan";
import { allSaved, expect, exported, fromMore, makeHorse, noAxeFindings, openRecorder, pad, payloads, test } from "./fixtures";

test.use({ viewport: { width: 390, height: 844 } });
// Each has its own horse, so that both cores have something to do.
test.describe.configure({ mode: "parallel" });

test("9 · the word is taken in one tap, and so is anything else: a rung in between, another ladder, something new", async ({
  page,
  server,
}) => {
  const { horse, ladder } = await makeHorse(server.url, "Led", {
    strands: [strandFromCatalogue("stay", "stay")],
    rungs: [{ values: { stay: 4 } }, { values: { stay: 8 } }],
  });
  const other = await page.request.post(`${server.url}/api/ladders`, {
    data: { horse, behaviour: { ...emptyDraft().behaviour, name: "Backs to a touch" }, plan: emptyDraft().plan },
  });
  expect(other.status()).toBe(201);
  await page.goto(`${server.url}/horses/${horse}/work`);
  await page.getByRole("radio", { name: /Stands on the plate/ }).check();
  await page.getByRole("button", { name: "Open the recorder" }).click();
  await page.getByRole("button", { name: "Skip", exact: true }).click();
  await page.getByRole("button", { name: "2", exact: true }).click();
  await page.getByRole("button", { name: "Start the block" }).click();
  for (let i = 0; i < 3; i++) await pad(page, "other").click();
  await expect(page.getByText("Go back", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: "To rung 1" }).click();
  await expect(page.getByTestId("criterion")).toContainText("4 s");
  // Back to rung 2 against the word, and Ease once more: it is to be split.
  await fromMore(page, "block");
  const block = page.getByRole("dialog", { name: "Next block" });
  await block.getByRole("button", { name: "2", exact: true }).click();
  await block.getByRole("button", { name: "Start the block" }).click();
  for (let i = 0; i < 3; i++) await pad(page, "other").click();
  await expect(page.getByText("Rung 2 has gone wrong twice. Add a step between 1 and 2.")).toBeVisible();
  await page.getByRole("button", { name: "Put it in" }).click();
  // Between 4 and 8 s: 5.66 by ratio, 6 to a value a trainer would ask for.
  await expect(page.getByTestId("criterion")).toHaveText("Stays 6 s.");
  await expect(page.getByText(/rung 2 ·/)).toBeVisible();
  // Over to another ladder, and to something new, without leaving the recorder.
  await fromMore(page, "ladder");
  await noAxeFindings(page, "ladders");
  await page
    .getByRole("dialog", { name: "Go over to" })
    .getByRole("button", { name: /Backs to a touch/ })
    .click();
  await expect(page.getByText("Backs to a touch")).toBeVisible();
  await pad(page, "got it").click();
  await fromMore(page, "ladder");
  await page.getByLabel("Something new").fill("Bows");
  await page.getByRole("button", { name: "Name it and begin" }).click();
  await expect(page.getByText("Bows")).toBeVisible();
  await pad(page, "got it").click();
  const events = await exported(page, server.url);
  const starts = payloads(events, "block.start");
  expect(starts.map(({ rung, version, behaviour }) => [rung, version, behaviour])).toEqual([
    [2, 1, "Stands on the plate"],
    [1, 1, "Stands on the plate"],
    [2, 1, "Stands on the plate"],
    [2, 2, "Stands on the plate"],
    [1, 1, "Backs to a touch"],
    [1, 1, "Bows"],
  ]);
  const words = payloads(events, "word");
  expect(words.filter(({ taken }) => taken === true).map(({ word }) => word)).toEqual(["Ease", "Split"]);
  expect(words.filter(({ did }) => did !== undefined).map(({ word, did }) => [word, did])).toEqual([
    ["Stay", "rung 2, left"],
    ["Stay", "Backs to a touch"],
    ["Stay", "Bows"],
  ]);
  // The page comes back on what was named last; its evidence counts for its own ladder.
  await page.reload();
  await expect(page.getByText("Bows")).toBeVisible();
  await expect(page.getByTestId("block-count")).toContainText("1 met of 1");
  await page.goto(`${server.url}/horses/${horse}/shape/${ladder}`);
  await expect(page.getByRole("radio", { name: /Rung 3/ })).toBeVisible();
});

test("9 · without the server something new is worked under its name all the same", async ({ page, context, server }) => {
  const { horse } = await makeHorse(server.url, "Out of reach");
  await openRecorder(page, server.url, horse);
  await allSaved(page);
  await context.setOffline(true);
  await fromMore(page, "ladder");
  await page.getByLabel("Something new").fill("Spins");
  await page.getByRole("button", { name: "Name it and begin" }).click();
  await expect(page.getByText("Worked under its name; plan it in Shape later.")).toBeVisible();
  await pad(page, "got it").click();
  await expect(page.getByTestId("block-count")).toContainText("1 met of 1");
  await context.setOffline(false);
  const starts = payloads(await exported(page, server.url), "block.start");
  expect(starts.at(-1)).toMatchObject({ behaviour: "Spins", rung: 1 });
  expect(starts.at(-1)).not.toHaveProperty("ladder");
});

test("10 · a break stops the clock; finish asks three lines; aftercare takes breathing against resting", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Cooling", { feeding: { ...emptyDraft().plan.feeding, pieceGrams: 3 } });
  await page.request.put(`${server.url}/api/horses/${horse}/resting`, { data: { resting_breaths_per_min: 12, resting_heart_per_min: 36 } });
  await openRecorder(page, server.url, horse);
  await pad(page, "got it").click();
  const clock = page.getByTestId("clock");
  await expect(clock).not.toHaveText("0:00");
  await fromMore(page, "break");
  await expect(pad(page, "go on")).toBeVisible();
  const stopped = await clock.textContent();
  const from = Date.now();
  await expect.poll(() => Date.now() - from, { intervals: [200] }).toBeGreaterThan(2500);
  expect(await clock.textContent()).toBe(stopped);
  await pad(page, "got it").click();
  await expect(page.getByText("On a break. End it first.")).toBeVisible();
  await pad(page, "go on").click();
  await expect(clock).not.toContainText("break");
  await fromMore(page, "finish");
  await noAxeFindings(page, "finish");
  await page.getByLabel("What was better").fill("Softer.");
  await page.getByRole("button", { name: "Finish the session" }).click();
  const breath = page.getByRole("button", { name: /tap each breath/ });
  for (let round = 0; round < 3; round++) {
    for (let i = 0; i < 4; i++) {
      const tapped = Date.now();
      await breath.click();
      await expect.poll(() => Date.now() - tapped, { intervals: [40] }).toBeGreaterThan(250);
    }
    await page.getByRole("button", { name: "Take it" }).click();
  }
  await expect(page.getByTestId("recovery")).toContainText("12 at rest: not down yet");
  await expect(page.getByRole("img", { name: /^Breathing: / })).toBeVisible();
  await page.getByLabel(/Heart rate/).fill("36");
  await page.getByRole("button", { name: "Note it" }).click();
  await expect(page.getByTestId("recovery")).toContainText("Breathing was above the heart rate. Stop for today.");
  await page.getByRole("button", { name: "Legs and feet looked at" }).click();
  await page.getByLabel("Food given, g").fill("much");
  await page.getByRole("button", { name: "Save, to the review" }).click();
  await expect(page.getByText("Grams: a number from 0 to 50 000.")).toBeVisible();
  await page.getByLabel("Food given, g").fill("3");
  await noAxeFindings(page, "aftercare");
  const session = page.url().split("/").at(-1);
  await page.getByRole("button", { name: "Save, to the review" }).click();
  await expect(page.getByText("Better: Softer.")).toBeVisible();
  await expect(page.getByRole("heading", { name: "Afterwards" })).toBeVisible();
  const events = readEventsCsv(await (await page.request.get(`${server.url}/api/sessions/${session}/events.csv`)).text()).events;
  const [care] = payloads(events, "aftercare") as { breathing: unknown[]; legs: string; food_g: number }[];
  expect(care).toMatchObject({ legs: "looked at", food_g: 3 });
  expect(care?.breathing).toHaveLength(3);
});

test("11 · keys: any pad to any key, sets for remotes, press-on and press-off, repeats ignored", async ({ page, context, server }) => {
  const { horse } = await makeHorse(server.url, "Keyed");
  await openRecorder(page, server.url, horse);
  await page.keyboard.press("?");
  const sheet = page.getByRole("dialog", { name: "Keys and sounds" });
  await sheet.getByRole("button", { name: "Another key for try", exact: true }).click();
  await page.keyboard.press("5");
  await expect(sheet.getByRole("alert")).toHaveText("Digits choose the cue.");
  await page.keyboard.press("q");
  await expect(sheet.getByRole("button", { name: "Q, take away from try" })).toBeVisible();
  await noAxeFindings(page, "keys");
  await page.keyboard.press("Escape");
  await page.keyboard.press("q");
  await expect(page.getByTestId("block-count")).toContainText("0 met of 1");
  // Kept on this device.
  await allSaved(page);
  await page.reload();
  await expect(page.getByTestId("block-count")).toContainText("0 met of 1");
  await page.keyboard.press("q");
  await expect(page.getByTestId("block-count")).toContainText("0 met of 2");

  // A held key repeats; a held button does not.
  await page.keyboard.down("g");
  await page.keyboard.down("g");
  await page.keyboard.down("g");
  await page.keyboard.up("g");
  await expect(page.getByTestId("block-count")).toContainText("1 met of 3");

  // The simulated remote in its own window, without key-up: on with one press, off with the next.
  await page.keyboard.press("?");
  await sheet.getByRole("button", { name: "Presentation remote" }).click();
  const [remote] = await Promise.all([
    context.waitForEvent("page"),
    sheet.getByRole("button", { name: "Try it with the simulated remote" }).click(),
  ]);
  await page.bringToFront();
  await page.keyboard.press("Escape");
  await expect(sheet).toBeHidden();
  await page.getByRole("button", { name: "Timed" }).click();
  await noAxeFindings(remote, "remote");
  await remote.getByRole("button", { name: "start" }).click();
  await expect(pad(page, "let go to release")).toBeVisible();
  await remote.getByRole("button", { name: "forward" }).click();
  await remote.getByRole("button", { name: "start" }).click();
  await expect(pad(page, "hold while you ask")).toBeVisible();
  await expect(page.getByTestId("block-count")).toContainText("2 met of 4");
});

test("11 · eyes free: one button says three things, and every change has its own sound", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Pocketed", { plannedRepetitions: 4 });
  await openRecorder(page, server.url, horse);
  await page.keyboard.press("?");
  await page.getByRole("dialog").getByRole("button", { name: "One button", exact: true }).click();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toBeHidden();
  const count = page.getByTestId("block-count");
  await page.keyboard.press("PageDown");
  await expect(count).toContainText("1 met of 1");
  await page.keyboard.press("PageDown");
  await page.keyboard.press("PageDown");
  await expect(count).toContainText("1 met of 2");
  await page.keyboard.down("PageDown");
  await expect(count).toContainText("1 met of 3");
  await page.keyboard.up("PageDown");
  await page.keyboard.press("PageDown");
  await expect(count).toContainText("2 met of 4");
  await expect(page.locator("html")).toHaveAttribute("data-told", "block end:sound");
  expect(payloads(await exported(page, server.url), "trial").map(({ outcome }) => outcome)).toEqual(["met", "try", "refused", "met"]);
  await pad(page, "to right").click();
  await expect(page.locator("html")).toHaveAttribute("data-told", "side:sound");
  // Each family can be off.
  await page.keyboard.press("?");
  await page.getByLabel(/^Sides and gaits/).uncheck();
  await page.keyboard.press("Escape");
  await pad(page, "to left").click();
  await expect(page.locator("html")).toHaveAttribute("data-told", "side:off");
});

test("12 · late entry: written from memory, marked as such, left out of timing", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Remembered");
  await page.goto(`${server.url}/horses/${horse}/work`);
  await page.getByRole("link", { name: "Write a session down" }).click();
  await page.getByRole("button", { name: "Save the session" }).click();
  await expect(page.getByText("Block 1: Nothing is counted yet.")).toBeVisible();
  await page.getByLabel("Met", { exact: true }).fill("6");
  await page.getByLabel("of them at the lightest cue").fill("7");
  await page.getByLabel("No answer").fill("2");
  await page.getByRole("button", { name: "Save the session" }).click();
  await expect(page.getByText("Block 1: More at the lightest cue than were met.")).toBeVisible();
  await page.getByLabel("of them at the lightest cue").fill("4");
  await page.getByRole("button", { name: "Save the session" }).click();
  await expect(page.getByText("Block 1: At which cue were the others?")).toBeVisible();
  await page.getByLabel("The others, mostly at").selectOption({ index: 2 });
  await page.getByLabel("Began").fill("2031-05-04T10:00");
  await page.getByRole("button", { name: "Save the session" }).click();
  await expect(page.getByText("It must be over by now.")).toBeVisible();
  await page.getByLabel("Began").fill("2026-05-04T10:00");
  await page.getByRole("button", { name: "Another block" }).click();
  await page.getByRole("group", { name: "Block 2" }).getByLabel("Try").fill("3");
  await page.getByLabel("What to do next time").fill("Shorter.");
  await noAxeFindings(page, "late");
  await page.getByRole("button", { name: "Save the session" }).click();
  await expect(page.getByText("Written down later, from memory or paper")).toBeVisible();
  await expect(page.getByTestId("met")).toHaveText("6 of 11");
  await expect(page.getByTestId("lightness")).toHaveText("4 of 6");
  await expect(page.getByText("Written from memory: no rates.")).toBeVisible();
  await noAxeFindings(page, "late review");
  const session = page.url().split("/").at(-1);
  const csv = await (await page.request.get(`${server.url}/api/sessions/${session}/trials.csv`)).text();
  expect(csv.trim().split("\n")).toHaveLength(12);
  expect(csv.match(/,late,/g)).toHaveLength(11);
  await page.goto(`${server.url}/horses/${horse}/review`);
  await expect(page.locator("time[datetime^='2026-05-04']")).toBeVisible();
});
