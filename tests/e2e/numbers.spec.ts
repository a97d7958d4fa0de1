import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { randomSession } from "../support/random-session";
import { analyse, expect, makeHorse, makeSession, test } from "./fixtures";

const fixed = (value: number | null | undefined, places: number, unit = "") =>
  value === null || value === undefined ? "–" : `${value.toFixed(places)}${unit}`;

// Undo, corrections, tally and timed mixed, breaks, reloads, two recorders: see the generator.
// Forty more seeds go through the same comparison without a browser: core/record/derived.property.test.ts.
for (const seed of [101, 404]) {
  test(`seed ${seed}: the numbers on screen are those of analyse on the exported files`, async ({ page, server }) => {
    const { id, events } = randomSession(seed, Date.now() - 86_400_000);
    await makeSession(server.url, await makeHorse(server.url, `Seed ${seed}`), id);
    const made = (await (await fetch(`${server.url}/api/find`)).json()) as { horses: { id: string; name: string }[] };
    const horse = made.horses.find(({ name }) => name === `Seed ${seed}`)?.id ?? "";
    const { store } = (await (await fetch(`${server.url}/api/clock`)).json()) as { store: string };
    // Both devices send, out of order and some of it twice, as after a bad network.
    const shuffled = [...events].sort((a, b) => (a.id < b.id ? -1 : 1));
    for (const part of [shuffled.slice(40), shuffled.slice(0, 60)]) {
      const response = await fetch(`${server.url}/api/events`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ store, recorder: "any", clocks: {}, events: part }),
      });
      expect(response.status, await response.clone().text()).toBe(200);
    }
    await page.goto(`${server.url}/horses/${horse}/review/${id}`);
    const folder = mkdtempSync(join(tmpdir(), "deft-numbers-"));
    for (const name of ["trials.csv", "sessions.csv", "events.csv"]) {
      const waiting = page.waitForEvent("download");
      await page.getByRole("link", { name, exact: true }).click();
      await (await waiting).saveAs(join(folder, name));
    }
    const { overall, rows_refused } = analyse([join(folder, "trials.csv"), "--sessions", join(folder, "sessions.csv")]);
    expect(rows_refused).toEqual([]);
    const screen = async (name: string) => (await page.getByTestId(name).textContent())?.trim();
    expect(await screen("met")).toBe(`${overall.met} of ${overall.n}`);
    expect(await screen("asks-per-min")).toBe(fixed(overall.asks_per_min, 2));
    expect(await screen("responses-per-min")).toBe(fixed(overall.responses_per_min, 2));
    expect(await screen("reinforced-per-min")).toBe(fixed(overall.reinforced_per_min, 2));
    expect(await screen("latency-median")).toBe(
      overall.latency.half_answered_s === null ? "fewer than half" : fixed(overall.latency.half_answered_s, 2, " s"),
    );
    expect(await screen("release-lag")).toBe(fixed(overall.release_lag_s.median, 2, " s"));
    if (overall.wilson95 !== null)
      await expect(
        page.getByText(`could be ${Math.round(overall.wilson95[0] * 100)} to ${Math.round(overall.wilson95[1] * 100)} %`).first(),
      ).toBeVisible();
    // Over sessions events hold more than trials do; the measures are the same.
    const { over_sessions: byEvents, ...fromEvents } = analyse([join(folder, "events.csv")]);
    const { over_sessions: byTrials, ...fromTrials } = analyse([join(folder, "trials.csv"), "--sessions", join(folder, "sessions.csv")]);
    expect(fromEvents).toEqual(fromTrials);
    expect(byEvents?.map(({ sessions }) => sessions)).toEqual(byTrials?.map(({ sessions }) => sessions));
    rmSync(folder, { recursive: true, force: true });
  });
}

test("the command line ends with status 2 and one line where a file is not such a file", () => {
  const folder = mkdtempSync(join(tmpdir(), "deft-cli-"));
  const run = (name: string, content: string | Buffer) => {
    writeFileSync(join(folder, name), content);
    try {
      execFileSync("npm", ["run", "-s", "analyse", "--", join(folder, name)], { encoding: "utf8", stdio: ["ignore", "pipe", "pipe"] });
      return { status: 0, lines: 0 };
    } catch (error) {
      const { status, stderr } = error as { status: number; stderr: string };
      return { status, lines: stderr.split("\n").filter((line) => line !== "" && !line.startsWith("npm warn")).length };
    }
  };
  expect(run("empty.csv", "")).toEqual({ status: 2, lines: 1 });
  expect(run("other.csv", "a,b\n1,2\n")).toEqual({ status: 2, lines: 1 });
  expect(run("binary.csv", Buffer.from([0xff, 0xfe, 0x00, 0x9f]))).toEqual({ status: 2, lines: 1 });
  rmSync(folder, { recursive: true, force: true });
});
