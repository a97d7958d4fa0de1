import type { LadderPlan } from "@/core/ladder";
import { strandFromCatalogue } from "@/core/strands";
import { emptyDraft } from "@/tests/support/plan";
import { expect, exported, finishSession, fromMore, makeHorse, noAxeFindings, openRecorder, pad, payloads, test } from "./fixtures";

test.use({ viewport: { width: 390, height: 664 } });
test.describe.configure({ mode: "parallel" });

const BETWEEN = {
  whenWrong: { did: "left", met: "moved on", plan: "walk it round once, then ask from there" },
  ownTimes: ["looks", "settles"],
  pinned: [{ name: "eyes on me", class: "count" }],
  acts: ["steps"],
} as const satisfies LadderPlan["conversation"];

const STEPS = {
  strands: [strandFromCatalogue("steps", "steps")],
  rungs: [1, 2, 3].map((steps) => ({ values: { steps } })),
  workingStrandId: null,
};

test("1 · a wrong choice: a tap counts it, a hold times it, its words are two taps, and the review sums it", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Chooser", { conversation: BETWEEN });
  await openRecorder(page, server.url, horse);
  await pad(page, "wrong").click();
  await expect(page.getByTestId("talk")).toContainText("If it chooses wrong: walk it round once, then ask from there.");
  const held = await pad(page, "wrong").boundingBox();
  await page.mouse.move((held?.x ?? 0) + 20, (held?.y ?? 0) + 20);
  await page.mouse.down();
  await expect(pad(page, "wrong")).toHaveAttribute("aria-pressed", "true");
  await page.waitForTimeout(900);
  await page.mouse.up();
  await expect(pad(page, "wrong")).toHaveAttribute("aria-pressed", "false");
  await pad(page, "wrong").click();
  await pad(page, "undo").click();
  const row = page.getByRole("group", { name: "The last wrong choice" });
  // What the plan expects stands for a tap; it is changed where it was something else.
  await pad(page, "wrong").click();
  const more = row.getByRole("button", { name: "own words, metres" });
  await expect(async () => {
    if (!(await more.isVisible())) await page.getByRole("button", { name: "another row" }).click();
    await expect(more).toBeVisible({ timeout: 2000 });
  }).toPass();
  await more.click();
  await row.getByLabel("What it did, in your own words").fill("sat down");
  await row.getByLabel("How far off it began, in metres").fill("2,5");
  await row.getByRole("button", { name: "Keep" }).click();
  const events = await exported(page, server.url);
  const wrong = payloads(events, "wrong");
  expect(wrong).toHaveLength(4);
  expect(payloads(events, "correct").at(-1)).toMatchObject({ payload: { did: "sat down", metres: 2.5 } });
  expect(wrong[0]).toMatchObject({ did: "left", met: "moved on" });
  await finishSession(page);
  await expect(page.getByTestId("wrong-choices")).toHaveText("3");
  await expect(page.getByText(/1 of 3 timed/)).toBeVisible();
  await noAxeFindings(page, "review with wrong choices");
});

test("2 · the first screen of a simple ladder gains nothing; all of it is two taps away", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Plain");
  await openRecorder(page, server.url, horse);
  for (const name of ["wrong", "looks", "settles", "back off"]) await expect(pad(page, name)).toHaveCount(0);
  await expect(page.getByText("signs, and what you do")).toHaveCount(0);
  await expect(page.getByTestId("talk")).toHaveCount(0);
  await fromMore(page, "between asks");
  const sheet = page.getByRole("dialog", { name: "Between the asks" });
  await noAxeFindings(page, "between the asks");
  await sheet.getByRole("button", { name: "chose wrong" }).click();
  await fromMore(page, "between asks");
  await sheet.getByRole("button", { name: "eats", exact: true }).click();
  await fromMore(page, "between asks");
  await sheet.getByLabel("A sign in your own words").fill("sighs at the gate");
  await sheet.getByRole("button", { name: "Count it" }).click();
  const events = await exported(page, server.url);
  expect(payloads(events, "wrong")).toHaveLength(1);
  expect(payloads(events, "signal")).toEqual([
    { name: "eats", class: "count" },
    { name: "sighs at the gate", class: "count" },
  ]);
});

test("3 · looking and settling are timed by two presses each, steps limit the rung, and the review says them", async ({ page, server }) => {
  const limited = {
    ...STEPS,
    rungs: STEPS.rungs.map((rung) => ({ ...rung, handlerMost: [{ act: "steps" as const, most: 1 }], leastMovement: 2 })),
  };
  const { horse } = await makeHorse(server.url, "Looker", { ...limited, conversation: BETWEEN });
  await openRecorder(page, server.url, horse);
  await pad(page, "looks").click();
  await page.waitForTimeout(600);
  await pad(page, "looked").click();
  await pad(page, "settles").click();
  const own = page.getByRole("group", { name: "Signs and what you do" });
  await own.getByRole("button", { name: /^steps/ }).click();
  await own.getByRole("button", { name: /^steps/ }).click();
  await pad(page, "got it").click();
  await expect(page.getByTestId("row-label")).toContainText("counted as a try");
  await page.getByRole("button", { name: "movement 3: free" }).click();
  await expect(page.locator("p", { hasText: "You: steps, 2 times; the rung allows 1." })).toBeVisible();
  await pad(page, "got it").click();
  await page.getByRole("button", { name: "movement 1: short" }).click();
  await expect(page.locator("p", { hasText: "It moved short; the rung asks for even." })).toBeVisible();
  const events = await exported(page, server.url);
  expect(payloads(events, "own.end")).toEqual([{ what: "looks", ended_by: "horse" }]);
  await finishSession(page);
  await expect(page.getByTestId("own-settles")).toHaveText("–");
  await expect(page.getByTestId("act-steps")).toHaveText("2");
});

test("4 · who handles changes in the middle: evidence starts anew with a new pair", async ({ page, server }) => {
  await fetch(`${server.url}/api/people`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ name: "Perran", role: "handler" }),
  });
  const { horse } = await makeHorse(server.url, "Pair", { ...STEPS, mastery: { kind: "run", length: 5 } });
  await openRecorder(page, server.url, horse);
  for (let i = 0; i < 4; i++) await pad(page, "got it").click();
  await expect(page.getByTestId("word")).toContainText("4 in a row");
  await fromMore(page, "between asks");
  const sheet = page.getByRole("dialog", { name: "Between the asks" });
  await sheet.getByLabel("Who", { exact: true }).fill("Somebody Else");
  await sheet.getByRole("button", { name: "From here on" }).click();
  await expect(page.getByTestId("talk")).toContainText("Somebody Else handles.");
  await pad(page, "got it").click();
  await expect(page.getByTestId("word")).toContainText("1 in a row");
  await finishSession(page);
  await expect(page.getByText("Somebody Else handles.")).toBeVisible();
});

test("5 · the rig is asked at the start and again when the side changes, one press each", async ({ page, server }) => {
  const rig = [
    { text: "quick release tried", when: "start" },
    { text: "rope turned round", when: "side" },
  ] as const;
  const { horse } = await makeHorse(server.url, "Rigged", { conversation: { rig } });
  await page.goto(`${server.url}/horses/${horse}/work`);
  await page.getByRole("button", { name: "Open the recorder" }).click();
  await page.getByRole("button", { name: "Skip", exact: true }).click();
  await page.getByRole("button", { name: "quick release tried" }).click();
  await page.getByRole("button", { name: "rope turned round" }).click();
  await expect(page.getByText("The rig", { exact: false })).toHaveCount(0);
  await page.getByRole("button", { name: "Start the block" }).click();
  await pad(page, "got it").click();
  await pad(page, "to right").click();
  await expect(page.getByText("The rig, right")).toBeVisible();
  await noAxeFindings(page, "the rig");
  await page.getByRole("button", { name: "rope turned round" }).click();
  await expect(page.getByText("The rig, right")).toHaveCount(0);
  expect(payloads(await exported(page, server.url), "rig")).toMatchObject([
    { checks: ["quick release tried", "rope turned round"] },
    { checks: ["rope turned round"], side: "R" },
  ]);
});

test("6 · danger twice ends the session by the large button; going on takes a reason", async ({ page, server, context }) => {
  const { horse } = await makeHorse(server.url, "Danger");
  await openRecorder(page, server.url, horse);
  await pad(page, "got it").click();
  await pad(page, "danger").click();
  await page.getByRole("button", { name: "Rest first, ask nothing" }).click();
  await pad(page, "go on").click();
  await context.setOffline(true);
  await pad(page, "danger").click();
  await expect(page.getByText("The second danger sign in this session.")).toBeVisible();
  await expect(page.getByRole("button", { name: "Rest first, ask nothing" })).toBeDisabled();
  await page.getByRole("button", { name: "somebody or the horse fell" }).click();
  await expect(page.getByText(/a doctor for people/)).toBeVisible();
  const large = page.getByRole("button", { name: "Make safe, go home, write it down" });
  expect((await large.boundingBox())?.height ?? 0).toBeGreaterThanOrEqual(90);
  await noAxeFindings(page, "the stop card, a second time");
  await large.click();
  await expect(page.getByRole("heading", { name: "Finished" })).toBeVisible();
  await context.setOffline(false);
  expect(payloads(await exported(page, server.url), "safety").at(-1)).toMatchObject({ then: "end", hurt: "fall", ends: true });
});

test("7 · a chain is run as a whole: links one press each, a break with its reason, and the chain's page shows it", async ({
  page,
  server,
}) => {
  const { horse, ladder } = await makeHorse(server.url, "Chained");
  const other = await fetch(`${server.url}/api/ladders`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ horse, behaviour: { ...emptyDraft().behaviour, name: "Backs off it" }, plan: emptyDraft().plan }),
  });
  const second = ((await other.json()) as { id: string }).id;
  const made = await fetch(`${server.url}/api/chains`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({
      horse,
      name: "On and off",
      direction: "forward",
      links: [
        { ladder, rung: 1 },
        { ladder: second, rung: 1 },
      ],
    }),
  });
  const chain = ((await made.json()) as { id: string }).id;
  await openRecorder(page, server.url, horse);
  await fromMore(page, "run the whole");
  const sheet = page.getByRole("dialog", { name: "Run the whole" });
  await sheet.getByRole("button", { name: "Run it" }).click();
  await sheet.getByRole("button", { name: "Stands on the plate: reached" }).click();
  await sheet.getByRole("button", { name: "Backs off it: reached" }).click();
  await expect(sheet.getByRole("status")).toContainText("Whole: 2 links");
  await sheet.getByRole("button", { name: "Run it" }).click();
  await sheet.getByRole("button", { name: "Stands on the plate: reached" }).click();
  await sheet.getByRole("button", { name: "It broke here" }).click();
  await noAxeFindings(page, "a break in a run");
  await sheet.getByRole("button", { name: "tense" }).click();
  await sheet.getByRole("button", { name: "asked for less" }).click();
  await expect(sheet.getByRole("status")).toContainText("Broke on Backs off it, tense.");
  await page.keyboard.press("Escape");
  expect(payloads(await exported(page, server.url), "run.end")).toEqual([{ link: 2, reason: "tense", did: "asked for less" }]);
  await finishSession(page);
  await page.goto(`${server.url}/horses/${horse}/shape/chains/${chain}`);
  await expect(page.getByText("1 of 2 runs whole", { exact: false })).toBeVisible();
  // From here one press opens it, on a phone with danger in sight; danger ends the run where it was and brings the stop card.
  await page.setViewportSize({ width: 390, height: 664 });
  await page.getByRole("button", { name: "Run the whole" }).click();
  await page.getByRole("button", { name: "Skip", exact: true }).click();
  await sheet.getByRole("button", { name: "Run it" }).click();
  await sheet.getByRole("button", { name: "Stands on the plate: reached" }).click();
  await expect(sheet.getByRole("button", { name: "danger" })).toBeInViewport({ ratio: 1 });
  await noAxeFindings(page, "a run on a phone");
  await sheet.getByRole("button", { name: "danger" }).click();
  await expect(page.getByRole("dialog", { name: "Stop" })).toBeVisible();
  const log = await exported(page, server.url);
  expect(payloads(log, "block.start")).toMatchObject([{ ladder, rung: 1, kind: "work" }]);
  expect(payloads(log, "run.end")).toEqual([{ link: 2, reason: "danger", did: "stopped" }]);
  // A link that is closed closes the whole, and the button says which.
  await fetch(`${server.url}/api/horses/${horse}/restrictions`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ kind: "no-work", amount: null, detail: "", reason: "lame", given_by: "", from_day: null, until_day: null }),
  });
  await page.goto(`${server.url}/horses/${horse}/shape/chains/${chain}`);
  await expect(page.getByRole("button", { name: "Run the whole" })).toBeDisabled();
  await expect(page.getByText(/^Not today\. .*lame/)).toBeVisible();
  await noAxeFindings(page, "the runs of a chain");
});

test("8 · a zone's rule is said when the horse is there; a retreat is one press and a trial with its distance", async ({
  page,
  server,
}) => {
  const item = { name: "ditch", kind: "zone", x_m: 5, y_m: 5, across_m: 2, down_m: 2, rule: "ask-nothing" };
  const place = await fetch(`${server.url}/api/places`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ name: "Ditch field", shape: "square", length_m: 20, width_m: null, footing: "", fence: "", items: [item] }),
  });
  expect(place.status, await place.clone().text()).toBe(201);
  const { horse } = await makeHorse(server.url, "Retreats", {
    strands: [strandFromCatalogue("approach", "approach")],
    rungs: [4, 3, 2].map((approach) => ({ values: { approach } })),
    workingStrandId: "approach",
    conversation: { retreats: true },
  });
  await page.goto(`${server.url}/horses/${horse}/work`);
  await page.getByLabel("Place", { exact: true }).selectOption({ label: "Ditch field" });
  await page.getByRole("button", { name: "Open the recorder" }).click();
  await page.getByRole("button", { name: "Skip", exact: true }).click();
  await page.getByRole("button", { name: "Start the block" }).click();
  const ditch = page.getByRole("button", { name: "ditch", exact: true });
  // A row is turned to, looked at, and only then the next one.
  await expect(async () => {
    if (!(await ditch.isVisible())) await page.getByRole("button", { name: "another row" }).click();
    await expect(ditch).toBeVisible({ timeout: 2000 });
  }).toPass();
  await ditch.click();
  await expect(page.getByTestId("talk")).toHaveText("ditch: ask nothing here.");
  await pad(page, "back off").click();
  await expect(page.getByTestId("block-count")).toContainText("1 met of 1");
  expect(payloads(await exported(page, server.url), "retreat")).toEqual([{ distance_m: 4, zone: "ditch" }]);
  await finishSession(page);
  await expect(page.getByTestId("retreats")).toHaveText("1");
});
