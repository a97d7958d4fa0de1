// The pen's own figures: what a second device sees, and how soon the recorder opens with no server.
import { performance } from "node:perf_hooks";

const SEEN_WITHIN_MS = 1000;
const OPEN_WITHIN_MS = 1000;

/** Taps of one device, a batch each, as a second one that follows the session hears of them: from the sending to the hearing. */
export async function secondDevice({ url, post, store, session, recorder, figure, quantile }) {
  const id = await session();
  const event = recorder(id, "bench:first", Date.now());
  await post("/api/events", {
    store,
    recorder: "bench:first",
    clocks: {},
    events: [event(0, "session.start", { horse: "Bench", method: "combined" })],
  });
  const sentAt = new Map();
  const delays = [];
  const line = await fetch(`${url}/api/sessions/${id}/live?after=0`);
  const reader = line.body.getReader();
  const heard = (async () => {
    const decoder = new TextDecoder();
    let text = "";
    for (let piece = await reader.read(); !piece.done; piece = await reader.read()) {
      text += decoder.decode(piece.value, { stream: true });
      for (let end = text.indexOf("\n\n"); end >= 0; end = text.indexOf("\n\n")) {
        const data = /^data: (.*)$/m.exec(text.slice(0, end))?.[1] ?? "{}";
        text = text.slice(end + 2);
        for (const { id: tap } of JSON.parse(data).events ?? []) if (sentAt.has(tap)) delays.push(performance.now() - sentAt.get(tap));
      }
    }
  })().catch(() => undefined);
  // What the way itself takes: an answer with next to nothing in it.
  const bare = [];
  for (let i = 0; i < 200; i++) {
    const tap = event(250, "signal", { name: "ease", class: "ease" });
    sentAt.set(tap.id, performance.now());
    await post("/api/events", { store, recorder: "bench:first", clocks: {}, events: [tap] });
    const before = performance.now();
    await (await fetch(`${url}/api/clock`)).json();
    bare.push(performance.now() - before);
    await new Promise((resolve) => setTimeout(resolve, 30));
  }
  await new Promise((resolve) => setTimeout(resolve, 1000));
  await reader.cancel();
  await heard;
  figure("a second device sees a tap, p95", quantile(delays, 0.95), "ms", SEEN_WITHIN_MS, {
    median: Math.round(quantile(delays, 0.5) * 10) / 10,
    yardstick: Math.round(quantile(bare, 0.95) * 10) / 10,
  });
  figure("taps a second device did not see", sentAt.size - delays.length, "taps", 0);
}

/** Waits until the browser keeps the pen whole. */
async function kept(page) {
  const state = () => page.evaluate(async () => (await navigator.serviceWorker.getRegistration())?.active?.state ?? "");
  for (let tries = 0; (await state()) !== "activated"; tries++) {
    if (tries > 300) throw new Error("The browser does not keep the pen.");
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
}

/** The pen opened with no server, from the home screen's address to the horse one can begin with; beside it a page that holds one button. */
export async function offlineOpen({ browser, url, figure, quantile }) {
  const context = await browser.newContext({ viewport: { width: 390, height: 664 }, serviceWorkers: "allow" });
  const page = await context.newPage();
  await page.goto(url);
  await kept(page);
  await page.goto(`${url}/pen?horses=1`);
  await page.getByRole("listitem").first().waitFor();
  await page.getByText("All of them are on this device").waitFor({ timeout: 60_000 });
  await page.getByRole("listitem").getByRole("link").first().click();
  await page.getByRole("button", { name: /^(Open the recorder|Begin another)/ }).waitFor();
  await context.setOffline(true);
  // On the page's own clock, from the moment it was asked for to the button one begins with: what the tools take is not in it.
  await page.addInitScript(() => {
    const look = () => {
      const there = [...document.querySelectorAll("button")].some((button) =>
        /Open the recorder|Begin another|^one$/.test(button.textContent ?? ""),
      );
      if (there) window.opened ??= performance.now();
    };
    new MutationObserver(look).observe(document, { childList: true, subtree: true });
    document.addEventListener("DOMContentLoaded", look);
  });
  const times = [];
  const bare = [];
  for (let i = 0; i < 15; i++) {
    await page.goto(`${url}/pen`, { waitUntil: "commit" });
    await page.getByRole("button", { name: /^(Open the recorder|Begin another)/ }).waitFor();
    times.push(await page.evaluate(() => window.opened));
    await page.goto("data:text/html,<button>one</button>", { waitUntil: "commit" });
    await page.getByRole("button", { name: "one" }).waitFor();
    bare.push(await page.evaluate(() => window.opened));
  }
  await context.close();
  figure("the pen opened with no server, p95", quantile(times, 0.95), "ms", OPEN_WITHIN_MS, {
    median: Math.round(quantile(times, 0.5)),
    yardstick: Math.round(quantile(bare, 0.95)),
  });
}
