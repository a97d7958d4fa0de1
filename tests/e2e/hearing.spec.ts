import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { mixedChance } from "@/core/chance";
import { TaughtSounds, teachMark } from "@/core/hearing";
import { CHROMIUM_ARGUMENTS } from "@/scripts/chromium.mjs";
import { addHooves, addMarker, addWind, SAMPLE_RATE } from "../support/sounds";
import { wavOf } from "../support/wav";
import { expect, exported, finishSession, fromMore, makeHorse, noAxeFindings, openRecorder, payloads, test } from "./fixtures";

/** A clicker each 1.2 s in a little wind and with hooves far under it: what the made microphone plays, over and over. */
const APART_S = 1.2;
const LOOP_S = 12;
function played(): Float32Array {
  const chance = mixedChance("the microphone of the browser");
  const sound = new Float32Array(LOOP_S * SAMPLE_RATE);
  for (let k = 0; k < LOOP_S / APART_S; k++) addMarker(sound, Math.round((0.6 + k * APART_S) * SAMPLE_RATE), "clicker", 0.3, chance);
  addWind(sound, 0.003, chance);
  addHooves(sound, 0.002, 3, chance);
  return sound;
}
const SOUND = played();
function microphoneFile(): string {
  const file = join(mkdtempSync(join(tmpdir(), "deft-sound-")), "pen.wav");
  writeFileSync(file, wavOf(SOUND, SAMPLE_RATE));
  return file;
}

/** The marker as it is taught from the sound itself: how well a lesson goes is tested on buffers, beside the core. */
function lesson(): { readonly on: boolean; readonly template: unknown; readonly sentence: string } {
  const taught = teachMark(new TaughtSounds(SAMPLE_RATE).push(SOUND).slice(0, 8));
  if (taught === null) throw new Error("The made microphone teaches nothing.");
  return { on: true, template: taught.template, sentence: taught.sentence };
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

// The sound is played in real time, and a busy machine drops some of it: nothing here asks how much was heard, or when.
test("a combined session with no look at the phone: the way from the microphone to the log is whole, one button says the answers", async ({
  page,
  server,
}) => {
  await page.addInitScript((kept) => localStorage.setItem("deft-heard-mark", kept), JSON.stringify(lesson()));
  const { horse } = await makeHorse(server.url, "Heard", { method: "combined" });
  await openRecorder(page, server.url, horse);
  await fromMore(page, "keys, sounds");
  const sheet = page.getByRole("dialog", { name: "Keys and sounds" });
  await sheet.getByRole("button", { name: "One button", exact: true }).click();
  // A lesson hears what is made, sound after sound; stopped, what was taught before stays.
  await sheet.getByRole("button", { name: "Teach it anew" }).click();
  await expect(sheet.getByText(/^([1-9]|10) of 6 to 10\./)).toBeVisible({ timeout: 120_000 });
  await noAxeFindings(page, "teaching the marker");
  await sheet.getByRole("button", { name: "Stop", exact: true }).click();
  await page.keyboard.press("Escape");
  await expect(page.getByTestId("hearing")).toContainText("Listening: ");
  // From here on the eyes are on the horse: the button in the pocket says got it, and the clicker is heard.
  // Two quick presses mean a try: the next one waits until the last is counted.
  for (let n = 1; n <= 5; n++) {
    await page.keyboard.press("Enter");
    await expect(page.getByTestId("block-count")).toContainText(`${n} met of ${n}`);
  }
  const heardSoFar = async () => payloads(await exported(page, server.url), "mark").length;
  const atThePress = await heardSoFar();
  await expect.poll(heardSoFar, { timeout: 120_000 }).toBeGreaterThan(atThePress);
  // A false one is taken away by undo, and is said to have been.
  await page.getByRole("region", { name: "Pads" }).getByRole("button", { name: "undo" }).click();
  await expect(page.getByTestId("hearing")).toContainText("1 taken back");
  const heard = (await exported(page, server.url)).filter((event) => event.type === "mark");
  expect(heard.every(({ payload }) => "heard" in payload)).toBe(true);
  await finishSession(page);
  await expect(page.getByTestId("marks-heard")).toHaveText(/^(\d+) of \1$/);
});
