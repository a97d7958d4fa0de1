import { v4 as newId } from "uuid";
import { ask } from "../support/api";
import { SessionWriter } from "../support/session-writer";
import { expect, makeHorse, makeSession, noAxeFindings, test } from "./fixtures";

test("a session of more taps than a page draws says so at once, and leads to its taps and a new one", async ({ page, server }) => {
  const horse = await makeHorse(server.url, "Long day");
  const session = newId();
  await makeSession(server.url, horse, session);
  const w = new SessionWriter(session, Date.now() - 4 * 3_600_000);
  const load = newId();
  w.add(0, "session.start", { horse: "Long day", method: "combined" }, "phone:t", load);
  w.add(
    1,
    "block.start",
    { block: 1, behaviour: "Stands on the plate", ladder: horse.ladder, version: 1, rung: 1, side: "L" },
    "phone:t",
    load,
  );
  for (let i = 0; i < 12_100; i++) w.add(2 + i, "trial", { outcome: i % 4 === 0 ? "miss" : "met", side: "L" }, "phone:t", load);
  const { store } = (await ask<{ store: string }>(server.url, "GET", "/api/clock")).value;
  const events = w.events.map((event) => ({ ...event, id: newId() }));
  for (let at = 0; at < events.length; at += 2000)
    expect(
      (await ask(server.url, "POST", "/api/events", { store, recorder: "phone:t", clocks: {}, events: events.slice(at, at + 2000) }))
        .status,
    ).toBe(200);
  for (const path of [`/horses/${horse.horse}/review/${session}`, `/horses/${horse.horse}/work/${session}`]) {
    await page.goto(`${server.url}${path}`);
    await expect(page.getByRole("heading", { name: "A very long session" })).toBeVisible();
    // Not one of its taps is in the page: drawn, they would be megabytes.
    expect((await page.content()).length).toBeLessThan(300_000);
    await expect(page.getByText("It holds 12102 taps")).toBeVisible();
    await noAxeFindings(page, path);
  }
  await page.getByRole("link", { name: "Begin a new session" }).click();
  await expect(page).toHaveURL(new RegExp(`/horses/${horse.horse}/work$`));
});
