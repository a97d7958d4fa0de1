import { v4 as newId } from "uuid";
import { evidence, expect, makeHorse, makeSession, noAxeFindings, postTaps, test } from "./fixtures";

test.describe.configure({ mode: "parallel" });

/** A finished session of two blocks: four answers on the left, two on the right. */
async function worked(url: string, name: string) {
  const made = await makeHorse(url, name);
  const id = newId();
  await makeSession(url, made, id);
  const block = (number: number, side: string) => ({
    block: number,
    behaviour: "Stands on the plate",
    ladder: made.ladder,
    version: 1,
    rung: 1,
    criterion: { sentence: "Any answer.", phases: ["body", "point", "line"], max_phase: 1 },
    side,
    kind: "work",
  });
  await postTaps(url, id, Date.now() - 3 * 3_600_000, [
    [0, "session.start", { horse: name, method: "combined" }],
    [0, "block.start", block(1, "L")],
    [10, "trial", { outcome: "met", phase: 1 }],
    [20, "trial", { outcome: "met", phase: 3 }],
    [30, "trial", { outcome: "miss", phase: 1 }],
    [40, "trial", { outcome: "met", phase: 1 }],
    [60, "block.end", {}],
    [60, "block.start", block(2, "R")],
    [70, "trial", { outcome: "met", phase: 1 }],
    [80, "trial", { outcome: "try", phase: 1 }],
    [90, "block.end", {}],
    [90, "session.end", {}],
    [95, "note", { text: "Shorter next time.", about: "next" }],
  ]);
  return { ...made, id, review: `${url}/horses/${made.horse}/review/${id}` };
}

test("a trial, a block, a note and the session itself are put right or struck with a reason, and come back", async ({ page, server }) => {
  const { review, id, ladder, horse } = await worked(server.url, "Righted");
  await page.goto(review);
  await expect(page.getByRole("main")).toContainText("6 asks");
  const panel = page.getByTestId("put-right");
  await panel.getByText("Put something right").click();
  await noAxeFindings(page, "put right");
  const what = panel.getByLabel("What", { exact: true });
  const save = panel.getByRole("button", { name: "Put it right" });

  // The second answer was tapped with the wrong cue: at the lightest it is met.
  expect(await evidence(server.url, id)).toEqual(["met", "try", "miss", "met", "met", "try"]);
  await what.selectOption({ index: 4 });
  await panel.getByLabel("Cue", { exact: true }).selectOption("1");
  await expect(save).toBeDisabled();
  await panel.getByLabel("Why").fill("tapped wrong");
  await save.click();
  await expect(panel.getByRole("status")).toHaveText("Put right.");
  await expect.poll(() => evidence(server.url, id)).toEqual(["met", "met", "miss", "met", "met", "try"]);

  await what.selectOption({ index: 5 });
  await panel.getByLabel("Why").fill("was no ask");
  await panel.getByRole("button", { name: "Strike the trial" }).click();
  await expect.poll(() => evidence(server.url, id)).toEqual(["met", "met", "met", "met", "try"]);

  await expect(panel.getByRole("button", { name: "Bring back" })).toHaveCount(1);
  await what.selectOption({ index: 2 });
  await panel.getByLabel("Why").fill("that was another rung");
  await expect(panel).toContainText("go its 2 trials when it is struck");
  await panel.getByRole("button", { name: "Strike the block" }).click();
  await expect.poll(() => evidence(server.url, id)).toEqual(["met", "met", "met"]);
  await expect(panel.getByRole("button", { name: "Bring back" })).toHaveCount(2);
  await panel.getByRole("button", { name: "Bring back" }).last().click();
  await expect.poll(() => evidence(server.url, id)).toEqual(["met", "met", "met", "met", "try"]);

  await page.reload();
  await page.getByRole("button", { name: /Put the note in the bin/ }).click();
  await expect(page.getByText("Shorter next time.")).toHaveCount(0);

  // The handler and the time of the whole session.
  const began = await page.getByRole("heading", { level: 1 }).textContent();
  await page.getByTestId("put-right").getByText("Put something right").click();
  await panel.getByLabel("Begun").fill("2026-01-05T07:30");
  await panel.getByLabel("Why").fill("the phone's date was wrong");
  await save.click();
  await expect(page.getByRole("heading", { level: 1 })).not.toHaveText(began ?? "");
  await expect(page.getByRole("heading", { level: 1 })).toContainText("January 5");

  await page.goto(`${server.url}/bin`);
  await expect(page.getByRole("main")).toContainText("Shorter next time.");
  await noAxeFindings(page, "bin");
  await page.getByRole("button", { name: "Bring back" }).first().click();
  await expect(page.getByRole("status").filter({ hasText: "It is back." })).toBeVisible();
  await page.goto(review);
  await expect(page.getByText("Shorter next time.")).toBeVisible();
  expect(ladder + horse).not.toBe("");
});

test("a session moved to another horse counts there and not here; what is in the bin counts nowhere and comes back", async ({
  page,
  server,
}) => {
  const here = await worked(server.url, "Wrong horse");
  const there = await makeHorse(server.url, "Right horse");
  await page.goto(here.review);
  const panel = page.getByTestId("put-right");
  await panel.getByText("Put something right").click();
  await panel.getByLabel("Horse", { exact: true }).selectOption({ label: "Right horse" });
  await panel.getByLabel("Counts there for").selectOption({ label: "Stands on the plate" });
  await panel.getByLabel("Why").fill("opened for the wrong one");
  await panel.getByRole("button", { name: "Put it right" }).click();
  await expect(page).toHaveURL(new RegExp(`/horses/${there.horse}/review/`));
  await expect(page.getByText(/^Moved here from Wrong horse .*: opened for the wrong one\.$/)).toBeVisible();
  await page.goto(`${server.url}/horses/${here.horse}/review`);
  await expect(page.getByRole("main")).toContainText("No session yet.");
  await page.goto(`${server.url}/horses/${there.horse}/shape/${there.ladder}`);
  await expect(page.getByRole("region", { name: "Rung 1" })).toContainText("of 6");

  await page.goto(`${server.url}/horses/${there.horse}/know/edit`);
  await page.getByRole("button", { name: "Put Right horse in the bin" }).click();
  const asked = page.getByRole("alertdialog");
  await expect(asked).toContainText("With it go 1 ladder and 1 session. It can be brought back for 30 days.");
  await asked.getByRole("button", { name: "Put in the bin" }).click();
  await expect(page).toHaveURL(`${server.url}/`);
  await expect(page.getByRole("link", { name: "Right horse" })).toHaveCount(0);
  expect((await page.request.get(`${server.url}/horses/${there.horse}/know`)).status()).toBe(404);
  await page.getByRole("link", { name: "Bin" }).click();
  const line = page.getByRole("listitem").filter({ hasText: "Right horse" });
  await expect(line).toContainText("With it go 1 ladder and 1 session.");
  await line.getByRole("button", { name: "Bring back" }).click();
  await expect(page.getByRole("status").filter({ hasText: "It is back." })).toBeVisible();
  await page.goto(`${server.url}/horses/${there.horse}/shape/${there.ladder}`);
  await expect(page.getByRole("region", { name: "Rung 1" })).toContainText("of 6");

  // A ladder is put away with its evidence, and taken up again.
  await page.getByRole("button", { name: "Put it away" }).click();
  await expect(page.getByText("Put away: it is offered neither at work nor ahead.")).toBeVisible();
  await page.goto(`${server.url}/horses/${there.horse}/work`);
  await expect(page.getByRole("radio", { name: /Stands on the plate/ })).toHaveCount(0);
  await page.goto(`${server.url}/horses/${there.horse}/shape/${there.ladder}`);
  await page.getByRole("button", { name: "Take it up again" }).click();
  await expect(page.getByRole("button", { name: "Put it away" })).toBeVisible();
});
