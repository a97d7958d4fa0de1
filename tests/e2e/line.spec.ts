import { analyseEvents, analyseTrialsText, readEventsCsv, readSessionsCsv } from "@/core/formats";
import { allSaved, expect, finishSession, fromMore, makeHorse, noAxeFindings, openRecorder, pad, startBlock, test } from "./fixtures";

const SIZES = [
  { name: "phone", width: 390, height: 844 },
  { name: "laptop", width: 1280, height: 800 },
] as const;

for (const { name: size, width, height } of SIZES) {
  test(`the whole line on a ${size}: add a horse, plan, work, review, go ahead`, async ({ page, server }) => {
    await page.setViewportSize({ width, height });
    await page.goto(server.url);
    await page.getByRole("link", { name: "Add a horse" }).first().click();
    await page.getByRole("button", { name: "Add the horse" }).click();
    await expect(page.getByRole("alert").first()).toContainText("Name is missing");
    await page.getByLabel("Name").fill("D’Árcy <i>Bo</i>");
    await page.getByLabel("Birth year").fill("2022");
    await page.getByLabel("Mass, kg").fill("5000");
    await page.getByRole("button", { name: "Add the horse" }).click();
    await expect(page.getByText("Mass: from 20 to 1500 kg.")).toBeVisible();
    await page.getByLabel("Mass, kg").fill("430");
    await page.getByRole("button", { name: "Add the horse" }).click();
    await expect(page.getByRole("heading", { level: 1 })).toHaveText("D’Árcy <i>Bo</i>");
    await expect(page.getByText("Under five years")).toBeVisible();
    if (size === "phone") await noAxeFindings(page);
    await page.getByRole("link", { name: "Age and limits" }).click();
    await page.getByRole("button", { name: "Add a restriction" }).click();
    await page.getByLabel("Why", { exact: true }).first().fill("until seen by the veterinarian");
    await page.getByRole("button", { name: "Add the restriction" }).click();
    await expect(page.getByText("No circling: until seen by the veterinarian.")).toBeVisible();
    if (size === "phone") await noAxeFindings(page);
    await page.getByRole("link", { name: "Today" }).click();

    await page.getByRole("link", { name: "Plan the first one" }).click();
    await page.getByRole("button", { name: "Make the ladder" }).click();
    await expect(page.getByText("Behaviour is missing.").first()).toBeVisible();
    await page.getByRole("textbox", { name: "Behaviour", exact: true }).fill("Backs from a touch");
    await page.getByLabel("Add a strand").selectOption("steps");
    await page.getByRole("radio", { name: /Rung 2/ }).click();
    await page.getByRole("button", { name: "Add a rung after 2" }).click();
    await page.getByLabel("steps, rung 3").fill("2");
    await page.getByLabel("Phase 1, name").fill("breath");
    if (size === "phone") await noAxeFindings(page);
    await page.getByRole("button", { name: "Make the ladder" }).click();
    await expect(page.getByRole("heading", { level: 1 })).toContainText("Backs from a touch");
    await expect(page.getByRole("radio", { name: /Rung 3/ })).toBeVisible();
    await expect(page.getByText("A horse that gets it 6 times in 10 passes this rule within 20 tries 17 % of the time")).toBeVisible();
    await page.getByRole("radio", { name: /Rung 1/ }).press("ArrowRight");
    await expect(page.getByRole("radio", { name: /Rung 2/ })).toHaveAttribute("aria-checked", "true");
    if (size === "phone") await noAxeFindings(page);

    await page.getByRole("link", { name: "Work", exact: true }).click();
    // The first time there is nobody to choose; later the last ones stand first, and a new one can be named.
    for (const [label, name] of [
      ["Handler", `Wenna on a ${size}`],
      ["Place", `Slate pen, ${size}`],
    ] as const) {
      if ((await page.getByLabel(label, { exact: true }).evaluate((e) => e.tagName)) === "SELECT") {
        await page.getByLabel(label, { exact: true }).selectOption("new");
        await page.getByLabel(`${label}, new name`).fill(name);
      } else await page.getByLabel(label, { exact: true }).fill(name);
    }
    if (size === "phone") await noAxeFindings(page);
    await page.getByRole("button", { name: "Open the recorder" }).click();
    await expect(page.getByText("No circling: until seen")).toBeVisible();
    if (size === "phone") await noAxeFindings(page);
    await startBlock(page);

    await expect(page.getByTestId("criterion")).toContainText("Any movement within 10 s.");
    for (const word of ["got it", "got it", "try", "other", "no answer"]) await pad(page, word).click();
    await expect(page.getByTestId("block-count")).toContainText("2 met of 5");
    await pad(page, "undo").click();
    await expect(page.getByTestId("block-count")).toContainText("2 met of 4");
    await pad(page, "relaxes").click();
    await pad(page, "food +1").click();
    await page.getByRole("button", { name: "Timed" }).click();
    await page.keyboard.down("Space");
    await expect(pad(page, "let go to release")).toBeVisible();
    await page.keyboard.press("2");
    await page.keyboard.press("g");
    await page.keyboard.up("Space");
    await page.keyboard.press("m");
    await page.keyboard.press("f");
    await expect(page.getByTestId("block-count")).toContainText("3 met of 5");
    if (size === "phone") await noAxeFindings(page);
    await pad(page, "to right").click();
    await expect(page.getByTestId("where")).toContainText("right side");
    await fromMore(page, "break");
    await expect(pad(page, "go on")).toBeVisible();
    await pad(page, "go on").click();
    await page.getByRole("button", { name: "Tally" }).click();
    for (let i = 0; i < 8; i++) await pad(page, "got it").click();
    await allSaved(page);
    await page.keyboard.press("?");
    await expect(page.getByRole("dialog", { name: "Keys and sounds" })).toBeVisible();
    await page.keyboard.press("Escape");
    await finishSession(page, { "What was better": "Softer <script>alert(1)</script> today" });

    await expect(page.getByTestId("met")).toHaveText("11 of 13");
    await expect(page.getByText("Softer <script>alert(1)</script> today")).toBeVisible();
    await expect(page.getByRole("heading", { name: "Blocks", exact: true })).toBeVisible();
    if (size === "phone") await noAxeFindings(page);
    await page.getByRole("button", { name: "Closer" }).click();
    await page.getByRole("button", { name: "Whole session" }).click();
    await page.getByText("Every trial in words").click();
    await page.getByRole("button", { name: "How met is computed" }).click();
    await expect(page.getByText("Wilson 1927")).toBeVisible();
    await page.keyboard.press("Escape");
    await page.getByLabel("Add a note").fill("Another word");
    await page.getByRole("button", { name: "Add", exact: true }).click();
    await expect(page.getByText("Another word", { exact: true })).toBeVisible();

    const session = page.url().split("/").at(-1);
    const read = async (file: string) => (await page.request.get(`${server.url}/api/sessions/${session}/${file}`)).text();
    const given = readSessionsCsv(await read("sessions.csv"));
    const analysed = analyseTrialsText(await read("trials.csv"), { workSeconds: given.workSeconds });
    expect(analysed.rows_refused).toEqual([]);
    expect([analysed.overall.met, analysed.trials]).toEqual([11, 13]);
    expect(await page.getByTestId("asks-per-min").textContent()).toBe(analysed.overall.asks_per_min?.toFixed(2));
    expect(analyseEvents(readEventsCsv(await read("events.csv"))).overall).toEqual(analysed.overall);

    await page.getByRole("link", { name: "Ahead", exact: true }).click();
    await expect(page.getByText("Start on rung 2")).toBeVisible();
    if (size === "phone") await noAxeFindings(page);
  });
}

test("the word: ten of ten says Raise, and taking it goes a rung up", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Raiser");
  await openRecorder(page, server.url, horse);
  await expect(page.getByText("Ten more right in a row would get you there.")).toBeVisible();
  for (let i = 0; i < 10; i++) await pad(page, "got it").click();
  await expect(page.getByText("Up", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: "To rung 2" }).click();
  await expect(page.getByTestId("criterion")).toContainText("Weight shift");
  for (let i = 0; i < 3; i++) await pad(page, "other").click();
  await expect(page.getByText("Go back", { exact: true })).toBeVisible();
  await page.keyboard.press("w");
  await expect(page.getByTestId("criterion")).toContainText("Any movement");
  await finishSession(page);
  await expect(page.getByRole("heading", { name: "The advice" })).toBeVisible();
  await expect(page.getByText("Taken.")).toHaveCount(2);
});

test("a tap of met that falls short counts as a try, and one press overrides it", async ({ page, server }) => {
  const { horse } = await makeHorse(server.url, "Checker", {
    strands: [{ id: "lightness", key: "lightness", name: "cue", kind: "number", unit: "phase", levels: [], harder: "less" }],
    rungs: [{ values: { lightness: 1 } }, { values: { lightness: 1 } }],
  });
  await openRecorder(page, server.url, horse);
  await page.keyboard.press("3");
  await page.keyboard.press("g");
  await expect(page.getByText("It took line; the rung asks for body. Not rewarded.", { exact: true })).toBeVisible();
  await expect(page.getByTestId("row-label")).toContainText("counted as a try");
  await expect(page.getByTestId("block-count")).toContainText("0 met of 1");
  await page.getByRole("button", { name: "Count it as met" }).click();
  await expect(page.getByTestId("block-count")).toContainText("1 met of 1");
  await pad(page, "undo").click();
  await expect(page.getByTestId("block-count")).toContainText("0 met of 1");
});

test("two recorders on one session see each other and undo only their own", async ({ browser, server }) => {
  const { horse } = await makeHorse(server.url, "Shared");
  const first = await (await browser.newContext()).newPage();
  await openRecorder(first, server.url, horse);
  await pad(first, "got it").click();
  await allSaved(first);
  const second = await (await browser.newContext()).newPage();
  await second.goto(first.url());
  await expect(second.getByTestId("block-count")).toContainText("1 met of 1");
  await pad(second, "try").click();
  await expect(first.getByTestId("block-count")).toContainText("1 met of 2");
  await pad(second, "undo").click();
  await pad(second, "undo").click();
  await expect(second.getByText("Nothing left to undo on this device.")).toBeVisible();
  await expect(first.getByTestId("block-count")).toContainText("1 met of 1");
});
