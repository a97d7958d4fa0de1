import { v4 as newId } from "uuid";
import { allSaved, expect, exported, makeHorse, makeSession, openRecorder, pad, payloads, postTaps, startBlock, test } from "./fixtures";

test.use({ viewport: { width: 390, height: 664 } });
test.describe.configure({ mode: "parallel" });

const HOUR = 3_600_000;

/** Taps of a session that was begun some hours ago on another device. */
async function tapped(url: string, session: string, ladder: string, hoursAgo: number, minutes: number): Promise<void> {
  await postTaps(url, session, Date.now() - hoursAgo * HOUR, [
    [0, "session.start", { horse: "x", method: "combined" }],
    [
      0,
      "block.start",
      {
        block: 1,
        behaviour: "Stands on the plate",
        ladder,
        version: 1,
        rung: 1,
        criterion: { sentence: "Any answer." },
        side: "L",
        kind: "work",
      },
    ],
    [minutes * 60, "trial", { outcome: "met" }],
  ]);
}

test("a night is no work: the session is asked about on coming back, ended at its last tap or gone on with as a new block", async ({
  page,
  server,
}) => {
  const made = await makeHorse(server.url, "Overnight");
  const id = newId();
  await makeSession(server.url, made, id);
  await tapped(server.url, id, made.ladder, 14, 6);
  await page.goto(`${server.url}/horses/${made.horse}/work`);
  const open = page.getByRole("region", { name: "Not finished" });
  await expect(open).toContainText("1 of 1 met");
  await open.getByRole("link", { name: "Go on with it" }).click();
  const asked = page.getByTestId("come-back");
  await expect(asked).toContainText("Nothing tapped since");
  await expect(page.getByTestId("clock")).toHaveText("6:00");
  await expect(pad(page, "got it")).toHaveCount(0);
  await asked.getByRole("button", { name: "Go on with a new block" }).click();
  await asked.getByRole("button", { name: "Start the block" }).click();
  await pad(page, "got it").click();
  await expect(page.getByTestId("clock")).toHaveText(/^6:0\d$/);
  await allSaved(page);
  await page.goto(`${server.url}/horses/${made.horse}/review/${id}`);
  await expect(page.getByRole("main")).toContainText("6 min");
});

test("ended where it was left, from the list or in the recorder; said to have gone on, it is work", async ({ page, server }) => {
  const made = await makeHorse(server.url, "Left");
  const [first, second] = [newId(), newId()];
  await makeSession(server.url, made, first);
  await tapped(server.url, first, made.ladder, 30, 5);
  await makeSession(server.url, made, second);
  await tapped(server.url, second, made.ladder, 14, 7);
  await page.goto(`${server.url}/horses/${made.horse}/work`);
  const open = page.getByRole("region", { name: "Not finished" });
  await expect(open.getByRole("link", { name: "Go on with it" })).toHaveCount(2);
  await open.getByRole("button", { name: "End it at its last tap" }).nth(1).click();
  await expect(open.getByRole("link", { name: "Go on with it" })).toHaveCount(1);
  await open.getByRole("link", { name: "Go on with it" }).click();
  await page.getByTestId("come-back").getByRole("button", { name: "End it at the last tap" }).click();
  await page.getByRole("button", { name: "Finish the session" }).click();
  await expect(page.getByRole("heading", { name: "Finished" })).toBeVisible();
  await allSaved(page);
  await page.goto(`${server.url}/horses/${made.horse}/review`);
  await expect(page.getByRole("main")).toContainText("7 min");
  await expect(page.getByRole("main")).toContainText("5 min");
  await expect(page.getByRole("main")).not.toContainText("not finished");

  const third = newId();
  await makeSession(server.url, made, third);
  await tapped(server.url, third, made.ladder, 1, 10);
  await page.goto(`${server.url}/horses/${made.horse}/work/${third}`);
  await page.getByRole("button", { name: "We went on: count it as work" }).click();
  await expect(page.getByTestId("clock")).toHaveText(/^60:\d\d$/);
  await expect(pad(page, "got it")).toBeVisible();
  expect(payloads(await exported(page, server.url), "correct")).toEqual([
    expect.objectContaining({ payload: { went_on: true }, reason: "we went on" }),
  ]);
});

test("opening the recorder makes no session; one that runs is gone on with and a second is not begun unasked", async ({ page, server }) => {
  // A long yard draws the horses in sight: this one stands at its top, whatever other tests made.
  const { horse } = await makeHorse(server.url, "Abel Opened");
  for (let i = 0; i < 2; i++) {
    await page.goto(`${server.url}/horses/${horse}/work`);
    await page.getByRole("button", { name: "Open the recorder" }).click();
    await page.getByTestId("preflight").waitFor();
    await expect(page.locator("[role='status']")).toContainText("0 taps safe on this device, 0 on the server");
  }
  const list = `${server.url}/horses/${horse}/review`;
  await page.goto(list);
  await expect(page.getByRole("main")).toContainText("No session yet.");
  await openRecorder(page, server.url, horse);
  const running = page.url();
  await allSaved(page);
  // A block begun and nothing seen in it is no session yet, but it runs.
  await page.goto(list);
  await expect(page.getByRole("main")).toContainText("No session yet.");
  await page.goto(`${server.url}/`);
  for (const room of ["know", "ahead", "review"]) {
    await page.goto(`${server.url}/horses/${horse}/${room}`);
    await expect(page.getByText("A session is running.")).toBeVisible();
  }
  await page.goto(`${server.url}/`);
  const line = page.getByRole("listitem").filter({ hasText: "Abel Opened" });
  await line.getByRole("link", { name: "Running: go on with it" }).click();
  await expect(page).toHaveURL(running);
  await pad(page, "got it").click();
  await allSaved(page);
  await page.goto(`${server.url}/horses/${horse}/work`);
  await expect(page.getByRole("button", { name: "Open the recorder" })).toHaveCount(0);
  await expect(page.getByRole("region", { name: "Not finished" })).toContainText("Running");
  // A program that asks for a second without saying so is refused.
  const refused = await page.request.post(`${server.url}/api/sessions`, {
    data: { id: newId(), horse, ladder: null, person: null, place: null },
  });
  expect([refused.status(), ((await refused.json()) as { code: string }).code]).toEqual([409, "session-running"]);
  await page.getByRole("button", { name: "Begin another beside the running one" }).click();
  await startBlock(page);
  await expect(pad(page, "got it")).toBeVisible();
});

test("keyboard alone: each panel hands the focus on, Space holds wherever it is, and keys reach Tally, side, break and finish", async ({
  page,
  server,
}) => {
  const { horse } = await makeHorse(server.url, "By keys");
  await page.goto(`${server.url}/horses/${horse}/work`);
  await page.getByRole("button", { name: "Open the recorder" }).press("Enter");
  await page.getByRole("button", { name: "Skip", exact: true }).press("Enter");
  await expect(page.getByRole("button", { name: "Start the block" })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(pad(page, "got it")).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("block-count")).toContainText("1 met of 1");
  await page.keyboard.press("c");
  await expect(page.getByRole("button", { name: "Timed" })).toHaveAttribute("aria-pressed", "true");
  // The focus is walked on by Tab; Space holds the ask all the same.
  await page.keyboard.press("Tab");
  await page.keyboard.press("Tab");
  await page.keyboard.down("Space");
  await expect(page.getByTestId("dwell")).toBeVisible();
  await page.keyboard.press("g");
  await page.keyboard.up("Space");
  await expect(page.getByTestId("block-count")).toContainText("2 met of 2");
  await page.keyboard.press("g");
  await expect(page.getByRole("alert").filter({ hasText: "Nothing was asked: counted as an offer." })).toBeVisible();
  await page.keyboard.press("s");
  await expect(page.getByTestId("where")).toContainText("right side");
  await page.keyboard.press("b");
  await expect(pad(page, "go on")).toBeVisible();
  await page.keyboard.press("b");
  await page.keyboard.press("q");
  await page.getByRole("button", { name: "Finish the session" }).press("Enter");
  await expect(page.getByRole("button", { name: "Save, to the review" })).toBeFocused();
  await page.keyboard.press("Enter");
  await page.waitForURL(/\/review\//);
});

test("a restriction given during a session reaches the open recorder, and its pads obey; not sound goes on being said", async ({
  page,
  server,
}) => {
  const { horse } = await makeHorse(server.url, "Stopped");
  await page.goto(`${server.url}/horses/${horse}/work`);
  await page.getByRole("button", { name: "Open the recorder" }).click();
  const panel = page.getByTestId("preflight");
  await panel.getByRole("button", { name: "sound", exact: true }).click();
  await panel.getByRole("button", { name: "✓ sound" }).click();
  await panel.getByRole("button", { name: "Noted, go on" }).click();
  await page.getByRole("button", { name: "Start the block" }).click();
  await expect(page.getByTestId("where")).toContainText("Not sound: no work, call a veterinarian.");
  await pad(page, "got it").click();
  await expect(page.getByTestId("block-count")).toContainText("1 met of 1");
  const given = await page.request.post(`${server.url}/api/horses/${horse}/restrictions`, {
    data: { kind: "no-work", amount: null, detail: "", reason: "lame", given_by: "veterinarian", from_day: null, until_day: null },
  });
  expect(given.status()).toBe(201);
  await expect(async () => {
    await pad(page, "got it").click();
    await expect(
      page
        .getByRole("alert")
        .filter({ hasText: /Not today\..*lame/ })
        .first(),
    ).toBeVisible({ timeout: 500 });
  }).toPass({ timeout: 12_000 });
  // The advice is Stop with its reason, and the pads are dimmed.
  await expect(page.getByTestId("word")).toContainText("Stop");
  await expect(page.getByTestId("word")).toContainText("lame");
  await expect(page.locator("[data-stopped]")).toBeVisible();
  await page.reload();
  await expect(page.getByTestId("where")).toContainText("Not sound: no work, call a veterinarian.");
});

test("a line for next time stands until its ladder is worked again", async ({ page, server }) => {
  const made = await makeHorse(server.url, "Next time");
  const block = (ladder: string, behaviour: string) => ({
    block: 1,
    behaviour,
    ladder,
    version: 1,
    rung: 1,
    criterion: { sentence: "Any answer." },
    side: "L",
    kind: "work",
  });
  const finished = async (daysAgo: number, ladder: string, note: string | null) => {
    const id = newId();
    await makeSession(server.url, { ...made, ladder }, id);
    await postTaps(server.url, id, Date.now() - daysAgo * 24 * HOUR, [
      [0, "session.start", { horse: "Next time", method: "combined" }],
      [0, "block.start", block(ladder, "x")],
      [5, "trial", { outcome: "met" }],
      [9, "session.end", {}],
      ...(note === null ? [] : ([[12, "note", { text: note, about: "next" }]] as [number, string, object][])),
    ]);
  };
  await finished(6, made.ladder, "Begin on the right.");
  // Worked on something else meanwhile: nothing was named, so the line stands.
  const free = newId();
  await makeSession(server.url, { ...made, ladder: made.ladder }, free);
  await postTaps(server.url, free, Date.now() - 4 * 24 * HOUR, [
    [0, "session.start", { horse: "Next time", method: "combined" }],
    [0, "block.start", { block: 1, behaviour: "grooming", rung: 1, criterion: { sentence: "Any." }, side: "", kind: "work" }],
    [5, "trial", { outcome: "met" }],
    [9, "session.end", {}],
  ]);
  await page.goto(`${server.url}/horses/${made.horse}/work`);
  await expect(page.getByText("Begin on the right.")).toBeVisible();
  await finished(1, made.ladder, null);
  await page.goto(`${server.url}/horses/${made.horse}/work`);
  await expect(page.getByText("Begin on the right.")).toHaveCount(0);
});
