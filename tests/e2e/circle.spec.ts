import type { Page } from "@playwright/test";
import { v4 as newId } from "uuid";
import { planFromTemplate } from "@/core/behaviour";
import { clockAt, scheduleOf, USUAL_SOUNDS } from "@/core/circle";
import { templateOf } from "@/library";
import { planToLog } from "../../core/events/circle-log";
import { PLAN as INSIDE } from "../support/circle-plan";
import { emptyDraft } from "../support/plan";
import { evidence, expect, exported, makeHorse, noAxeFindings, payloads, postTaps, test } from "./fixtures";

/** As it is sent and logged. */
const PLAN = planToLog(INSIDE);

const PHONE = { width: 390, height: 664 };

async function ask(url: string, path: string, body: unknown, method = "POST") {
  const response = await fetch(`${url}${path}`, { method, headers: { "content-type": "application/json" }, body: JSON.stringify(body) });
  return { status: response.status, answer: (await response.json()) as { id?: string; detail?: string; code?: string } };
}

const begun = (horse: string, plan: object = {}, more: object = {}) => ({
  id: newId(),
  horse,
  kind: "circle",
  person: null,
  place: null,
  circle: { plan: { ...PLAN, ...plan }, overrides: [] },
  ...more,
});

/** Sets the first segment and takes the others out, so that a session is as long as a test may be. */
async function shortPlan(page: Page, segments: readonly (readonly [gait: string, minutes: string])[]) {
  while ((await page.getByRole("button", { name: /^Take segment \d+ out$/ }).count()) > segments.length)
    await page
      .getByRole("button", { name: /^Take segment \d+ out$/ })
      .last()
      .click();
  for (const [i, [gait, minutes]] of segments.entries()) {
    await page.getByLabel(`Segment ${i + 1}, gait`).selectOption(gait);
    await page.getByLabel(`Segment ${i + 1}, minutes`).fill(minutes);
  }
}

const seconds = async (page: Page) => {
  const [minutes = "0", rest = "0"] = ((await page.getByTestId("clock").textContent()) ?? "").replace("+", "").split(":");
  return Number(minutes) * 60 + Number(rest);
};

const press = (page: Page, name: string) => page.getByRole("button", { name, exact: true }).click();

/** Begins the plan that stands in the planner and starts its clock. */
async function startClock(page: Page) {
  await press(page, "Open the circle clock");
  await expect(page).toHaveURL(/\/work\/[0-9a-f-]{36}/);
  await press(page, "Start the clock");
  await expect(page.getByTestId("clock")).toBeVisible();
}

test("a session by its plan: cautions with a word of why, the clock, transitions, laps, the finish, the way down, the load book", async ({
  page,
  server,
}) => {
  const { horse } = await makeHorse(server.url, "Round");
  await page.setViewportSize(PHONE);
  await page.goto(`${server.url}/horses/${horse}/work`);
  await page.getByRole("link", { name: "Circle work" }).click();
  await expect(page.getByRole("heading", { name: "Circle work, Round" })).toBeVisible();
  await noAxeFindings(page, "planner");
  await expect(page.getByText("Within every cap.")).toBeVisible();
  await shortPlan(page, [
    ["walk", "1"],
    ["canter", "0.5"],
  ]);
  // Canter on a circle of 16 m: said, and closed until somebody says why.
  const cautions = page.getByRole("list", { name: "Cautions" });
  await expect(cautions).toContainText("Canter on a circle 16 m across");
  // The first button of a phone says why it is shut, and leads there.
  await expect(page.getByText("A word of why is wanted. Canter on a circle 16 m across", { exact: false }).first()).toBeVisible();
  await page.getByRole("link", { name: "See what it says of the plan" }).first().click();
  await expect(cautions).toBeInViewport();
  await expect(page.getByRole("button", { name: "Open the circle clock" })).toBeDisabled();
  await page.getByLabel("All the same, because").fill("a few strides, deep sand");
  await startClock(page);
  await noAxeFindings(page, "clock");
  // Everything stands on one screen of a phone.
  expect(await page.evaluate(() => document.documentElement.scrollHeight)).toBeLessThanOrEqual(664);
  await press(page, "asked by voice");
  await press(page, "asked by whip");
  await page.getByLabel("Gait asked for").selectOption("canter");
  await press(page, "asked by voice");
  await press(page, "canter came");
  await press(page, "falls in");
  await press(page, "falls in");
  await press(page, "undo");
  await press(page, "lap");
  // A danger sign brings the stop card, and it stays until it is answered, over a reload too.
  await press(page, "danger");
  await expect(page.getByRole("dialog", { name: "Stop" })).toBeVisible();
  await noAxeFindings(page, "stop on the circle");
  await page.reload();
  await press(page, "Go on in walk");
  await expect(page.getByRole("dialog", { name: "Stop" })).toBeHidden();
  // After the second, going on takes a reason.
  await press(page, "danger");
  await expect(page.getByRole("button", { name: "Go on in walk" })).toBeDisabled();
  await press(page, "Tapped by mistake");
  await expect(page.getByTestId("clock")).toBeVisible();
  expect(await seconds(page)).toBeLessThan(60);
  await press(page, "finish");
  await page.getByLabel("For next time").fill("Walk longer first");
  await press(page, "Finish and cool down");
  await expect(page.getByRole("heading", { name: "Cool down" })).toBeVisible();
  // How the walk at the end was is asked once it is over.
  await expect(page.getByText("Was the walk at the end easy?")).toBeHidden();
  await noAxeFindings(page, "cool-down");
  // The resting rate of this horse is not known: it cannot be said to be down, only left with a reason.
  await expect(page.getByRole("button", { name: /^Bright/ })).toHaveCount(0);
  await page.getByLabel(/^Close it/).fill("breathing quietly, on the walker");
  await press(page, "Close");
  await expect(page.getByRole("heading", { name: "Cool-down left" })).toBeVisible();
  // A slip of the glove is taken back, and what the clock ended with stays.
  await press(page, "Undo closing it");
  await expect(page.getByRole("heading", { name: "Cool down" })).toBeVisible();
  await expect(page.getByRole("button", { name: /^Undo/ })).toHaveCount(0);
  await page.getByLabel(/^Close it/).fill("breathing quietly, on the walker");
  await press(page, "Close");
  await expect(page.getByRole("heading", { name: "Cool-down left" })).toBeVisible();
  await press(page, "Not easy");
  await expect(page.getByText("The walk at the end was not easy.")).toBeVisible();
  const events = await exported(page, server.url);
  expect(payloads(events, "circle.start")).toMatchObject([{ overrides: [{ key: "canter-small", why: "a few strides, deep sand" }] }]);
  expect(payloads(events, "aid").map(({ aid, to }) => `${aid} ${to}`)).toEqual(["voice walk", "whip walk", "voice canter"]);
  expect(payloads(events, "cool").map(({ did }) => did)).toEqual(["starts", "left", "left"]);
  expect(payloads(events, "circle.rated")).toEqual([{ easy: false }]);
  await page.getByRole("link", { name: "See what it came to" }).click();
  await expect(page.getByRole("heading", { name: "On the circle" })).toBeVisible();
  await expect(page.getByText("falls in: 1 left, 0 right")).toBeVisible();
  await expect(page.getByText("Gone against: canter on a small circle (a few strides, deep sand).")).toBeVisible();
  await expect(page.getByText("To canter, left", { exact: false })).toBeVisible();
  await expect(page.getByText("Closed without: breathing quietly, on the walker.", { exact: false })).toBeVisible();
  await noAxeFindings(page, "review of the circle");
  await page.getByRole("link", { name: "Load book" }).first().click();
  await expect(page.getByRole("heading", { name: "Load book, Round" })).toBeVisible();
  await page.getByRole("textbox", { name: "Minutes" }).fill("40");
  await press(page, "Add");
  await expect(page.getByText("ridden, 40 min")).toBeVisible();
  await noAxeFindings(page, "load book");
  await page.goto(`${server.url}/horses/${horse}/work/circle`);
  await expect(page.getByText("Walk longer first")).toBeVisible();
});

test("the sounds are one rendered track, each where its call is, and it plays with the clock", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Sounded");
  // The policy lets a page play a sound it made and fetch none: what it made is kept as it is made.
  await page.addInitScript(() => {
    const make = URL.createObjectURL.bind(URL);
    const kept = window as Window & { tracks?: Blob[] };
    URL.createObjectURL = (made) => {
      if (made instanceof Blob) kept.tracks = [...(kept.tracks ?? []), made];
      return make(made);
    };
  });
  await page.goto(`${server.url}/horses/${horse}/work/circle`);
  await shortPlan(page, [
    ["walk", "0.4"],
    ["trot", "0.25"],
  ]);
  await startClock(page);
  await expect.poll(() => page.getByTestId("track").evaluate((element) => (element as HTMLAudioElement).src)).toMatch(/^blob:/);
  const heard = await page.evaluate(async () => {
    const bytes = await (window as Window & { tracks?: Blob[] }).tracks?.at(-1)?.arrayBuffer();
    if (bytes === undefined) throw new Error("no track was made");
    const context = new OfflineAudioContext(1, 8000, 8000);
    const buffer = await context.decodeAudioData(bytes);
    const samples = buffer.getChannelData(0);
    // Where it begins to sound after being silent for a second, in seconds.
    const begins: number[] = [];
    let last = -10;
    for (let i = 0; i < samples.length; i++)
      if (Math.abs(samples[i] ?? 0) > 0.3) {
        if (i / buffer.sampleRate - last > 1) begins.push(i / buffer.sampleRate);
        last = i / buffer.sampleRate;
      }
    return { begins, seconds: buffer.duration };
  });
  // Walk at once, trot at 24 s called at 14, the end at 39 called at 29; nothing else.
  expect(heard.begins.map((at) => Math.round(at * 10) / 10)).toEqual([0, 14, 24, 29, 39]);
  expect(heard.seconds).toBeGreaterThan(39.5);
  const track = () =>
    page
      .getByTestId("track")
      .evaluate((element) => ({ paused: (element as HTMLAudioElement).paused, at: (element as HTMLAudioElement).currentTime }));
  await expect.poll(async () => (await track()).paused).toBe(false);
  await expect.poll(async () => Math.abs(24 - (await seconds(page)) - (await track()).at)).toBeLessThan(1.6);
  await press(page, "pause");
  await expect.poll(async () => (await track()).paused).toBe(true);
  const left = await seconds(page);
  await page.waitForTimeout(2200);
  expect(await seconds(page)).toBe(left);
  await press(page, "go on");
  await expect.poll(async () => (await track()).paused).toBe(false);
  // On to the next: the track is made anew with what is left.
  await press(page, "next");
  await expect(page.getByTestId("gait-now")).toHaveText("trot");
  await expect(page.getByText("the plan is done")).toBeVisible();
});

test("the clock is right over a locked phone", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Locked");
  await page.clock.install();
  await page.goto(`${server.url}/horses/${horse}/work/circle`);
  await shortPlan(page, [
    ["walk", "10"],
    ["trot", "5"],
  ]);
  await startClock(page);
  const expected = (worked: number) =>
    Math.ceil(
      clockAt(
        scheduleOf(
          [
            { gait: "walk", side: "L", minutes: 10 },
            { gait: "trot", side: "L", minutes: 5 },
          ],
          [],
        ),
        worked,
      ).leftSeconds,
    );
  await expect.poll(() => seconds(page)).toBeGreaterThan(expected(20));
  // Twelve minutes in which no timer ran: the second segment is on, three minutes of it left.
  await page.clock.fastForward(12 * 60_000);
  await expect(page.getByTestId("gait-now")).toHaveText("trot");
  expect(Math.abs((await seconds(page)) - expected(12 * 60))).toBeLessThan(12);
});

test("the clock goes on as it was where somebody sets the phone's, back or ahead, and over a reload", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Set");
  await page.clock.install();
  await page.goto(`${server.url}/horses/${horse}/work/circle`);
  await shortPlan(page, [
    ["walk", "10"],
    ["trot", "5"],
  ]);
  await startClock(page);
  await press(page, "lap");
  const before = await seconds(page);
  await page.clock.setSystemTime(new Date(await page.evaluate(() => Date.now() - 3_600_000)));
  await page.waitForTimeout(1200);
  expect(Math.abs(before - (await seconds(page)))).toBeLessThan(6);
  await press(page, "lap");
  // Ahead it might have slept: the computer's clock says that it has not.
  await page.clock.setSystemTime(new Date(await page.evaluate(() => Date.now() + 7_200_000)));
  await expect.poll(async () => Math.abs(before - (await seconds(page)))).toBeLessThan(15);
  await press(page, "lap");
  await page.reload();
  await expect(page.getByTestId("clock")).toBeVisible();
  await expect.poll(async () => Math.abs(before - (await seconds(page)))).toBeLessThan(25);
  const laps = (await exported(page, server.url)).filter(({ type }) => type === "lap").map(({ wall_ms }) => wall_ms);
  expect(laps).toHaveLength(3);
  expect(Math.max(...laps) - Math.min(...laps)).toBeLessThan(20_000);
});

test("caps hold in the route: a word of why for each, walls for restrictions, minutes of ladders on the circle counted", async ({
  server,
}) => {
  const { url } = server;
  const { horse } = await makeHorse(url, "Capped");
  const post = (body: object) => ask(url, "/api/sessions", body);
  expect((await post({ ...begun(horse), circle: null })).status).toBe(422);
  expect((await post(begun(horse, { radius_m: null }))).status).toBe(422);
  expect((await post(begun(horse, { segments: [] }))).status).toBe(422);
  const small = { name: "Reed pen", shape: "round", length_m: 15, width_m: null, footing: "sand", fence: "", items: [] };
  const { id: place } = (await ask(url, "/api/places", small)).answer;
  const cramped = await post({ ...begun(horse), place });
  expect(cramped).toMatchObject({
    status: 409,
    answer: { code: "circle-cautions", detail: "The circle is 20 m across and Reed pen 15 m: it does not fit." },
  });
  const long = { segments: [{ gait: "walk", side: "L", minutes: 31 }] };
  const refused = await post(begun(horse, long));
  expect(refused).toMatchObject({
    status: 409,
    answer: { code: "circle-cautions", detail: "31 min of circling; at most 30 min. A setting of this yard." },
  });
  expect(
    (await post({ ...begun(horse, long), circle: { plan: { ...PLAN, ...long }, overrides: [{ key: "week", why: "other" }] } })).status,
  ).toBe(409);
  const let_ = await post({
    ...begun(horse, long),
    circle: { plan: { ...PLAN, ...long }, overrides: [{ key: "too-long", why: "walk only, fit horse" }] },
  });
  expect(let_.status).toBe(201);
  // Twenty-five minutes were worked just now: six more are over the day's cap, and it is too soon.
  const began = Date.now() - 40 * 60_000;
  await postTaps(url, let_.answer.id ?? "", began, [
    [0, "block.start", { block: 1, behaviour: "Circle work", rung: "plan", criterion: { sentence: "x" }, side: "", kind: "work" }],
    [0, "circle.start", { plan: { ...PLAN, segments: [{ gait: "walk", side: "L", minutes: 25 }] }, overrides: [] }],
    [1500, "session.end", {}],
  ]);
  const again = await post(begun(horse, { segments: [{ gait: "walk", side: "R", minutes: 6 }] }));
  expect(again.answer.detail).toBe(
    "6 min of circling and 25 min earlier today; at most 30 min. A setting of this yard. The last circling was today; 1 day between is this yard's rule.",
  );
  // The horse's own cap, and a ladder that goes on a circle: its minutes are the same minutes.
  const { stiffer, ...setup } = {
    stiffer: null,
    ways: "turn",
    stiffer_first: false,
    caps: { session_minutes: 25, week_minutes: null, week_visits: null },
    ramp: null,
    plan: null,
  };
  expect((await ask(url, `/api/horses/${horse}/circle`, { ...setup, stiffer, sounds: USUAL_SOUNDS }, "PUT")).status).toBe(200);
  expect(
    (await ask(url, `/api/horses/${horse}/circle`, { ...setup, stiffer, sounds: { ...USUAL_SOUNDS, trot: "two falling" } }, "PUT")).status,
  ).toBe(422);
  const template = templateOf("circle-walk");
  if (template === undefined) throw new Error("no such template");
  const { answer, status } = await ask(url, "/api/ladders", {
    horse,
    behaviour: { ...emptyDraft().behaviour, name: "Walks the circle", template: "circle-walk", involves: ["circling"] },
    plan: planFromTemplate(template, "pressure-release"),
  });
  expect(status, answer.detail).toBe(201);
  const onLadder = { horse, kind: "work", ladder: answer.id, person: null, place: null, start_rung: 1 };
  expect(await post({ id: newId(), ...onLadder })).toMatchObject({
    status: 409,
    answer: { code: "circling-cap", detail: "25 min of circling today, the most for one day. This horse's own." },
  });
  expect((await post({ id: newId(), ...onLadder, against: "two strides to show somebody" })).status).toBe(201);
  // A restriction is a wall: no word of why opens it.
  const wall = await makeHorse(url, "Walled");
  const restriction = {
    kind: "no-circling",
    amount: null,
    detail: "",
    reason: "a strain",
    given_by: "the vet",
    from_day: null,
    until_day: null,
  };
  expect(await ask(url, `/api/horses/${wall.horse}/restrictions`, restriction)).toMatchObject({ status: 201 });
  const why = ["no-circling", "too-long"].map((key) => ({ key, why: "please" }));
  expect(await post({ ...begun(wall.horse), circle: { plan: PLAN, overrides: why } })).toMatchObject({
    status: 409,
    answer: { code: "circle-cautions" },
  });
});

test("a ramp, sounds and a fit card are kept; a changed sound is offered as a new cue", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Ramped");
  const kit = await ask(server.url, "/api/kit", {
    name: "A roller",
    kind: "roller or harness",
    length_m: null,
    mass_g: null,
    buckles_equal: null,
  });
  expect(kit.status).toBe(201);
  await page.goto(`${server.url}/horses/${horse}/work/circle/ramp`);
  await page.getByLabel("raise the work by steps").check();
  await page.getByLabel("Goal, trot").fill("6");
  await page.getByLabel("Goal, canter").fill("2");
  await expect(page.getByText("The goal has canter; the circle is too small for it.")).toBeVisible();
  await page.getByLabel("Radius, m").fill("10");
  await expect(page.getByText(/\d+ steps, one change at a time/)).toBeVisible();
  await page.getByLabel("Minutes a session").fill("1");
  await expect(page.getByText(/The start is 20 min a session, over the cap of 1 min/)).toBeVisible();
  await page.getByLabel("Minutes a session").fill("");
  await press(page, "Save");
  await expect(page.getByText("Step 1 of", { exact: false })).toBeVisible();
  await noAxeFindings(page, "ramp");
  await page.goto(`${server.url}/horses/${horse}/work/circle/kit`);
  await page.getByLabel("Holes, left").fill("4");
  await page.getByLabel("Holes, right").fill("5");
  await press(page, "Save the card");
  await expect(page.getByText("Holes 4 left and 5 right: even them before work.")).toBeVisible();
  await noAxeFindings(page, "kit and fit");
  await page.goto(`${server.url}/horses/${horse}/work/circle`);
  await expect(page.getByText("Step 1 of", { exact: false })).toBeVisible();
  // New kit: walk alone, ten minutes; the plan of the step is longer and has trot.
  await page.getByLabel("Kit that is fitted").selectOption("A roller");
  await expect(page.getByRole("list", { name: "Cautions" })).toContainText("First time in this kit at this stage");
  await page.getByLabel("All the same, because").fill("has worn it for years");
  await startClock(page);
  // The horse has heard its sounds now: another one is a new cue to it.
  await page.goto(`${server.url}/horses/${horse}/work/circle/ramp`);
  await page.getByLabel("Sound for trot").selectOption("two even");
  await press(page, "Save");
  await expect(page.getByRole("link", { name: "Plan it as a new cue" })).toBeVisible();
  await page.getByRole("link", { name: "Plan it as a new cue" }).click();
  await expect(page.getByRole("heading", { name: "Changes gait to a sound" })).toBeVisible();
});

test("in a pen the recorder stops at the cap, whatever was reached and whatever was said", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Penned");
  const caps = { session_minutes: 1, week_minutes: null, week_visits: null };
  await ask(
    server.url,
    `/api/horses/${horse}/circle`,
    { ways: "both", stiffer: null, stiffer_first: false, caps, sounds: USUAL_SOUNDS, ramp: null, plan: null },
    "PUT",
  );
  await page.clock.install();
  await page.setViewportSize({ width: 667, height: 375 });
  await page.goto(`${server.url}/horses/${horse}/work/circle`);
  await page.getByLabel("Driven loose in a pen").check();
  await shortPlan(page, [["trot", "3"]]);
  await page.getByLabel("All the same, because").fill("it will turn in at once");
  await startClock(page);
  await press(page, "ear comes in");
  await expect(page.getByTestId("cap")).toBeHidden();
  await page.clock.fastForward(61_000);
  await expect(page.getByTestId("cap")).toContainText("Stop. 1 min of circling today, the most.");
  await expect(page.getByTestId("gait-now")).toHaveText("stop");
  await expect.poll(() => page.getByTestId("track").evaluate((element) => (element as HTMLAudioElement).paused)).toBe(true);
  await expect(page.getByRole("button", { name: "+1 min", exact: true })).toBeDisabled();
  await noAxeFindings(page, "stopped at the cap");
});

test("transitions are asks of a ladder: each aid the phase of its kind, what never came is refused; others are none", async ({
  page,
  server,
}) => {
  const { url } = server;
  const { horse } = await makeHorse(url, "Asked");
  const template = templateOf("walk-at-end");
  if (template === undefined) throw new Error("no such template");
  const { answer, status } = await ask(url, "/api/ladders", {
    horse,
    behaviour: { ...emptyDraft().behaviour, name: "Walk at the end", template: "walk-at-end", involves: ["circling"] },
    plan: planFromTemplate(template, "pressure-release"),
  });
  expect(status, answer.detail).toBe(201);
  await page.setViewportSize(PHONE);
  await page.goto(`${url}/horses/${horse}/work/circle`);
  await page.getByLabel("Transitions are asks of").selectOption("Walk at the end");
  await expect(page.getByLabel("Which count")).toHaveValue("walk");
  await startClock(page);
  await press(page, "asked by voice");
  await press(page, "walk came");
  // To trot: no ask of this ladder.
  await page.getByLabel("Gait asked for").selectOption("trot");
  await press(page, "asked by voice");
  await press(page, "trot came");
  await page.getByLabel("Gait asked for").selectOption("walk");
  await press(page, "asked by voice");
  await press(page, "asked by smaller");
  await press(page, "no answer: no");
  const events = await exported(page, url);
  const trials = payloads(events, "trial");
  // It did not come back to walk: it trots on.
  expect(payloads(events, "gait").map(({ gait }) => gait)).toEqual(["walk", "trot", "trot"]);
  expect(trials).toMatchObject([
    // Its ask is a long breath, then the voice, then the line.
    { outcome: "met", phase: 2, side: "L" },
    { outcome: "refused", phase: 3, side: "L" },
  ]);
  // The ladder has them as evidence.
  const session = /work\/([0-9a-f-]{36})/.exec(page.url())?.[1] ?? "";
  expect(await evidence(url, session)).toHaveLength(2);
});
