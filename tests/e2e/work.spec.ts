import type { Page } from "@playwright/test";
import { readEventsCsv } from "@/core/formats";
import type { LadderPlan } from "@/core/ladder";
import type { SessionEvent } from "@/core/schemas";
import { strandFromCatalogue } from "@/core/strands";
import { emptyDraft } from "@/tests/support/plan";
import { allSaved, expect, finishSession, fromMore, makeHorse, noAxeFindings, openRecorder, pad, startBlock, test } from "./fixtures";

test.use({ viewport: { width: 390, height: 844 } });
// Each has its own horse, so that both cores have something to do.
test.describe.configure({ mode: "parallel" });

const phases = (dwellSeconds: number, profile: "rising" | "pulse" = "rising"): LadderPlan["phases"] =>
  ["look", "point", "tap"].map((label) => ({
    label,
    kind: "body",
    profile,
    dwellSeconds,
    pulsesPerMinute: profile === "pulse" ? 120 : null,
  }));

/** The session's events as the server has them, from the exported file. */
async function exported(page: Page, url: string): Promise<readonly SessionEvent[]> {
  // The status line is a frame behind the press.
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  await allSaved(page);
  const session = /work\/([0-9a-f-]{36})/.exec(page.url())?.[1];
  return readEventsCsv(await (await page.request.get(`${url}/api/sessions/${session}/events.csv`)).text()).events;
}
const payloads = (events: readonly SessionEvent[], type: string) =>
  events.filter((event) => event.type === type).map(({ payload }) => payload);

test("1 · preflight: last time's line first, heat computed, what is open said, and the skip logged", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Checked", {
    plannedRepetitions: 10,
    feeding: { ...emptyDraft().plan.feeding, pieceGrams: 2, dayLimitGrams: 100 },
  });
  await openRecorder(page, server.url, horse);
  expect(payloads(await exported(page, server.url), "preflight")).toEqual([{ skipped: true }]);
  await pad(page, "got it").click();
  await finishSession(page, { "What to do next time": "Left side first, and shorter.", "My own point": "Breathe." });
  await expect(page.getByText("Next: Left side first, and shorter.")).toBeVisible();
  await expect(page.getByText("My own point: Breathe.")).toBeVisible();

  await page.goto(`${server.url}/horses/${horse}/work`);
  await expect(page.getByText("Left side first, and shorter.")).toBeVisible();
  await page.getByRole("button", { name: "Open the recorder" }).click();
  const panel = page.getByTestId("preflight");
  await expect(panel.locator("p").first()).toContainText("Left side first, and shorter.");
  await expect(panel).toContainText("Last 7 days: 1 session");
  await expect(panel).toContainText("Food today:");
  await panel.getByLabel("Air, °C").fill("400");
  await expect(panel.getByRole("alert")).toContainText("Air: from −60 to 60 °C.");
  await panel.getByLabel("Air, °C").fill("33");
  await panel.getByLabel("Humidity, %").fill("75");
  await expect(page.getByTestId("heat")).toContainText("Heat 166. Cut the work short");
  await panel.getByRole("button", { name: "✓ gloves" }).click();
  await expect(panel).toContainText("Put right first: gloves.");
  await noAxeFindings(page, "preflight");
  await panel.getByRole("button", { name: "Noted, go on" }).click();
  await page.getByRole("button", { name: "Start the block" }).click();
  await expect(page.getByTestId("coach")).toContainText("12 left in the pouch");
  expect(payloads(await exported(page, server.url), "preflight")[0]).toMatchObject({
    air_c: 33,
    humidity: 75,
    gear: { helmet: true, gloves: false, boots: true },
    open: ["gloves"],
    pouch: 12,
    skipped: false,
  });
});

test("2 · tally and timed: one tap a trial, the phase by a row or a swipe, value, side, every pad its own", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Tapped", {
    phases: phases(2),
    strands: [
      strandFromCatalogue("steps", "steps"),
      strandFromCatalogue("handler-place", "place"),
      strandFromCatalogue("company", "company"),
    ],
    workingStrandId: "steps",
    rungs: [2, 3].map((steps) => ({ values: { steps, place: "at the shoulder", company: "companion in sight" } })),
  });
  await openRecorder(page, server.url, horse);
  await pad(page, "got it").click();
  await expect(page.getByTestId("block-count")).toContainText("1 met of 1");
  await page.getByRole("button", { name: "2", exact: true }).click();
  await pad(page, "cue 2: point").click();
  await pad(page, "got it").click();
  // A swipe up from the pad: it took two cues more than the one chosen.
  const box = await pad(page, "got it").boundingBox();
  if (box === null) throw new Error("the pad is not there");
  await page.mouse.move(box.x + 60, box.y + 70);
  await page.mouse.down();
  await page.mouse.move(box.x + 60, box.y + 70 - 75, { steps: 6 });
  await page.mouse.up();
  await expect(page.getByTestId("block-count")).toContainText("3 met of 3");
  await pad(page, "to right").click();
  await page.getByRole("button", { name: "Timed" }).click();
  const hold = await pad(page, "hold while you ask").boundingBox();
  if (hold === null) throw new Error("the hold is not there");
  await page.mouse.move(hold.x + 30, hold.y + 30);
  await page.mouse.down();
  await expect(pad(page, "let go to release")).toBeVisible();
  await page.keyboard.press("2");
  await page.keyboard.press("o");
  await page.keyboard.press("g");
  await page.mouse.up();
  await pad(page, "mark").click();
  await pad(page, "food").click();
  await expect(page.getByTestId("block-count")).toContainText("1 met of 1");
  const events = await exported(page, server.url);
  expect(payloads(events, "block.start")[0]).toMatchObject({
    criterion: { handler_place: "at the shoulder", company: "companion in sight", dwell_s: [2, 2, 2] },
  });
  expect(payloads(events, "trial").map(({ phase }) => phase)).toEqual([1, 2, 1]);
  expect(payloads(events, "correct")[0]).toMatchObject({ payload: { phase: 3 } });
  expect(payloads(events, "measure")[0]).toMatchObject({ strand: "steps", value: 2 });
  const types = events.map(({ type }) => type).filter((type) => type !== "word");
  expect(types.slice(types.lastIndexOf("block.start") + 1)).toEqual(["ask", "phase", "response", "response", "release", "mark", "feed"]);
});

test("3 · dwell coach: says when to step up, holds on a try, helps at the maximum; a phase is logged by a press only", async ({
  page,
  server,
}) => {
  const { horse } = await makeHorse(server.url, "Held", { phases: phases(0.8), maximumSeconds: 3 });
  await openRecorder(page, server.url, horse);
  await page.getByRole("button", { name: "Timed" }).click();
  const coach = page.getByTestId("dwell");
  await page.keyboard.down("Space");
  await expect(coach).toHaveAttribute("data-word", "hold");
  await expect(coach).toHaveAttribute("data-word", "step up");
  await expect(coach).toContainText("Step up to point.");
  await page.keyboard.press("2");
  await expect(coach).toHaveAttribute("data-word", "hold");
  await page.keyboard.press("t");
  await expect(coach).toHaveAttribute("data-word", "hold the try");
  await page.keyboard.press("g");
  await expect(coach).toHaveAttribute("data-word", "release");
  await page.keyboard.up("Space");
  // The second ask goes to its maximum without an answer.
  await page.keyboard.down("Space");
  await expect(coach).toHaveAttribute("data-word", "maximum", { timeout: 8000 });
  await expect(coach).toContainText("Help to any smaller answer");
  await noAxeFindings(page, "dwell");
  await page.keyboard.press("t");
  await expect(page.getByText("Past the longest ask: logged as refused, helped to it.")).toBeVisible();
  await page.keyboard.up("Space");
  await expect(page.getByTestId("block-count")).toContainText("1 met of 2");
  const events = await exported(page, server.url);
  expect(payloads(events, "phase")).toEqual([{ phase: 2, by: "press" }]);
  expect(payloads(events, "response").map(({ answer }) => answer)).toEqual(["try", "met", "refused", "try"]);
  const session = page.url().split("/").at(-1);
  const trials = await (await page.request.get(`${server.url}/api/sessions/${session}/trials.csv`)).text();
  const last = trials.trim().split("\n").at(-1) ?? "";
  expect(last).toContain("refused");
  expect(last).not.toContain("release without a try");
  await finishSession(page);
  await expect(page.getByTestId("dwell-kept")).toContainText("%");
});

test("3 · dwell coach: a pulsing phase beats at its rate", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Pulsed", { phases: phases(5, "pulse") });
  await openRecorder(page, server.url, horse);
  await page.getByRole("button", { name: "Timed" }).click();
  await page.keyboard.down("Space");
  await expect(page.locator("html")).toHaveAttribute("data-told", "beat:sound");
  await page.keyboard.up("Space");
});

test("4 · reinforcement coach: which one earns it, what is left, the order of steps and a slip as it happens", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Paid", {
    schedule: { kind: "fixed", ratio: 2 },
    feeding: { ...emptyDraft().plan.feeding, politeSeconds: 2 },
  });
  await page.goto(`${server.url}/horses/${horse}/work`);
  await page.getByRole("button", { name: "Open the recorder" }).click();
  await page.getByLabel("Pieces in the pouch").fill("6");
  await page.getByRole("button", { name: "All well, go on" }).click();
  await page.getByRole("button", { name: "Start the block" }).click();
  const coach = page.getByTestId("coach");
  await expect(coach).toContainText("Not the next one: release only.");
  await expect(coach).toContainText("6 left in the pouch");
  await pad(page, "got it").click();
  await expect(coach).toContainText("The next met one earns it.");
  await expect(page.locator("html")).toHaveAttribute("data-told", "reinforce:sound");
  await pad(page, "got it").click();
  await expect(coach).toContainText("5 left in the pouch");
  await pad(page, "got it").click();
  await page.getByRole("button", { name: "Timed" }).click();
  await page.keyboard.down("Space");
  await expect(pad(page, "let go to release")).toBeVisible();
  await page.keyboard.press("g");
  await page.keyboard.up("Space");
  await expect(coach.locator("strong")).toHaveText("mark");
  await page.keyboard.press("m");
  await expect(coach.locator("strong")).toHaveText(/wait [12] s/);
  await page.keyboard.press("f");
  await expect(coach).toContainText("Slip: food before the wait.");
  await expect(coach).toContainText("4 left in the pouch");
});

test("5 · free work: leaving and back, gaits, direction, circle, a stand in the corner, looks by beep", async ({ page, server }) => {
  test.setTimeout(90_000);
  await page.request.post(`${server.url}/api/places`, {
    data: {
      name: "Free pen",
      shape: "square",
      width_m: 18,
      length_m: 18,
      items: [{ name: "corner NE", kind: "corner", x_m: 2, y_m: 2, across_m: 2, down_m: 2 }],
    },
  });
  const { horse } = await makeHorse(server.url, "Loose", {
    strands: [strandFromCatalogue("tether", "tether")],
    rungs: [{ values: { tether: "free in a small pen" } }, { values: { tether: "free in the arena" } }],
  });
  await page.goto(`${server.url}/horses/${horse}/work`);
  await page.getByLabel("Place", { exact: true }).selectOption("Free pen");
  await page.getByRole("button", { name: "Open the recorder" }).click();
  await startBlock(page);
  const free = page.getByTestId("free");
  const row = page.getByRole("group", { name: "Free work" });
  await row.getByRole("button", { name: "walk" }).click();
  await row.getByLabel("Circle distance").selectOption("6");
  await row.getByRole("button", { name: "going left, change direction" }).click();
  await expect(free).toContainText("turned 1×");
  await row.getByRole("button", { name: "leaves" }).click();
  await expect(free).toContainText(/away 0:0[1-9]/);
  await row.getByRole("button", { name: "is back" }).click();
  await expect(free).toContainText("left 1×");
  await noAxeFindings(page, "free work");
  await row.getByRole("button", { name: "stand" }).click();
  await page.getByRole("button", { name: "another row" }).click();
  await page.getByRole("group", { name: "Where the horse is" }).getByRole("button", { name: "corner NE" }).click();
  await page.getByRole("button", { name: "another row" }).click();
  await expect(free.getByText("stands at corner NE")).toBeVisible({ timeout: 9000 });
  await row.getByRole("button", { name: "looks" }).click();
  await expect(row.getByRole("button", { name: "with me" })).toBeDisabled();
  await expect(row.getByRole("button", { name: "with me" })).toBeEnabled({ timeout: 15_000 });
  await row.getByRole("button", { name: "with me" }).click();
  await expect(row).toContainText("1 of 1");
  const events = await exported(page, server.url);
  expect(payloads(events, "gait")).toEqual([
    { gait: "walk", direction: "left" },
    { gait: "walk", direction: "left", radius_m: 6 },
    { gait: "walk", direction: "right", radius_m: 6 },
    { gait: "stand", direction: "right", radius_m: 6 },
  ]);
  expect(payloads(events, "sample")).toMatchObject([{ question: "with me", answer: "yes", beep: 1, interval_s: 8 }]);
  expect(events.filter(({ type }) => type === "depart" || type === "return")).toHaveLength(2);
});

test("6 · offers: a pad of their own, what they earn by the rung, and their share beside the other rates", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Offering", { offers: "settle" });
  await openRecorder(page, server.url, horse);
  for (let i = 0; i < 3; i++) await pad(page, "got it").click();
  await pad(page, "offer").click();
  await expect(page.getByText("Offer: keep still until the horse stands, then ask.")).toBeVisible();
  await expect(page.getByText("1 offered")).toBeVisible();
  await expect(page.getByTestId("block-count")).toContainText("3 met of 3");
  // In Timed an answer without an ask is one too.
  await page.getByRole("button", { name: "Timed" }).click();
  await page.keyboard.press("g");
  await expect(page.getByText("2 offered")).toBeVisible();
  expect(payloads(await exported(page, server.url), "offer")).toEqual([{ earned: "settled" }, { earned: "settled" }]);
  await finishSession(page);
  await expect(page.getByTestId("offers")).toContainText("2");
  await expect(page.getByTestId("on-cue")).toHaveText("60 %");
});

test("7 · staying: held while it stays, why it ended, and how far off the handler was", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Standing", {
    strands: [strandFromCatalogue("stay", "stay"), strandFromCatalogue("reach", "reach")],
    workingStrandId: "stay",
    rungs: [{ values: { stay: 1, reach: 2 } }, { values: { stay: 2, reach: 2 } }],
  });
  await openRecorder(page, server.url, horse);
  const box = await pad(page, "got it").boundingBox();
  if (box === null) throw new Error("the pad is not there");
  const stay = async (ms: number) => {
    await page.mouse.move(box.x + 40, box.y + 30);
    await page.mouse.down();
    const from = Date.now();
    await expect.poll(() => Date.now() - from, { intervals: [50] }).toBeGreaterThan(ms);
    await page.mouse.up();
  };
  await stay(1300);
  const reasons = page.getByRole("group", { name: "What ended the stay" });
  await expect(reasons).toContainText(/1\.[3-9] s/);
  await expect(page.getByTestId("handler-distance")).toHaveText("2 m off");
  await reasons.getByRole("button", { name: "handler farther" }).click();
  await reasons.getByRole("button", { name: "asked" }).click();
  await expect(page.getByTestId("block-count")).toContainText("1 met of 1");
  await stay(600);
  await expect(page.getByText(/Counted as a try. It stayed 0\.\d s; the rung asks for 1 s./)).toBeVisible();
  await reasons.getByRole("button", { name: "it left" }).click();
  await noAxeFindings(page, "stay");
  // A tap is got it without a time.
  await pad(page, "got it").click();
  await expect(page.getByTestId("block-count")).toContainText("2 met of 3");
  const events = await exported(page, server.url);
  expect(payloads(events, "stay")).toEqual([
    { ended_by: "criterion", handler_distance_m: 2.5 },
    { ended_by: "left", handler_distance_m: 2 },
  ]);
  const session = page.url().split("/").at(-1);
  const csv = await (await page.request.get(`${server.url}/api/sessions/${session}/trials.csv`)).text();
  expect(csv).toMatch(/,criterion,[\s\S]*,left,/);
});

test("8 · signals: one tap, a name with the second; three tension signs change the word; danger brings the stop card, also after a reload", async ({
  page,
  server,
}) => {
  const { horse } = await makeHorse(server.url, "Signalling");
  await openRecorder(page, server.url, horse);
  await pad(page, "got it").click();
  await pad(page, "ease").click();
  await page.getByRole("group", { name: "Which sign of ease" }).getByRole("button", { name: "licks and chews" }).click();
  for (let i = 0; i < 3; i++) await pad(page, "tense").click();
  await expect(page.getByText("3 tension signs in a minute on the first rung.")).toBeVisible();
  await expect(page.getByText("Rest", { exact: true })).toBeVisible();
  await pad(page, "danger").click();
  const card = page.getByRole("dialog", { name: "Stop" });
  await expect(card).toContainText("Breathe");
  await noAxeFindings(page, "stop card");
  await page.keyboard.press("Escape");
  await expect(card).toBeVisible();
  await allSaved(page);
  await page.reload();
  await expect(card).toBeVisible();
  await card.getByRole("button", { name: "rears" }).click();
  await card.getByLabel("In words").fill("a bird out of the hedge");
  await card.getByRole("button", { name: "End here" }).click();
  await expect(card).toBeHidden();
  await expect(page.getByRole("dialog", { name: "Finish" })).toBeVisible();
  const events = await exported(page, server.url);
  expect(payloads(events, "safety")).toEqual([{ what: "rears; a bird out of the hedge", then: "end" }]);
  expect(payloads(events, "signal").map((one) => one.class)).toEqual(["ease", "tension", "tension", "tension", "danger"]);
});

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
  await expect(page.getByText("Ease", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: "To rung 1" }).click();
  await expect(page.getByTestId("criterion")).toContainText("4 s");
  // Back to rung 2 against the word, and Ease once more: it is to be split.
  await fromMore(page, "block");
  const block = page.getByRole("dialog", { name: "Next block" });
  await block.getByRole("button", { name: "2", exact: true }).click();
  await block.getByRole("button", { name: "Start the block" }).click();
  for (let i = 0; i < 3; i++) await pad(page, "other").click();
  await expect(page.getByText("Ease has come twice on this rung. Put a rung between 1 and 2.")).toBeVisible();
  await page.getByRole("button", { name: "Put it in" }).click();
  await expect(page.getByTestId("criterion")).toContainText(/5|6/);
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
  await expect(page.getByTestId("recovery")).toContainText("resting 12: not cooled down yet");
  await expect(page.getByRole("img", { name: /^Breathing: / })).toBeVisible();
  await page.getByLabel(/Heart rate/).fill("36");
  await page.getByRole("button", { name: "Note it" }).click();
  await expect(page.getByTestId("recovery")).toContainText("above the heart rate. Stop, cool the horse, call the veterinarian.");
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
  await noAxeFindings(page, "late review");
  const session = page.url().split("/").at(-1);
  const csv = await (await page.request.get(`${server.url}/api/sessions/${session}/trials.csv`)).text();
  expect(csv.trim().split("\n")).toHaveLength(12);
  expect(csv.match(/,late,/g)).toHaveLength(11);
  await page.goto(`${server.url}/horses/${horse}/review`);
  await expect(page.locator("time[datetime^='2026-05-04']")).toBeVisible();
});

test("the recorder fits 320 pixels and a short phone in every theme, and its pads keep their place", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Narrow", {
    strands: [strandFromCatalogue("steps", "steps"), strandFromCatalogue("ease", "ease")],
    workingStrandId: "steps",
    rungs: [2, 3].map((steps) => ({ values: { steps, ease: "soft" } })),
  });
  await openRecorder(page, server.url, horse);
  await allSaved(page);
  for (const theme of ["desk", "field", "barn"]) {
    await page.context().addCookies([{ name: "deft-theme", value: theme, url: server.url }]);
    await page.setViewportSize({ width: 320, height: 640 });
    await page.reload();
    await expect(page.locator("html")).toHaveAttribute("data-theme", theme);
    for (const way of ["Tally", "Timed"]) {
      await page.getByRole("button", { name: way, exact: true }).click();
      await expect
        .poll(() => page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth))
        .toBeLessThanOrEqual(0);
    }
    await noAxeFindings(page, `timed ${theme}`);
    await page.getByRole("button", { name: "Tally", exact: true }).click();
  }
  await page.setViewportSize({ width: 390, height: 844 });
  const place = async () => {
    const box = await pad(page, "got it").boundingBox();
    return Math.round(box?.y ?? 0);
  };
  await expect.poll(place).toBeGreaterThan(0);
  const before = await place();
  for (const name of ["got it", "try", "tense", "other", "offer", "got it"]) {
    await pad(page, name).click();
    expect(await place()).toBe(before);
  }
  await page.getByRole("button", { name: "Timed", exact: true }).click();
  const timed = await place();
  await page.keyboard.down("Space");
  await expect(page.getByTestId("dwell")).toBeVisible();
  expect(await place()).toBe(timed);
  await page.keyboard.press("g");
  await page.keyboard.up("Space");
  await expect(page.getByTestId("coach")).toBeVisible();
  expect(await place()).toBe(timed);
});
