import { execFileSync } from "node:child_process";
import AxeBuilder from "@axe-core/playwright";
import { test as base, expect, type Page } from "@playwright/test";
import { v4 as newId } from "uuid";
import { type AnalyseOutput, readEventsCsv } from "@/core/formats";
import type { LadderPlan } from "@/core/ladder";
import type { SessionEvent } from "@/core/schemas";
import { emptyDraft } from "@/tests/support/plan";
import { freePort, TestServer } from "../support/server";

/** A horse with a ladder, made over the routes. */
export interface MadeHorse {
  readonly horse: string;
  readonly ladder: string;
}

interface Worker {
  readonly server: TestServer;
  readonly demo: TestServer;
}

interface Fixtures {
  /** Fails the test where a page reports an error, breaks its policy, or asks another machine for anything. */
  readonly quiet: undefined;
}

export const test = base.extend<Fixtures, Worker>({
  server: [
    // biome-ignore lint/correctness/noEmptyPattern: the runner wants the pattern
    async ({}, use) => {
      const server = new TestServer(await freePort());
      await server.start();
      await use(server);
      await server.stop();
    },
    { scope: "worker", timeout: 240_000 },
  ],
  demo: [
    // biome-ignore lint/correctness/noEmptyPattern: the runner wants the pattern
    async ({}, use) => {
      const server = new TestServer(await freePort(), "demo");
      await server.start();
      await use(server);
      await server.stop();
    },
    { scope: "worker", timeout: 240_000 },
  ],
  page: async ({ page }, use) => {
    // A press before the page has come alive is lost: every visit waits for it.
    const go = page.goto.bind(page);
    page.goto = async (url, options) => {
      const response = await go(url, options);
      await page.locator("html[data-ready]").waitFor({ state: "attached" });
      return response;
    };
    await use(page);
  },
  quiet: [
    async ({ context }, use) => {
      const complaints: string[] = [];
      context.on("page", (page) => {
        page.on("pageerror", (error) => complaints.push(error.message));
        page.on("console", (message) => {
          if (message.type() === "error" && !/ERR_INTERNET_DISCONNECTED|ERR_CONNECTION|Failed to load resource/.test(message.text()))
            complaints.push(message.text());
        });
        page.on("request", (request) => {
          const { hostname, protocol } = new URL(request.url());
          if (/^https?:$/.test(protocol) && !["127.0.0.1", "localhost"].includes(hostname)) complaints.push(`asked ${request.url()}`);
        });
      });
      await use(undefined);
      expect(complaints).toEqual([]);
    },
    { auto: true },
  ],
});

export { expect };

async function made(url: string, path: string, body: unknown): Promise<string> {
  const response = await fetch(`${url}${path}`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify(body),
  });
  expect(response.status, await response.clone().text()).toBe(201);
  return ((await response.json()) as { id: string }).id;
}

export async function makeHorse(url: string, name: string, change: Partial<LadderPlan> = {}): Promise<MadeHorse> {
  const horse = await made(url, "/api/horses", { name });
  const ladder = await made(url, "/api/ladders", {
    horse,
    behaviour: { ...emptyDraft().behaviour, name: "Stands on the plate" },
    plan: { ...emptyDraft().plan, ...change },
  });
  return { horse, ladder };
}

export async function makeSession(url: string, { horse, ladder }: MadeHorse, id: string): Promise<void> {
  await made(url, "/api/sessions", { id, horse, ladder, person: null, place: null, start_rung: 1 });
}

/** Opens the recorder on a new session and starts its first block. */
export async function openRecorder(page: Page, url: string, horse: string): Promise<void> {
  await page.goto(`${url}/horses/${horse}/work`);
  await page.getByRole("button", { name: /^(Open the recorder|Begin another beside the running one)$/ }).click();
  await startBlock(page);
  await expect(page.getByTestId("block-count")).toContainText("0 met of 0");
}

/** Goes past the preflight and starts the block that is offered. */
export async function startBlock(page: Page): Promise<void> {
  await page.getByRole("button", { name: "Skip", exact: true }).click();
  await page.getByRole("button", { name: "Start the block" }).click();
}

/** A pad that lies under "more" on a phone: break, block, ladder, finish. */
export async function fromMore(page: Page, name: string): Promise<void> {
  const there = pad(page, name);
  if (await there.isVisible()) return there.click();
  await pad(page, "more").click();
  await page.getByRole("dialog", { name: "More" }).getByRole("button", { name, exact: true }).click();
}

/** Finishes the session, leaves the aftercare as it is and goes to the review. */
export async function finishSession(page: Page, notes: Readonly<Record<string, string>> = {}): Promise<void> {
  await fromMore(page, "finish");
  for (const [label, text] of Object.entries(notes)) await page.getByLabel(label).fill(text);
  await page.getByRole("button", { name: "Finish the session" }).click();
  await page.getByRole("button", { name: "Save, to the review" }).click();
}

export const pad = (page: Page, name: string) => page.getByRole("region", { name: "Pads" }).getByRole("button", { name, exact: true });

/** Waits until the status line says that everything is on the server. */
export async function allSaved(page: Page): Promise<void> {
  // A busy machine writes slowly; nothing is wrong with waiting for it.
  await expect(page.locator("[data-waiting='0']")).toBeVisible();
}

/** What axe says of a whole document, and so also of one that is just being exchanged for the next by a move within the app. */
const OF_THE_WHOLE_DOCUMENT: readonly string[] = ["document-title", "page-has-heading-one", "landmark-one-main"];

/**
 * Runs axe on the page in front. A move within the app takes the page before away, title and heading with it, as the
 * next one is put in, and axe may read the document in between; so the page must have both before it looks, and what it
 * says of the document as a whole counts once it says so twice.
 */
export async function noAxeFindings(page: Page, where = ""): Promise<void> {
  const look = async () => {
    await expect(page).toHaveTitle(/./);
    await expect(page.locator("h1").first()).toBeAttached();
    return (await new AxeBuilder({ page }).options({ resultTypes: ["violations"] }).analyze()).violations;
  };
  let violations = await look();
  if (violations.some((v) => OF_THE_WHOLE_DOCUMENT.includes(v.id))) violations = await look();
  expect(violations.map((v) => `${where} ${v.id}: ${v.nodes.map((n) => n.target).join(" ")}`)).toEqual([]);
}

/** The session's events as the server has them, from the exported file. */
export async function exported(page: Page, url: string): Promise<readonly SessionEvent[]> {
  // The status line is a frame behind the press.
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  await allSaved(page);
  const session = /work\/([0-9a-f-]{36})/.exec(page.url())?.[1];
  return readEventsCsv(await (await page.request.get(`${url}/api/sessions/${session}/events.csv`)).text()).events;
}

/** What the events of one type carry, in order. */
export { payloadsOf as payloads } from "../support/payloads";

/** Posts taps of a session as another device made them, each so many seconds after it began. */
export async function postTaps(
  url: string,
  session: string,
  beganMs: number,
  list: readonly (readonly [number, string, object])[],
): Promise<void> {
  const { store } = (await (await fetch(`${url}/api/clock`)).json()) as { store: string };
  const load = newId();
  const events = list.map(([seconds, type, payload], seq) => ({
    id: newId(),
    session,
    recorder: "other:",
    load,
    seq,
    mono_ms: seconds * 1000,
    wall_ms: beganMs + seconds * 1000,
    type,
    payload,
  }));
  const response = await fetch(`${url}/api/events`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ store, recorder: "other:", clocks: {}, events }),
  });
  expect(response.status, await response.clone().text()).toBe(200);
}

/** The outcomes of a session as the server derives them, from its exported trials. */
export async function evidence(url: string, session: string): Promise<string[]> {
  const [head = "", ...lines] = (await (await fetch(`${url}/api/sessions/${session}/trials.csv`)).text()).trim().split(/\r?\n/);
  const column = head.split(",").indexOf("outcome");
  return lines.map((line) => line.split(",")[column] ?? "");
}

/** The command line as a person runs it. */
export function analyse(parameters: readonly string[]): AnalyseOutput {
  return JSON.parse(
    execFileSync("npm", ["run", "-s", "analyse", "--", ...parameters], { encoding: "utf8", stdio: ["ignore", "pipe", "pipe"] }),
  ) as AnalyseOutput;
}

/** Waits until the page's own worker has kept every file of the pen, some hundred and sixty, one after the other. */
export async function workerReady(page: Page): Promise<void> {
  await expect
    .poll(() => page.evaluate(async () => (await navigator.serviceWorker.getRegistration())?.active?.state ?? ""), { timeout: 150_000 })
    .toBe("activated");
}
