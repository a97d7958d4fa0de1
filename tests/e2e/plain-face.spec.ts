import type { Page } from "@playwright/test";
import { strandFromCatalogue } from "@/core/strands";
import { boxFaults } from "../support/boxes";
import { allSaved, expect, exported, fromMore, makeHorse, noAxeFindings, openRecorder, pad, payloads, test } from "./fixtures";

test.use({ viewport: { width: 390, height: 664 } });

/** Eight phones, upright and on their side. */
const PHONES = [
  [320, 560],
  [360, 640],
  [375, 553],
  [390, 664],
  [390, 844],
  [412, 780],
  [667, 375],
  [844, 390],
] as const;

const IN_SIGHT = {
  criterion: "[data-testid='criterion']",
  word: "[data-testid='word'] strong",
  count: "[data-testid='block-count']",
  "side and rung": "[data-testid='where']",
  "saving state": "[role='status']",
  finish: ".pen-head button[aria-label='finish']",
};

/** What is pressed on the page in front, by name. */
const controls = (page: Page) =>
  page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>("main button, main select, main input")]
      .filter((one) => one.getBoundingClientRect().width > 0)
      .map((one) => one.getAttribute("aria-label") ?? one.textContent ?? ""),
  );

const SIMPLE = {
  strands: [strandFromCatalogue("form", "form")],
  workingStrandId: null,
  rungs: [{ values: { form: "weight shift" } }, { values: { form: "one foot" } }],
};

test("fewer pads: chosen once, kept on the device, ten controls at most, and what is tapped is logged as ever", async ({
  page,
  server,
}) => {
  const { horse } = await makeHorse(server.url, "Plain", SIMPLE);
  await openRecorder(page, server.url, horse);
  await fromMore(page, "fewer pads");
  await expect(pad(page, "all pads")).toBeVisible();
  expect((await controls(page)).length).toBeLessThanOrEqual(10);
  await expect(page.getByRole("button", { name: "Timed" })).toBeHidden();
  for (const outcome of ["got it", "try", "other", "no answer", "got it"]) await pad(page, outcome).click();
  await pad(page, "undo").click();
  await expect(page.getByTestId("block-count")).toContainText("1 met of 4");
  await allSaved(page);
  // The next load is plain again, and everything is one press, one key or one swipe away.
  await page.reload();
  await expect(pad(page, "all pads")).toBeVisible();
  await pad(page, "all pads").click();
  await expect(pad(page, "tightens")).toBeVisible();
  await page.getByRole("button", { name: "Fewer pads" }).click();
  await page.keyboard.press("p");
  await expect(pad(page, "tightens")).toBeVisible();
  await page.getByRole("button", { name: "Fewer pads" }).click();
  const line = await page.getByTestId("criterion").boundingBox();
  await page.mouse.move(150, (line?.y ?? 0) + 90);
  await page.mouse.down();
  await page.mouse.move(152, (line?.y ?? 0) + 10, { steps: 4 });
  await page.mouse.up();
  await expect(pad(page, "tightens")).toBeVisible();
  await pad(page, "offer").click();
  const events = await exported(page, server.url);
  expect(payloads(events, "trial").map(({ outcome, logged }) => [outcome, logged])).toEqual([
    ["met", "tally"],
    ["try", "tally"],
    ["miss", "tally"],
    ["refused", "tally"],
    ["met", "tally"],
  ]);
  expect(payloads(events, "offer")).toHaveLength(1);
  // And back for good.
  await fromMore(page, "always all pads");
  await page.reload();
  await expect(pad(page, "tightens")).toBeVisible();
});

test("its pads are large on every phone, and what the rung needs stands there by itself", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Plain needs", {
    strands: [strandFromCatalogue("steps", "steps"), strandFromCatalogue("ease", "ease"), strandFromCatalogue("lightness", "lightness")],
    workingStrandId: "steps",
    rungs: [2, 3].map((steps) => ({ values: { steps, ease: "soft", lightness: 2 } })),
  });
  const { horse: simple } = await makeHorse(server.url, "Plain size", SIMPLE);
  await page.addInitScript(() => localStorage.setItem("deft-recorder-face", "plain"));
  const faults: string[] = [];
  for (const [horseId, name] of [
    [simple, "simple"],
    [horse, "needs"],
  ] as const) {
    await page.setViewportSize({ width: 390, height: 664 });
    await openRecorder(page, server.url, horseId);
    if (name === "needs") await expect(page.getByRole("button", { name: /^cue 1/ })).toBeVisible();
    else await expect(page.getByRole("button", { name: /^cue 1/ })).toHaveCount(0);
    await pad(page, "got it").click();
    for (const [width, height] of PHONES) {
      await page.setViewportSize({ width, height });
      await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
      const least = width === 390 && height === 664 ? 88 : 56;
      for (const fault of await boxFaults(page, IN_SIGHT, least)) faults.push(`${name}, ${width}×${height}: ${fault}`);
    }
    await page.setViewportSize({ width: 390, height: 664 });
    await noAxeFindings(page, name);
  }
  expect(faults).toEqual([]);
  // Calm and the value are asked for by the rung: one after the other, and then nothing more.
  await expect(page.getByTestId("row-label")).toContainText("of the last one");
});
