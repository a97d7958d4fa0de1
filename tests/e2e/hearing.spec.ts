import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { mixedChance } from "@/core/chance";
import { CHROMIUM_ARGUMENTS } from "@/scripts/chromium.mjs";
import { addHooves, addMarker, addWind, SAMPLE_RATE } from "../support/sounds";
import { wavOf } from "../support/wav";
import { expect, exported, finishSession, fromMore, makeHorse, noAxeFindings, openRecorder, payloads, test } from "./fixtures";

/** A clicker each 1.2 s in a little wind and with hooves far under it: what the made microphone plays, over and over. */
const APART_S = 1.2;
const LOOP_S = 12;
function microphoneFile(): string {
  const chance = mixedChance("the microphone of the browser");
  const sound = new Float32Array(LOOP_S * SAMPLE_RATE);
  for (let k = 0; k < LOOP_S / APART_S; k++) addMarker(sound, Math.round((0.6 + k * APART_S) * SAMPLE_RATE), "clicker", 0.3, chance);
  addWind(sound, 0.003, chance);
  addHooves(sound, 0.002, 3, chance);
  const file = join(mkdtempSync(join(tmpdir(), "deft-sound-")), "pen.wav");
  writeFileSync(file, wavOf(sound, SAMPLE_RATE));
  return file;
}

test.use({
  viewport: { width: 390, height: 664 },
  permissions: ["microphone"],
  launchOptions: {
    executablePath: process.env.DEFT_CHROMIUM ?? "/usr/bin/chromium",
    args: [
      ...CHROMIUM_ARGUMENTS,
      "--use-fake-device-for-media-stream",
      "--use-fake-ui-for-media-stream",
      `--use-file-for-fake-audio-capture=${microphoneFile()}`,
    ],
  },
});

test("a combined session with no look at the phone: the marker is taught, heard and logged, one button says the answers", async ({
  page,
  server,
}) => {
  // Sound is heard as it plays; a busy machine drops some of it and needs more rounds of the samples.
  test.setTimeout(240_000);
  const { horse } = await makeHorse(server.url, "Heard", { method: "combined" });
  await openRecorder(page, server.url, horse);
  await fromMore(page, "keys, sounds");
  const sheet = page.getByRole("dialog", { name: "Keys and sounds" });
  await sheet.getByRole("button", { name: "One button", exact: true }).click();
  await sheet.getByRole("button", { name: "Teach it" }).click();
  await expect(sheet.getByText(/samples, good:/)).toBeVisible({ timeout: 90_000 });
  await noAxeFindings(page, "teaching the marker");
  await sheet.getByRole("button", { name: "Keep it" }).click();
  await page.keyboard.press("Escape");
  await expect(page.getByTestId("hearing")).toContainText("Listening: ", { timeout: 15_000 });
  // From here on the eyes are on the horse: the button in the pocket says got it, and the clicker is heard.
  for (let n = 0; n < 5; n++) {
    await page.keyboard.press("Enter");
    await page.waitForTimeout(2000);
  }
  await expect(page.getByTestId("block-count")).toContainText("5 met of 5");
  await expect(page.getByTestId("hearing")).toContainText(/[5-9] heard|\d\d heard/);
  const before = payloads(await exported(page, server.url), "mark").length;
  expect(before).toBeGreaterThanOrEqual(5);
  // A false one is taken away by undo, and is said to have been.
  await page.getByRole("region", { name: "Pads" }).getByRole("button", { name: "undo" }).click();
  await expect(page.getByTestId("hearing")).toContainText("1 taken back");
  const events = await exported(page, server.url);
  const heard = events.filter((event) => event.type === "mark");
  expect(heard.every(({ payload }) => "heard" in payload)).toBe(true);
  // Each lies a whole number of spacings from the first, to ±20 ms, and what the browser's made microphone jitters.
  const first = heard[0]?.mono_ms ?? 0;
  const off = heard.map(({ mono_ms }) => {
    const spacings = (mono_ms - first) / 1000 / APART_S;
    return Math.abs(spacings - Math.round(spacings)) * APART_S * 1000;
  });
  expect([...off].sort((a, b) => a - b)[Math.floor(off.length / 2)]).toBeLessThanOrEqual(40);
  await finishSession(page);
  await expect(page.getByTestId("marks-heard")).toHaveText(/^(\d+) of \1$/);
});
