import { mkdirSync } from "node:fs";
import type { Page } from "@playwright/test";
import { strandFromCatalogue } from "@/core/strands";
import { boxFaults } from "../support/boxes";
import { expect, exported, makeHorse, noAxeFindings, openRecorder, pad, payloads, test } from "./fixtures";

/** Screens as they are, the browser's own bars taken off: phones upright and on their side, a laptop at 200 %, a tablet, a laptop. */
const SIZES = [
  [320, 560],
  [320, 640],
  [360, 640],
  [375, 553],
  [390, 664],
  [390, 844],
  [667, 375],
  [844, 390],
  [640, 400],
  [768, 1024],
  [1280, 800],
] as const;
const THEMES = ["desk", "field", "barn"] as const;

const NEVER_HIDDEN = {
  criterion: "[data-testid='criterion']",
  word: "[data-testid='word'] strong",
  reason: "[data-testid='word'] span",
  count: "[data-testid='block-count']",
  clock: "[data-testid='clock']",
  "side and rung": "[data-testid='where']",
  "saving state": "[role='status']",
  "row's label": "[data-testid='row-label']",
  row: ".pen-line",
};

/** Where each pad lies, in whole pixels. */
const padPlaces = (page: Page) =>
  page.evaluate(() =>
    [...document.querySelectorAll("[data-pad]")]
      .map((one) => one.getBoundingClientRect())
      .filter(({ width }) => width > 0)
      .map(({ left, top, width, height }) => [left, top, width, height].map(Math.round).join(" "))
      .join(", "),
  );

/** Every size in every theme, with what may never be hidden and the pads of the page in front. */
async function allSizes(page: Page, wanted: Readonly<Record<string, string>>, what: string) {
  const faults: string[] = [];
  const places: string[] = [];
  for (const [width, height] of SIZES) {
    await page.setViewportSize({ width, height });
    for (const theme of THEMES) {
      await page.evaluate((name) => {
        document.documentElement.dataset.theme = name;
      }, theme);
      await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
      for (const fault of await boxFaults(page, wanted, 56)) faults.push(`${what}, ${width}×${height}, ${theme}: ${fault}`);
    }
    places.push(`${width}×${height} ${await padPlaces(page)}`);
    if (process.env.DEFT_LOOK !== undefined) {
      mkdirSync(process.env.DEFT_LOOK, { recursive: true });
      await page.screenshot({ path: `${process.env.DEFT_LOOK}/${what.replaceAll(" ", "-")}-${width}x${height}.png` });
    }
  }
  expect(faults).toEqual([]);
  return places;
}

const withButton = { ...NEVER_HIDDEN, "word's button": "[data-testid='word'] button" };

test("the recorder hides nothing wanted at any of eleven sizes, in any theme, and nothing overlaps", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Mallow", {
    method: "combined",
    phases: ["body", "point", "line", "tap"].map((label) => ({
      label,
      kind: "body",
      profile: "rising",
      dwellSeconds: 3,
      pulsesPerMinute: null,
    })),
    strands: [strandFromCatalogue("steps", "steps"), strandFromCatalogue("handler-place", "place"), strandFromCatalogue("ease", "ease")],
    workingStrandId: "steps",
    schedule: { kind: "variable", ratio: 3 },
    rungs: [2, 3, 4].map((steps) => ({ values: { steps, place: "at the shoulder", ease: "soft" } })),
  });
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${server.url}/horses/${horse}/work`);
  await page.getByRole("button", { name: "Open the recorder" }).click();
  await page.getByRole("button", { name: "Skip", exact: true }).click();
  // On the second rung Ease has somewhere to go to, so the word has its button.
  await page.getByRole("group", { name: "Rung" }).getByRole("button", { name: "2" }).click();
  await page.getByRole("button", { name: "Start the block" }).click();
  await expect(page.getByTestId("block-count")).toContainText("0 met of 0");
  const before = await allSizes(page, NEVER_HIDDEN, "begun");
  await page.setViewportSize({ width: 390, height: 844 });
  for (const outcome of ["got it", "try", "other", "no answer", "got it", "other", "other"]) await pad(page, outcome).click();
  await pad(page, "tightens").click();
  await expect(page.getByRole("group", { name: "Which sign of tension" })).toBeAttached();
  const after = await allSizes(page, { ...withButton, coach: "[data-testid='coach']" }, "at work");
  expect(
    after.filter((place) => !place.startsWith("1280")),
    "a pad keeps its place",
  ).toEqual(before.filter((place) => !place.startsWith("1280")));
  await page.setViewportSize({ width: 390, height: 844 });
  // The grade of ease is a row of its own.
  const ease = page.getByRole("group", { name: "How the horse was on the last one" });
  for (let turn = 0; turn < 12 && (await ease.count()) === 0; turn++) await page.getByRole("button", { name: "another row" }).click();
  await expect(ease).toBeAttached();
  await allSizes(page, withButton, "graded");
  await page.setViewportSize({ width: 390, height: 844 });
  for (const theme of THEMES) {
    await page.evaluate((name) => {
      document.documentElement.dataset.theme = name;
    }, theme);
    await noAxeFindings(page, `recorder ${theme}`);
  }
  await page.getByRole("button", { name: "Timed" }).click();
  const timed = await allSizes(page, withButton, "timed");
  await page.keyboard.down("Space");
  await expect(page.getByTestId("dwell")).toBeVisible();
  const { row: _, "row's label": __, ...dwelling } = withButton;
  const asking = await allSizes(page, { ...dwelling, dwell: "[data-testid='dwell']" }, "asking");
  expect(
    asking.filter((place) => !place.startsWith("1280")),
    "no pad moves while it asks",
  ).toEqual(timed.filter((place) => !place.startsWith("1280")));
  await noAxeFindings(page, "asking");
  await page.keyboard.up("Space");
});

test("finish is in sight on every screen, and what stands in the head of the recorder is reached 44 pixels wide", async ({
  page,
  server,
}) => {
  const { horse } = await makeHorse(server.url, "In sight");
  await openRecorder(page, server.url, horse);
  const faults: string[] = [];
  for (const [width, height] of SIZES) {
    await page.setViewportSize({ width, height });
    const found = await page.evaluate(() => {
      const seen = [...document.querySelectorAll<HTMLElement>("main button")].filter((one) => one.getBoundingClientRect().width > 0);
      const finish = seen.find((one) => (one.getAttribute("aria-label") ?? one.textContent) === "finish");
      const box = finish?.getBoundingClientRect();
      const whole = box !== undefined && box.top >= 0 && box.left >= 0 && box.bottom <= innerHeight && box.right <= innerWidth;
      // A finger 21 pixels above or below the middle still hits it.
      const missed = [...document.querySelectorAll<HTMLElement>(".pen-head button")]
        .filter((one) => one.getBoundingClientRect().width > 0)
        .filter((one) => {
          const { left, width, top, height } = one.getBoundingClientRect();
          return [-15, 21].some((by) => document.elementFromPoint(left + width / 2, top + height / 2 + by)?.closest("button") !== one);
        })
        .map((one) => one.getAttribute("aria-label") ?? one.textContent);
      return { whole, missed };
    });
    if (!found.whole) faults.push(`${width}×${height}: no finish`);
    if (width < 1024) faults.push(...found.missed.map((name) => `${width}×${height}: ${name}`));
  }
  expect(faults).toEqual([]);
  await page.setViewportSize({ width: 320, height: 560 });
  await page.getByRole("button", { name: "finish", exact: true }).click();
  await page.getByRole("button", { name: "Finish the session" }).click();
  await expect(page.getByRole("button", { name: "Save, to the review" })).toBeVisible();
});

test("a short screen has a second page of pads: by one press, a swipe or a key, and the first is back after it", async ({
  page,
  server,
}) => {
  const { horse } = await makeHorse(server.url, "Turned");
  await page.setViewportSize({ width: 320, height: 560 });
  await openRecorder(page, server.url, horse);
  await expect(pad(page, "offer")).toBeHidden();
  await pad(page, "other pads").click();
  expect(await boxFaults(page, NEVER_HIDDEN, 56)).toEqual([]);
  await pad(page, "offer").click();
  await expect(page.getByText("1 offered")).toBeVisible();
  await expect(pad(page, "got it")).toBeVisible();
  await page.keyboard.press("p");
  await expect(pad(page, "finish")).toBeVisible();
  // Sideways over the criterion: back again, and over a pad it is that pad's press.
  const line = await page.getByTestId("criterion").boundingBox();
  await page.mouse.move(200, (line?.y ?? 0) + 8);
  await page.mouse.down();
  await page.mouse.move(90, (line?.y ?? 0) + 10, { steps: 4 });
  await page.mouse.up();
  await expect(pad(page, "got it")).toBeVisible();
  await expect(page.getByTestId("block-count")).toContainText("0 met of 0");
  // Twelve signs: whole lines of them, one press apart.
  await pad(page, "tightens").click();
  const signs = page.getByRole("group", { name: "Which sign of tension" });
  await expect(page.getByTestId("row-label")).toContainText("which sign of tension");
  await expect(signs).toBeVisible();
  const seen = new Set<string>();
  for (let turn = 0; turn < 9 && seen.size < 12; turn++) {
    const inSight = await page.evaluate(() => {
      const frame = document.querySelector(".pen-line")?.getBoundingClientRect();
      return [...document.querySelectorAll(".pen-line button")]
        .filter(
          (one) =>
            frame !== undefined && one.getBoundingClientRect().top > frame.top - 1 && one.getBoundingClientRect().bottom < frame.bottom + 1,
        )
        .map(({ textContent }) => textContent);
    });
    for (const name of inSight) seen.add(name);
    await page.getByRole("button", { name: "another row" }).click();
  }
  expect(seen.size).toBe(12);
  await pad(page, "tightens").click();
  await signs.getByRole("button", { name: "threatens to kick" }).click();
  expect(payloads(await exported(page, server.url), "correct").at(-1)).toMatchObject({ payload: { name: "threatens to kick" } });
});

test("the circle clock stands whole on every screen, with pads a glove finds", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Zz sizes of the circle");
  for (const form of ["On a line, round you", "Driven loose in a pen", "In long lines"]) {
    await page.setViewportSize({ width: 390, height: 664 });
    await page.goto(`${server.url}/horses/${horse}/work/circle`);
    await page.getByLabel(form).check();
    for (const why of await page.getByLabel("All the same, because").all()) await why.fill("to look at it");
    await page.getByRole("button", { name: "Open the circle clock" }).click();
    await page.getByRole("button", { name: "Start the clock" }).click();
    await expect(page.getByTestId("clock")).toBeVisible();
    const faults: string[] = [];
    for (const [width, height] of SIZES) {
      await page.setViewportSize({ width, height });
      await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
      const wanted = { clock: "[data-testid='clock']", gait: "[data-testid='gait-now']", "saving state": "[role='status']" };
      for (const fault of await boxFaults(page, wanted, 44)) faults.push(`${form}, ${width}×${height}: ${fault}`);
    }
    expect(faults).toEqual([]);
  }
});
