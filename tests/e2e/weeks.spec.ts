import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { v4 as newId } from "uuid";
import { analyseTrialsText } from "@/core/formats";
import { strandFromCatalogue } from "@/core/strands";
import {
  analyse,
  expect,
  exported,
  finishSession,
  fromMore,
  makeHorse,
  makeSession,
  noAxeFindings,
  openRecorder,
  pad,
  payloads,
  postTaps,
  test,
} from "./fixtures";

const DAY_MS = 86_400_000;

/** A horse with a session a day: each a row of answers (m met, x something else) on a rung, one side then the other; the left first unless said. */
async function workedFor(
  url: string,
  name: string,
  days: readonly {
    readonly left: string;
    readonly right: string;
    readonly rung?: number;
    readonly wind?: string;
    readonly rightFirst?: boolean;
  }[],
) {
  const made = await makeHorse(url, name);
  const ids: string[] = [];
  for (const [i, { left, right, rung = 1, wind, rightFirst = false }] of days.entries()) {
    const [first, second] = rightFirst ? ["R", "L"] : ["L", "R"];
    const id = newId();
    ids.push(id);
    await makeSession(url, made, id);
    const block = (number: number, side: string) => ({
      block: number,
      behaviour: "Stands on the plate",
      ladder: made.ladder,
      version: 1,
      rung,
      criterion: { sentence: "Any answer.", phases: ["body", "point", "line"] },
      side,
      kind: "work",
      planned: 6,
    });
    const asks = (row: string, from: number): (readonly [number, string, object])[] =>
      [...row].map((one, at) => [
        from + at * 8,
        "trial",
        { outcome: one === "m" ? "met" : "miss", phase: at % 2 === 0 ? 1 : 2, latency_s: 1 + at / 10, logged: "timed", reinforced: 1 },
      ]);
    await postTaps(url, id, Date.now() - (days.length - i) * DAY_MS, [
      [0, "session.start", { horse: name, method: "combined" }],
      [0, "preflight", wind === undefined ? { skipped: true } : { wind }],
      [0, "block.start", block(1, first ?? "")],
      ...asks(rightFirst ? right : left, 2),
      [100, "block.end", {}],
      [100, "block.start", block(2, second ?? "")],
      ...asks(rightFirst ? left : right, 102),
      [200, "block.end", {}],
      [200, "session.end", {}],
    ]);
  }
  return { ...made, ids, review: `${url}/horses/${made.horse}/review` };
}

test("a behaviour over weeks: figures, charts by keyboard and as tables, files, the trials they rest on", async ({ page, server }) => {
  const days = Array.from({ length: 9 }, (_, i) => ({
    left: "mxmxmx",
    right: "mmmmxm",
    rung: i < 5 ? 1 : 2,
    ...(i === 6 ? { wind: "gusts" } : {}),
  }));
  const { review, horse } = await workedFor(server.url, "Nine days", days);
  await page.goto(`${review}/weeks`);
  await expect(page.getByText("9 sessions and 108 asks, the last six weeks.")).toBeVisible();
  await expect(page.getByTestId("weeks-met")).toHaveText("72 of 108");

  // The chart is walked by keyboard, each point said in words; Numbers shows the same as a table.
  const chart = page.getByRole("group", { name: /^Met, 9 points/ });
  const figure = page.locator("figure").filter({ has: chart });
  await chart.focus();
  await page.keyboard.press("Home");
  await expect(figure.locator("[aria-live]")).toContainText("8 of 12, that day");
  await page.keyboard.press("End");
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("ArrowLeft");
  await expect(figure.locator("[aria-live]")).toContainText("gusts");
  await figure.getByRole("button", { name: "Numbers of Met" }).click();
  await expect(figure.getByRole("row")).toHaveCount(10);
  const waiting = page.waitForEvent("download");
  await figure.getByRole("button", { name: "File of Met" }).click();
  const folder = mkdtempSync(join(tmpdir(), "deft-weeks-"));
  await (await waiting).saveAs(join(folder, "met.csv"));
  const lines = readFileSync(join(folder, "met.csv"), "utf8").trim().split("\r\n");
  expect(lines[0]).toBe('day,met,"met, low","met, high",what was special');
  expect(lines).toHaveLength(10);
  const picture = page.waitForEvent("download");
  await figure.getByRole("button", { name: "Picture of Met" }).click();
  await (await picture).saveAs(join(folder, "met.png"));
  expect(readFileSync(join(folder, "met.png")).subarray(1, 4).toString()).toBe("PNG");
  await chart.focus();
  await page.keyboard.press("Home");
  await page.keyboard.press("Enter");
  await page.waitForURL(/\/review\/[0-9a-f-]{36}$/);

  // A figure opens to the trials it rests on, all of them.
  await page.goto(`${review}/weeks`);
  await page.getByRole("button", { name: "How at the lightest cue is computed" }).click();
  await page.getByRole("link", { name: "The trials it rests on" }).click();
  await expect(page.getByText("72 trials, 72 met.")).toBeVisible();
  await expect(page.getByRole("row")).toHaveCount(73);

  // Any span, and the same figures as analyse gives on the exported file.
  await page.goto(`${review}/weeks?span=all`);
  const half = (await page.getByTestId("weeks-half").textContent())?.trim();
  for (const name of ["trials.csv", "sessions.csv"])
    writeFileSync(join(folder, name), await (await page.request.get(`${server.url}/api/horses/${horse}/files/${name}?span=all`)).text());
  const { overall, trend } = analyse([join(folder, "trials.csv"), "--sessions", join(folder, "sessions.csv")]) as never as {
    overall: { met: number; n: number; latency: { half_answered_s: number }; lightness: number };
    trend: { response_rate_per_week_factor: number };
  };
  expect([overall.met, overall.n]).toEqual([72, 108]);
  expect(half).toBe(`${overall.latency.half_answered_s.toFixed(2)} s`);
  await expect(page.getByTestId("weeks-lightness")).toHaveText(`${Math.round(overall.lightness * 100)} %`);
  expect(trend.response_rate_per_week_factor).toBeCloseTo(1, 6);
  await page.goto(`${review}/weeks?by=asks`);
  await expect(page.getByRole("group", { name: /^Met of the last ten asks, 108 points/ })).toBeVisible();
});

test("sides, compare and moments say what ten days show and no more, and how often one looked", async ({ page, server }) => {
  const days = Array.from({ length: 10 }, (_, i) => ({ left: "mxxxmx", right: "mmmmmm", rightFirst: i % 2 === 1 }));
  // The left always first: warming up looks the same, and every screen says so.
  const always = await workedFor(
    server.url,
    "Always left first",
    days.map(({ left, right }) => ({ left, right })),
  );
  await page.goto(`${always.review}/sides`);
  await expect(page.getByTestId("sides-headline")).toHaveText("No side can be called weaker");
  await expect(page.getByText(/The left came first in 10 of 10 sessions, so the side and warming up/)).toBeVisible();
  await page.goto(`${server.url}/horses/${always.horse}/know`);
  await expect(page.getByRole("paragraph").filter({ hasText: "No side can be called weaker" })).toBeVisible();

  const { review } = await workedFor(server.url, "Lopsided", days);
  await page.goto(`${review}/sides`);
  await expect(page.getByTestId("sides-headline")).toHaveText("Left is weaker");
  await page.goto(`${review}/compare`);
  await page.getByRole("link", { name: "sides", exact: true }).click();
  await expect(page.getByTestId("compare-share")).toHaveText("B is met 67 points more often, compared within sessions 10 times.");
  await expect(page.getByText(/A: left/)).toBeVisible();
  const caution = page.getByText(/You have opened \d+ comparisons/);
  for (const by of ["half", "side", "session", "half"]) await page.goto(`${review}/compare?by=${by}`);
  await expect(page.getByTestId("compare-share")).toBeVisible();
  await expect(caution).toHaveCount(0);
  for (const span of ["14", "91", "365"]) await page.goto(`${review}/compare?by=side&span=${span}`);
  await expect(caution).toBeVisible();
  await noAxeFindings(page, "compare");
  await page.goto(`${review}/moments`);
  await expect(page.getByTestId("before-it-goes")).toHaveText("It did not leave, and there was no danger sign, in this span.");
});

test("try both: the order is drawn, what is due is said in the pen, and nothing is read into the first blocks", async ({
  page,
  server,
}) => {
  const { horse } = await makeHorse(server.url, "Both ways");
  await page.goto(`${server.url}/horses/${horse}/review/try-both`);
  await page.getByLabel("Blocks").selectOption("6");
  await expect(page.getByTestId("promise")).toContainText("So few blocks can show nothing");
  await page.getByRole("button", { name: "Draw the order" }).click();
  await expect(page.getByText("A: say what it is.")).toBeVisible();
  await page.getByLabel("Which question").selectOption("reinforcer");
  await page.getByLabel("Blocks").selectOption("10");
  await expect(page.getByTestId("promise")).toContainText("found eight times in ten");
  await page.getByLabel("Asks a block").fill("3");
  await page.getByRole("button", { name: "Draw the order" }).click();
  await page.waitForURL(/try-both\/[0-9a-f-]{36}/);
  const address = page.url();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("food or a scratch");
  await expect(page.getByTestId("try-result")).toContainText("0 of 10 blocks worked");
  const order = (await page.getByRole("img", { name: /^The order drawn/ }).getAttribute("aria-label"))?.match(/[AB](?=[,;])/g) ?? [];
  expect(order.filter((arm) => arm === "A")).toHaveLength(5);
  const way = order[0] === "A" ? "food" : "a scratch";
  await noAxeFindings(page, "try both");

  // In the pen it stands under more, and the block says what is tried.
  await page.setViewportSize({ width: 390, height: 664 });
  await openRecorder(page, server.url, horse);
  await fromMore(page, `try both 1 of 10: ${way}`);
  await expect(page.getByTestId("talk")).toContainText(`Trying 1 of 10: ${way}.`);
  // What the way changes changes the pads.
  await expect(pad(page, order[0] === "A" ? "food +1" : "scratch")).toBeVisible();
  for (const word of ["got it", "other", "got it"]) await pad(page, word).click();
  const starts = payloads(await exported(page, server.url), "block.start");
  expect(starts.at(-1)).toMatchObject({
    planned: 3,
    tries: { arm: order[0], n: 1, way, reinforcer: order[0] === "A" ? "food" : "scratch" },
  });
  await pad(page, "more").click();
  const second = order[1] === "A" ? "food" : "a scratch";
  await expect(page.getByRole("button", { name: `try both 2 of 10: ${second}` })).toBeVisible();
  // The block sheet and the start page say it too.
  const next = `Next is block 2 of 10: ${second}.`;
  await page.keyboard.press("Escape");
  await pad(page, "more").click();
  await page.getByRole("button", { name: "block", exact: true }).click();
  await expect(page.getByRole("dialog")).toContainText(next);
  await page.getByRole("button", { name: `Work block 2: ${second}` }).click();
  await expect(pad(page, order[1] === "A" ? "food +1" : "scratch")).toBeVisible();
  await pad(page, "undo").click();
  await finishSession(page);
  await page.waitForURL(/\/review\//);
  await page.goto(`${server.url}/horses/${horse}/work`);
  await expect(page.getByText(next)).toBeVisible();
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(address);
  await expect(page.getByTestId("try-result")).toContainText("1 of 10 blocks worked. What they show is said at the end");
  await expect(page.getByRole("row", { name: /^1 / })).toContainText("67 %");
  await page.getByText("End it here").click();
  await page.getByLabel("Why").fill("stung by a wasp");
  await page.getByRole("button", { name: "End the experiment" }).click();
  await expect(page.getByTestId("try-result")).toHaveText(
    "Cut short after 1 of 10 blocks. Not enough was worked to hold one against the other.",
  );
  await expect(page.getByText("Ended: stung by a wasp")).toBeVisible();
});

test("a session: the ribbon is narrowed, a press opens the trial to be put right, parts stand side by side", async ({ page, server }) => {
  const { review, ids } = await workedFor(server.url, "Ribboned", [{ left: "mmxmmm", right: "mxmmmm" }]);
  await page.goto(`${review}/${ids[0]}`);
  const ribbon = page.getByTestId("session-ribbon");
  await ribbon.getByLabel("Answer").selectOption("miss");
  await expect(ribbon.getByRole("status")).toHaveText("2 of 12 shown");
  await ribbon.getByLabel("Side").selectOption("R");
  await expect(ribbon.getByRole("status")).toHaveText("1 of 12 shown");
  await ribbon.getByLabel("Side").selectOption("");
  await ribbon.getByLabel("Answer").selectOption("");
  await expect(page.getByTestId("within")).toContainText("12 of 12 asks planned.");
  await expect(page.getByTestId("within").getByRole("columnheader", { name: "last third" })).toBeVisible();
  // The third answer is pressed where it stands on the line.
  const drawing = ribbon.getByRole("img");
  const ring = drawing.locator("circle").nth(2);
  const box = await ring.boundingBox();
  if (box === null) throw new Error("the ring is drawn");
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
  const panel = page.getByTestId("put-right");
  await expect(panel.getByLabel("What", { exact: true })).toHaveValue("t2");
  await expect(panel.getByLabel("Answer")).toHaveValue("miss");
  await panel.getByLabel("Answer").selectOption("met");
  await panel.getByLabel("Why").fill("seen on film");
  await panel.getByRole("button", { name: "Put it right" }).click();
  await expect(page.getByTestId("met")).toHaveText("11 of 12");
  const waiting = page.waitForEvent("download");
  await ribbon.getByRole("button", { name: "Save the ribbon" }).click();
  const saved = join(mkdtempSync(join(tmpdir(), "deft-ribbon-")), "ribbon.svg");
  await (await waiting).saveAs(saved);
  expect(readFileSync(saved, "utf8")).toMatch(/^<svg(?=[^>]*xmlns).*<\/svg>$/s);
  expect(readFileSync(saved, "utf8")).not.toContain("var(--");
});

test("a spreadsheet with names of its own is mapped and remembered, brought in once, and what is no table is refused", async ({
  page,
  server,
}) => {
  const { horse } = await makeHorse(server.url, "From a table");
  const folder = mkdtempSync(join(tmpdir(), "deft-table-"));
  const file = (name: string, text: string | Uint8Array) => {
    writeFileSync(join(folder, name), text);
    return join(folder, name);
  };
  const rows = Array.from(
    { length: 12 },
    (_, i) => `2026-03-0${1 + (i % 3)},Stands on the plate,1,${i % 4 === 0 ? "nope" : "yes"},"=note ${i}"`,
  );
  const table = file("mine.csv", ["Datum,Exercise,Step,Ergebnis,Remarks", ...rows, "31-31-2026,Stands on the plate,1,yes,"].join("\n"));
  await page.goto(`${server.url}/in-out`);
  const choose = page.getByLabel("A file");
  await choose.setInputFiles(table);
  await page.getByLabel("Whose").selectOption({ label: "From a table" });
  await expect(page.getByRole("button", { name: "Look it through" })).toBeDisabled();
  await page.getByLabel("started_at").selectOption("Datum");
  await page.getByLabel("outcome").selectOption("Ergebnis");
  await noAxeFindings(page, "mapping");
  // It is read through first, and nothing of it is written: a session of it is nowhere.
  await page.getByRole("button", { name: "Look it through" }).click();
  await expect(page.getByTestId("import-dry")).toContainText("9 trials in 3 sessions would come in. 4 rows cannot be taken.");
  await noAxeFindings(page, "looked through");
  const listed = await page.request.get(`${server.url}/horses/${horse}/review`);
  expect(await listed.text()).not.toContain("Stands on the plate");
  await page.getByRole("button", { name: "Bring it in" }).click();
  const result = page.getByTestId("import-result");
  // Nobody said what “nope” means: those rows are refused with their lines, the others taken.
  await expect(result).toContainText("9 trials in 3 sessions brought in. 4 rows cannot be taken.");
  await result.getByText("the rows that cannot be taken").click();
  await expect(result).toContainText("line 2, outcome");
  await expect(result).toContainText("line 14, started_at");

  // The columns are remembered, the words asked for; the rows that are there already are not doubled.
  await choose.setInputFiles(table);
  await expect(page.getByLabel("started_at")).toHaveValue("Datum");
  await page.getByLabel("“nope”").selectOption("miss");
  await page.getByLabel("Whose").selectOption({ label: "From a table" });
  await page.getByRole("button", { name: "Look it through" }).click();
  await page.getByRole("button", { name: "Bring it in" }).click();
  await expect(result).toContainText("3 trials in 3 sessions brought in. 9 are here already. 1 row cannot be taken.");
  await page.goto(`${server.url}/horses/${horse}/review/weeks?span=all`);
  await expect(page.getByText("3 sessions and 12 asks, since the beginning.")).toBeVisible();
  await expect(page.getByTestId("weeks-met")).toHaveText("9 of 12");

  // Rows of other horses: matched by name, made new, or left out, each as it is said; semicolons and decimal commas.
  await page.goto(`${server.url}/in-out`);
  await choose.setInputFiles(
    file(
      "others.csv",
      [
        "Date;Horse;Exercise;Result;Latency",
        "2026-03-10;from a table;Sends;yes;1,5",
        "2026-03-10;Newcomer;Sends;yes;2,5",
        "2026-03-10;Nobody;Sends;no;",
      ].join("\n"),
    ),
  );
  await page.getByRole("button", { name: "Look it through" }).click();
  await expect(page.getByTestId("import-dry")).toContainText("2 rows of Newcomer, Nobody are left out.");
  await page.getByLabel("“Newcomer”").selectOption({ label: "a new horse" });
  // Said otherwise it is looked through again.
  await expect(page.getByRole("button", { name: "Bring it in" })).toHaveCount(0);
  await page.getByRole("button", { name: "Look it through" }).click();
  await expect(page.getByTestId("import-dry")).toContainText("2 trials in 2 sessions would come in. 1 row of Nobody is left out.");
  await page.getByRole("button", { name: "Bring it in" }).click();
  await expect(result).toContainText("2 trials in 2 sessions brought in. 1 row of Nobody is left out.");
  // A yard of more than thirty draws those in sight alone: the box finds any of them.
  await page.keyboard.press("/");
  await page.getByPlaceholder("A horse, a page, a ladder").fill("newcomer");
  await expect(page.getByRole("option", { name: /Newcomer horse/ })).toBeVisible();

  await page.goto(`${server.url}/in-out`);
  for (const [name, bytes, words] of [
    ["utf16.csv", Buffer.from("\ufeffa,b\r\n1,2", "utf16le"), "UTF-16"],
    ["one.csv", "words\nand no columns", "no columns parted by commas, semicolons or tabs"],
    ["picture.csv", Buffer.from([0, 1, 2, 3, 0]), "neither a package nor a table"],
    ["empty.csv", "", "The file is empty"],
  ] as const) {
    await choose.setInputFiles(file(name, bytes));
    await expect(page.getByRole("alert").filter({ hasText: words })).toBeVisible();
  }
});

test("the whole yard goes out as one file and in again with nothing doubled; a broken one changes nothing", async ({ page, server }) => {
  const { review } = await workedFor(server.url, "Travels", [{ left: "mmxmmm", right: "mxmmmm" }]);
  const yard = Buffer.from(await (await page.request.get(`${server.url}/api/package`)).body());
  const folder = mkdtempSync(join(tmpdir(), "deft-yard-"));
  const file = join(folder, "yard.zip");
  writeFileSync(file, yard);
  // analyse takes it as it takes the tables of every horse in it.
  const { horses } = (await (await page.request.get(`${server.url}/api/find`)).json()) as { horses: { id: string }[] };
  let [met, of] = [0, 0];
  for (const { id } of horses) {
    // In this process: a command for each horse of a full yard takes longer than the test may.
    const { overall } = analyseTrialsText(
      await (await page.request.get(`${server.url}/api/horses/${id}/files/trials.csv?span=all`)).text(),
    );
    met += overall.met;
    of += overall.n;
  }
  const { overall } = analyse([file]);
  expect([overall.met, overall.n]).toEqual([met, of]);
  await page.goto(`${server.url}/in-out`);
  await page.getByLabel("A file").setInputFiles(file);
  await page.getByRole("button", { name: "Bring it in" }).click();
  await expect(page.getByTestId("import-result")).toContainText("0 sessions and 0 taps brought in, 0 rows");
  writeFileSync(file, yard.subarray(0, Math.floor(yard.length * 0.7)));
  await page.getByLabel("A file").setInputFiles(file);
  await page.getByRole("button", { name: "Bring it in" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "Nothing of it was kept." })).toBeVisible();
  await page.goto(`${review}/weeks`);
  await expect(page.getByTestId("weeks-met")).toHaveText("10 of 12");
});

test("the month is a sheet for the trainer and a beginning of words for the owner", async ({ page, server }) => {
  const { review } = await workedFor(server.url, "Monthly", [{ left: "mmmmmm", right: "mmmmmm" }]);
  await page.addInitScript(() => {
    Object.assign(navigator, { share: (data: { text: string }) => Promise.resolve(Object.assign(window, { shared: data.text })) });
  });
  await page.goto(`${review}/month`);
  const none = page.getByText(/^Nothing was recorded in/);
  // On the first of a month yesterday lies in the month before.
  if (await none.isVisible()) await page.getByRole("link", { name: "the month before" }).click();
  await expect(page.getByText("What it can do")).toBeVisible();
  const text = page.getByLabel("Report for the owner");
  await expect(text).toHaveValue(/Monthly, .*1 session, 3 minutes in all/s);
  await text.fill("She stood well.");
  await page.getByRole("button", { name: "Share" }).click();
  await expect(page.getByText("Handed to the device.")).toBeVisible();
  expect(await page.evaluate(() => (window as never as { shared: string }).shared)).toBe("She stood well.");

  // On a phone the way between the parts begins at the one that is open.
  await page.setViewportSize({ width: 390, height: 664 });
  await page.reload();
  await expect(page.getByRole("navigation", { name: "Review" }).getByRole("link", { name: "Month" })).toBeInViewport({ ratio: 1 });
});

test("changes: whoever followed the word is told so, by what the recorder itself logs", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Follows", {
    strands: [strandFromCatalogue("steps", "steps")],
    rungs: [1, 2, 3].map((steps) => ({ values: { steps } })),
    mastery: { kind: "run", length: 5 },
  });
  await openRecorder(page, server.url, horse);
  for (const rung of [1, 2]) {
    for (let i = 0; i < 5; i++) await pad(page, "got it").click();
    await page.getByRole("button", { name: `To rung ${rung + 1}`, exact: true }).click();
    await expect(page.getByTestId("word")).toContainText("Start");
  }
  for (let i = 0; i < 5; i++) await pad(page, "got it").click();
  await finishSession(page);
  // A step goes in where the word was said on the new rung as well: the recorder's own Stay is none about going there.
  expect(payloads(await exported(page, server.url), "word").map(({ word }) => word)).toEqual(expect.arrayContaining(["Stay", "Raise"]));
  await page.goto(`${server.url}/horses/${horse}/review/changes`);
  await expect(page.getByText("You never went up before the app said so.")).toBeVisible();
  await expect(page.getByText("You went up before the app said so every time.")).toHaveCount(0);
});
