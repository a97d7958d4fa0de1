import type { LadderPlan } from "@/core/ladder";
import { strandFromCatalogue } from "@/core/strands";
import { emptyDraft } from "@/tests/support/plan";
import {
  allSaved,
  expect,
  exported,
  finishSession,
  makeHorse,
  noAxeFindings,
  openRecorder,
  pad,
  payloads,
  startBlock,
  test,
} from "./fixtures";

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
  const tooHot = page.getByTestId("heat-stop");
  await expect(tooHot).toContainText("Too hot to work. Heat 37.4 °C WBGT, estimated for the sun.");
  await panel.getByRole("button", { name: "shade or cloud" }).click();
  await expect(tooHot).toContainText("Heat 35.4 °C WBGT, estimated for shade or cloud.");
  await expect(panel.getByRole("button", { name: /^✓/ })).toHaveCount(0);
  for (const one of ["helmet", "boots", "gloves", "✓ gloves"]) await panel.getByRole("button", { name: one, exact: true }).click();
  await expect(panel).toContainText("Put right first: gloves.");
  await noAxeFindings(page, "preflight");
  // No block without a reason from the list; then walk, five minutes and no more.
  await expect(panel.getByRole("link", { name: "Not today" })).toBeVisible();
  await expect(panel.getByRole("button", { name: "Five minutes at walk" })).toBeDisabled();
  await expect(panel.getByRole("button", { name: "Skip", exact: true })).toHaveCount(0);
  await panel.getByRole("button", { name: "vet present" }).click();
  await panel.getByRole("button", { name: "Five minutes at walk" }).click();
  await page.getByRole("button", { name: "Start the block" }).click();
  await expect(page.getByTestId("coach")).toContainText("12 left in the pouch");
  expect(payloads(await exported(page, server.url), "preflight")[0]).toMatchObject({
    air_c: 33,
    humidity: 75,
    sky: "shade",
    heat_reason: "vet present",
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
  expect(payloads(events, "trial").map(({ phase }) => phase)).toEqual([undefined, 2, 1]);
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
  await expect(coach).toContainText("Go to point.");
  await page.keyboard.press("2");
  await expect(coach).toHaveAttribute("data-word", "hold");
  await page.keyboard.press("t");
  await expect(coach).toHaveAttribute("data-word", "hold the try");
  await page.keyboard.press("g");
  await expect(coach).toHaveAttribute("data-word", "release");
  await page.keyboard.up("Space");
  // The second ask goes to its maximum without an answer.
  await page.keyboard.down("Space");
  await expect(coach).toHaveAttribute("data-word", "maximum");
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
  // One step was left by a press: kept where it came within a quarter of its 0.8 s.
  const ask = events.find(({ type }) => type === "ask");
  const step = events.find(({ type }) => type === "phase");
  const seconds = ((step?.mono_ms ?? Number.NaN) - (ask?.mono_ms ?? Number.NaN)) / 1000;
  expect(seconds).toBeGreaterThanOrEqual(0.8);
  await expect(page.getByTestId("dwell-kept")).toHaveText(seconds <= 1 ? "100 %" : "0 %");
});

test("3 · dwell coach: a pulsing phase beats at its rate", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Pulsed", { phases: phases(5, "pulse") });
  await openRecorder(page, server.url, horse);
  await page.getByRole("button", { name: "Timed" }).click();
  // 120 a minute: a beat each half second, the first at once.
  await page.evaluate(() => {
    const beats: number[] = [];
    Object.assign(window, { beats });
    new MutationObserver(() => {
      if (document.documentElement.dataset.told === "beat:sound") beats.push(performance.now());
    }).observe(document.documentElement, { attributeFilter: ["data-told"] });
  });
  const beats = () => page.evaluate(() => (window as unknown as { beats: number[] }).beats);
  await page.keyboard.down("Space");
  await expect.poll(async () => (await beats()).length).toBeGreaterThanOrEqual(6);
  await page.keyboard.up("Space");
  const times = await beats();
  const gap = ((times[5] ?? 0) - (times[0] ?? 0)) / 5;
  expect(gap).toBeGreaterThan(450);
  expect(gap).toBeLessThan(550);
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
  await expect(coach.locator("strong:visible")).toHaveText("mark");
  await page.keyboard.press("m");
  await expect(coach.locator("strong:visible")).toHaveText(/wait [12] s/);
  await page.keyboard.press("f");
  await expect(coach).toContainText("Slip: food before the wait.");
  await expect(coach).toContainText("4 left in the pouch");
});

test("5 · free work: leaving and back, gaits, direction, circle, a stand in the corner, looks by beep", async ({ page, server }) => {
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
  await expect(free.getByText("stands at corner NE")).toBeVisible();
  await row.getByRole("button", { name: "looks" }).click();
  await expect(row.getByRole("button", { name: "with me" })).toBeDisabled();
  await expect(row.getByRole("button", { name: "with me" })).toBeEnabled();
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
    rungs: [{ values: { stay: 3, reach: 2 } }, { values: { stay: 4, reach: 2 } }],
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
  await stay(3300);
  const reasons = page.getByRole("group", { name: "What ended the stay" });
  await expect(reasons).toContainText(/[3-9]\.\d s/);
  await expect(page.getByTestId("handler-distance")).toHaveText("2 m off");
  await reasons.getByRole("button", { name: "handler farther" }).click();
  await reasons.getByRole("button", { name: "asked" }).click();
  await expect(page.getByTestId("block-count")).toContainText("1 met of 1");
  await stay(600);
  // What ended it is asked first; that it fell short is said beside it, and why comes right after.
  await expect(page.getByTestId("row-label")).toContainText("counted as a try");
  await reasons.getByRole("button", { name: "it left" }).click();
  await expect(page.getByText(/^It stayed [0-2]\.\d s; the rung asks for 3 s\. Not rewarded\.$/)).toBeVisible();
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
  await pad(page, "relaxes").click();
  await page.getByRole("group", { name: "Which sign of ease" }).getByRole("button", { name: "licks and chews" }).click();
  for (let i = 0; i < 3; i++) await pad(page, "tightens").click();
  await expect(page.getByText("3 tension signs in a minute on the first rung.")).toBeVisible();
  await expect(page.getByText("Break", { exact: true })).toBeVisible();
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
  // A horse that rears was given line: a safety release.
  expect(payloads(events, "safety")).toEqual([{ what: "rears; a bird out of the hedge", then: "end", release: true }]);
  expect(payloads(events, "signal").map((one) => one.class)).toEqual(["ease", "tension", "tension", "tension", "danger"]);
});
