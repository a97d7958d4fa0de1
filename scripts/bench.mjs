// npm run bench: the figures the project promises, measured on this machine. --json prints only JSON;
// --only NAME measures one part: analyse, events, rules, word, editor, script, pads, hear, import, pen or house; --trials N makes the house of one size.
import { spawn, spawnSync } from "node:child_process";
import { createWriteStream, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { performance } from "node:perf_hooks";
import { gzipSync } from "node:zlib";
import { benchHouse, HOUSE_SIZES } from "./bench-house.mjs";
import { secondsInR } from "./bench-in-r.mjs";
import { offlineOpen, secondDevice } from "./bench-pen.mjs";
import { ensureInstalled, ROOT } from "./bootstrap.mjs";
import { CHROMIUM_ARGUMENTS, ensureChromium } from "./chromium.mjs";
import { helped } from "./help.mjs";

if (helped("bench")) process.exit(0);

process.chdir(ROOT);
ensureInstalled();
const executablePath = ensureChromium();
const jsonOnly = process.argv.includes("--json");
const PARTS = ["analyse", "events", "rules", "word", "editor", "script", "pads", "hear", "import", "pen", "house"];
const only = process.argv.includes("--only") ? process.argv[process.argv.indexOf("--only") + 1] : null;
if (only !== null && !PARTS.includes(only)) {
  process.stderr.write(`--only takes one of ${PARTS.join(", ")}.\n`);
  process.exit(2);
}
const houseSizes = process.argv.includes("--trials") ? [Number(process.argv[process.argv.indexOf("--trials") + 1])] : HOUSE_SIZES;
const wanted = (part) => only === null || only === part;
const say = (text) => process.stderr.write(`${text}\n`);
const { chromium } = await import("@playwright/test");
const { v4: newId } = await import("uuid");

const build = spawnSync(process.execPath, ["scripts/start.mjs", "--build-only"], { stdio: ["ignore", 2, 2] });
if (build.status !== 0) process.exit(1);

/** How many times its yardstick each figure may take. */
const ANALYSE_TIMES = 4;
const ACKNOWLEDGED_TIMES = 2;
const RULES_TIMES = 12;
const WORD_TIMES = 0.4;

const figures = {};
const rounded = (value) => Math.round(value * 100) / 100;
const figure = (name, value, unit, limit, more = {}) => {
  figures[name] = { value: rounded(value), unit, limit: rounded(limit), ok: value <= limit, ...more };
  say(`${name}: ${figures[name].value} ${unit}, limit ${figures[name].limit}`);
};
/** A figure held against a yardstick measured in the same run: at most so many times it. */
const against = (name, value, unit, yardstick, times, more = {}) =>
  figure(name, value, unit, yardstick * times, {
    ratio: rounded(value / yardstick),
    mostTimes: times,
    yardstick: rounded(yardstick),
    ...more,
  });
/** Two frames at sixty a second. */
const TWO_FRAMES_MS = 2000 / 60;
/** A paint held against that of an empty page with one button under the same slowing. */
const againstPage = (name, value, yardstick, more = {}) =>
  figure(name, value, "ms", yardstick + TWO_FRAMES_MS, { yardstick: rounded(yardstick), ...more });
const quantile = (list, share) => {
  const sorted = [...list].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.ceil(share * sorted.length) - 1)];
};

const freePort = () =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, "127.0.0.1", () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
  });

const folder = mkdtempSync(join(tmpdir(), "deft-bench-"));
const port = await freePort();
const url = `http://127.0.0.1:${port}`;
const server = spawn(process.execPath, ["scripts/start.mjs", "--port", String(port)], {
  env: { ...process.env, DEFT_DATA: folder },
  stdio: ["ignore", "pipe", "inherit"],
});
await new Promise((resolve, reject) => {
  server.stdout.on("data", (piece) => String(piece).includes("is running on") && resolve());
  server.once("exit", () => reject(new Error("The server did not start.")));
});

const post = async (path, body) => {
  const response = await fetch(`${url}${path}`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify(body),
  });
  if (!response.ok) throw new Error(`${path}: ${response.status} ${await response.text()}`);
  return response.json();
};

const strands = [{ id: "form", key: "form", name: "form", kind: "levels", unit: "", levels: ["weight shift", "one foot"], harder: "more" }];
const plan = {
  method: "combined",
  strands,
  rungs: [{ values: { form: "weight shift" } }, { values: { form: "one foot" } }],
  phases: ["body", "point", "line"].map((label) => ({ label, kind: "body", profile: "steady", dwellSeconds: 3, pulsesPerMinute: null })),
  maximumSeconds: 20,
  mastery: { kind: "share", met: 8, of: 10, window: "moving" },
  schedule: { kind: "every" },
  offers: "ignore",
  workingStrandId: null,
  plannedRepetitions: 8,
};
const { store } = await (await fetch(`${url}/api/clock`)).json();
const { id: horse } = await post("/api/horses", { name: "Bench" });
const { id: ladder } = await post("/api/ladders", { horse, behaviour: { name: "bench" }, plan });
/** The same with everything that can be logged between the asks: a pad more in both lower rows, and a row of signs. */
const conversation = {
  whenWrong: { did: "left", met: "moved on", plan: "" },
  ownTimes: ["looks", "settles"],
  retreats: true,
  pinned: ["eats", "eyes on me", "paws"].map((name) => ({ name, class: "count" })),
  acts: ["steps", "late"],
};
const { id: talking } = await post("/api/ladders", { horse, behaviour: { name: "bench, between" }, plan: { ...plan, conversation } });
const session = async (of = ladder) =>
  (await post("/api/sessions", { id: newId(), horse, ladder: of, person: null, place: null, start_rung: 1, beside: true })).id;

/** A recorder's stream of events over its own clock. */
function recorder(sessionId, name, startWallMs) {
  const load = newId();
  let seq = 0;
  let ms = 0;
  return (waitMs, type, payload = {}) => {
    ms += waitMs;
    return { id: newId(), session: sessionId, recorder: name, load, seq: seq++, mono_ms: ms, wall_ms: startWallMs + ms, type, payload };
  };
}

/** A session that already holds 1 500 events: timed trials of six events. */
async function longSession(of = ladder) {
  const id = await session(of);
  const event = recorder(id, "bench:a", Date.now() - 3_400_000);
  const events = [event(0, "session.start", { horse: "Bench", method: "combined" })];
  let block = 0;
  while (events.length < 1500) {
    if (events.length % 48 < 6)
      events.push(
        event(500, "block.start", {
          block: ++block,
          behaviour: "bench",
          ladder: of,
          version: 1,
          rung: 1,
          criterion: { sentence: "Weight shift.", phases: ["body", "point", "line"] },
          side: block % 2 ? "L" : "R",
          kind: "work",
          planned: 8,
        }),
      );
    events.push(
      event(6000, "ask", { phase: 1 }),
      event(2500, "phase", { phase: 2, by: "press" }),
      event(1200, "response", { answer: "met", phase: 2 }),
      event(400, "release"),
      event(200, "mark"),
      event(1500, "feed", { pieces: 1 }),
    );
  }
  for (let at = 0; at < events.length; at += 200)
    await post("/api/events", { store, recorder: "bench:a", clocks: {}, events: events.slice(at, at + 200) });
  return id;
}

/** Presses of one button on an empty page under the same slowing: what the browser itself takes from the press to the frame. */
async function emptyPage(browser, viewport, kind) {
  const context = await browser.newContext({ viewport });
  const page = await context.newPage();
  await page.goto(`${url}/remote`);
  await page.setContent("<button id=b style='width:200px;height:80px'>0</button>");
  const client = await context.newCDPSession(page);
  await client.send("Emulation.setCPUThrottlingRate", { rate: 4 });
  await page.evaluate((kind) => {
    window.paints = [];
    const button = document.getElementById("b");
    let n = 0;
    for (const type of ["pointerdown", "keydown"]) button.addEventListener(type, () => (button.textContent = String(++n)));
    button.focus();
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) if (entry.name === kind) window.paints.push(entry.duration);
    }).observe({ type: "event", durationThreshold: 16 });
  }, kind);
  const rest = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
  const presses = 40;
  for (let i = 0; i < presses; i++) {
    if (kind === "keydown") await page.keyboard.press("a");
    else {
      await page.mouse.move(60, 40);
      await page.mouse.down();
      await rest(60 + Math.random() * 60);
      await page.mouse.up();
    }
    await rest(180 + Math.random() * 160);
  }
  const paints = await page.evaluate(() => window.paints);
  await context.close();
  // What took under 16 ms is not reported: it counts as 16.
  while (paints.length < presses) paints.push(16);
  return quantile(paints, 0.95);
}

async function padToPaint(browser, way) {
  const yardstick = await emptyPage(browser, { width: 390, height: 844 }, "pointerdown");
  const id = await longSession(way === "between" ? talking : ladder);
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const page = await context.newPage();
  await page.goto(`${url}/horses/${horse}/work/${id}`);
  const pads = page.getByRole("region", { name: "Pads" });
  await pads.getByRole("button", { name: "undo", exact: true }).waitFor();
  await page.getByRole("button", { name: way === "timed" ? "Timed" : "Tally" }).click();
  const client = await context.newCDPSession(page);
  await client.send("Emulation.setCPUThrottlingRate", { rate: 4 });
  await page.evaluate(() => {
    window.paints = [];
    // The browser's own Event Timing: from the press to the next frame presented, in steps of 8 ms. Presses under
    // 16 ms are not reported, which can only make the figures here worse than they are.
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) if (entry.name === "pointerdown") window.paints.push(entry.duration);
    }).observe({ type: "event", durationThreshold: 16 });
  });
  // Where the pads lie is asked once: the search itself would load the throttled page.
  const names =
    way === "between"
      ? ["wrong", "looks", "got it", "relaxes"]
      : way === "tally"
        ? ["got it", "try", "other", "relaxes"]
        : ["hold while you ask", "got it", "mark", "food"];
  const boxes = [];
  if (way === "between") await pads.getByRole("button", { name: "wrong", exact: true }).waitFor();
  for (const name of names) boxes.push(await pads.getByRole("button", { name, exact: true }).boundingBox());
  const rest = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
  for (let i = 0; i < 80; i++) {
    const box = boxes[i % boxes.length];
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    // A finger rests on a pad for a moment, and presses do not come in step with the frames.
    await rest(60 + Math.random() * 60);
    await page.mouse.up();
    await rest(180 + Math.random() * 160);
  }
  const paints = (await page.evaluate(() => window.paints)).slice(5);
  await context.close();
  againstPage(`pad to paint, ${way}, p95`, quantile(paints, 0.95), yardstick, {
    median: Math.round(quantile(paints, 0.5) * 100) / 100,
    n: paints.length,
  });
}

/** The rule-check table: p in 19 steps, N to 400, of the rules that take longest. */
function ruleCheckTable() {
  const run = spawnSync(process.execPath, ["scripts/run.mjs", "bench-rules"], { stdio: ["ignore", "pipe", "inherit"], encoding: "utf8" });
  const { times: all, yardstickMs } = JSON.parse(run.stdout);
  const times = Object.entries(all);
  const [slowest, list] = times.sort(([, a], [, b]) => quantile(b, 0.5) - quantile(a, 0.5))[0];
  against(`rule-check table, slowest rule (${slowest}), p95`, quantile(list, 0.95), "ms", yardstickMs, RULES_TIMES, {
    median: Math.round(quantile(list, 0.5) * 100) / 100,
    n: list.length,
  });
}

/** The word at the end of a session of 1 500 events. */
function wordOfALongSession() {
  const run = spawnSync(process.execPath, ["scripts/run.mjs", "bench-word"], { stdio: ["ignore", "pipe", "inherit"], encoding: "utf8" });
  const { median, p95, trials, yardstickMs } = JSON.parse(run.stdout);
  against("the word at 1 500 events, p95", p95, "ms", yardstickMs, WORD_TIMES, { median: Math.round(median * 1000) / 1000, trials });
}

/** Listening for the marker: its share of one core, at 48 kHz in wind and among hooves. */
function listening() {
  const run = spawnSync(process.execPath, ["scripts/run.mjs", "bench-hear"], { stdio: ["ignore", "pipe", "inherit"], encoding: "utf8" });
  const { sharePercent, seconds } = JSON.parse(run.stdout);
  figure("listening for the marker, of one core", sharePercent, "%", 5, { seconds });
}

/** A table of trials brought in, beside SQLite's own prepared inserts of as many rows; and a million times through the product-limit estimate. */
function bringingIn() {
  const run = spawnSync(process.execPath, ["scripts/run.mjs", "bench-import"], {
    stdio: ["ignore", "pipe", "inherit"],
    encoding: "utf8",
  });
  const { trials, perSecond, barePerSecond, kmMs } = JSON.parse(run.stdout);
  // Twenty thousand a second, or half of what SQLite alone does in the same run, whichever is less.
  figure("a trial of a table brought in", 1e6 / perSecond, "µs", 1e6 / Math.min(20_000, barePerSecond / 2), {
    trials,
    perSecond: Math.round(perSecond),
    sqlitePerSecond: Math.round(barePerSecond),
  });
  figure("a million times through the product-limit estimate", kmMs, "ms", 1000);
}

/** The script of the page with the charts, gzipped as a server would, charts and all. */
async function chartPageScript(browser) {
  const id = await session();
  const { store } = await (await fetch(`${url}/api/clock`)).json();
  const { horses } = await (await fetch(`${url}/api/find`)).json();
  const ladder = horses.find((one) => one.id === horse).ladders[0].id;
  const began = Date.now() - 3_600_000;
  const load = crypto.randomUUID();
  const tap = (seq, type, payload) => ({
    id: crypto.randomUUID(),
    session: id,
    recorder: "bench:chart",
    load,
    seq,
    mono_ms: seq * 4000,
    wall_ms: began + seq * 4000,
    type,
    payload,
  });
  await post("/api/events", {
    store,
    recorder: "bench:chart",
    clocks: {},
    events: [
      tap(0, "block.start", { block: 1, behaviour: "bench", ladder, version: 1, rung: 1, side: "L" }),
      ...Array.from({ length: 12 }, (_, i) =>
        tap(i + 1, "trial", { outcome: i % 3 === 0 ? "miss" : "met", phase: 1, latency_s: 1 + i / 10, logged: "timed" }),
      ),
      tap(13, "session.end", {}),
    ],
  });
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  const bodies = [];
  page.on("response", (response) => {
    if (new URL(response.url()).pathname.endsWith(".js")) bodies.push(response.body());
  });
  await page.goto(`${url}/horses/${horse}/review/weeks?ladder=${ladder}`);
  await page.locator("figure canvas").first().waitFor();
  await page.waitForLoadState("networkidle");
  let bytes = 0;
  for (const body of bodies) bytes += gzipSync(await body).length;
  await context.close();
  figure("script of a page of charts, gzipped, charts and all", bytes / 1000, "kB", 260, { files: bodies.length });
}

/** Forty rungs of eight strands in the editor: from a key on a cord to the next frame. */
async function editorPaint(browser) {
  const yardstick = await emptyPage(browser, { width: 1280, height: 800 }, "keydown");
  const numbers = ["stay", "reach", "steps", "load", "own-1", "own-2", "own-3", "own-4"].map((id) => ({
    id,
    key: id.startsWith("own") ? "own" : id,
    name: id,
    kind: "number",
    unit: id === "stay" ? "s" : id === "reach" ? "m" : "",
    levels: [],
    harder: "more",
  }));
  const rungs = Array.from({ length: 40 }, (_, i) => ({
    values: Object.fromEntries(numbers.map(({ id }, k) => [id, 1 + Math.floor((i + k) / 8)])),
  }));
  const { id } = await post("/api/ladders", { horse, behaviour: { name: "bench, long" }, plan: { ...plan, strands: numbers, rungs } });
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.goto(`${url}/horses/${horse}/shape/${id}/edit`);
  await page.locator("html[data-ready]").waitFor({ state: "attached" });
  const client = await context.newCDPSession(page);
  await client.send("Emulation.setCPUThrottlingRate", { rate: 4 });
  await page.evaluate(() => {
    window.paints = [];
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) if (entry.name === "keydown") window.paints.push(entry.duration);
    }).observe({ type: "event", durationThreshold: 16 });
  });
  const rest = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
  const keys = ["ArrowUp", "ArrowDown", "ArrowRight", "ArrowUp"];
  for (let i = 0; i < 80; i++) {
    if (i % 10 === 0) {
      // Another cord may have to be brought into sight first; that is not the edit.
      await page.getByRole("slider", { name: numbers[(i / 10) % 8].id, exact: true }).focus();
      await rest(300);
    }
    await page.keyboard.press(keys[i % keys.length]);
    await rest(220 + Math.random() * 120);
  }
  const paints = (await page.evaluate(() => window.paints)).slice(5);
  await context.close();
  againstPage("edit to paint, 40 rungs of 8 strands, p95", quantile(paints, 0.95), yardstick, {
    median: Math.round(quantile(paints, 0.5) * 100) / 100,
    n: paints.length,
  });
}

/** The script a first visit to the recorder loads, gzipped as a server would. */
async function workPageScript(browser) {
  const id = await session();
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const page = await context.newPage();
  const bodies = new Map();
  page.on("response", (response) => {
    if (new URL(response.url()).pathname.endsWith(".js")) bodies.set(response.url(), response.body());
  });
  const document = await page.goto(`${url}/horses/${horse}/work/${id}`);
  const html = await document.text();
  await page.getByRole("button", { name: "Skip" }).waitFor();
  // The recorder asks for news every three seconds, so the network is never idle for long: it is waited for until no script has come for a while.
  for (let had = -1; had < bodies.size; ) {
    had = bodies.size;
    await new Promise((resolve) => setTimeout(resolve, 2000));
  }
  // What the page names is what it needs to come alive; the rest comes after it, so that it is there when the server is not.
  let first = 0;
  let after = 0;
  for (const [address, body] of bodies) {
    const size = gzipSync(await body).length;
    if (html.includes(new URL(address).pathname)) first += size;
    else after += size;
  }
  await context.close();
  figure("script of the Work page, gzipped", first / 1000, "kB", 225);
  figure("parts of the recorder fetched after it, gzipped", after / 1000, "kB", 120);
}

/** The fifty rows of a moment committed by SQLite alone, one after another, in the same folder, with a log and every commit on the disk: median, in milliseconds. */
async function bareCommit(sqlite3) {
  const database = new sqlite3.Database(join(folder, "bare.sqlite"));
  const run = (sql, parameters = []) =>
    new Promise((resolve, reject) => database.run(sql, parameters, (error) => (error === null ? resolve() : reject(error))));
  await run("PRAGMA journal_mode = WAL");
  await run("PRAGMA synchronous = FULL");
  await run("CREATE TABLE event (position INTEGER PRIMARY KEY AUTOINCREMENT, id TEXT UNIQUE, session_id TEXT, payload TEXT)");
  const times = [];
  for (let moment = 0; moment < 12; moment++) {
    const started = performance.now();
    for (let i = 0; i < 50; i++) {
      await run("BEGIN IMMEDIATE");
      await run("INSERT INTO event (id, session_id, payload) VALUES (?, ?, ?)", [newId(), newId(), '{"name":"ease","class":"ease"}']);
      await run("COMMIT");
    }
    times.push(performance.now() - started);
  }
  await new Promise((resolve) => database.close(resolve));
  return quantile(times, 0.5);
}

/** Fifty recorders, four events a second each, one batch a second, for a minute. */
async function fiftyRecorders() {
  const seconds = 60;
  const recorders = [];
  for (let i = 0; i < 50; i++) recorders.push({ name: `bench:${i}`, event: recorder(await session(), `bench:${i}`, Date.now()), sent: 0 });
  const times = [];
  await Promise.all(
    recorders.map(async (one, i) => {
      await new Promise((resolve) => setTimeout(resolve, (i * 250) / 50));
      for (let tick = 0; tick < seconds * 4; tick++) {
        const due = performance.now() + 250;
        const events = [one.event(250, "signal", { name: "ease", class: "ease" })];
        const started = performance.now();
        await post("/api/events", { store, recorder: one.name, clocks: {}, events });
        times.push(performance.now() - started);
        one.sent++;
        await new Promise((resolve) => setTimeout(resolve, Math.max(0, due - performance.now())));
      }
    }),
  );
  const { default: sqlite3 } = await import("sqlite3");
  const database = new sqlite3.Database(join(folder, "own.sqlite"), sqlite3.OPEN_READONLY);
  const stored = await new Promise((resolve) =>
    database.get("SELECT COUNT(*) AS n FROM event_log WHERE recorder LIKE 'bench:%' AND type = 'signal'", (_, row) => resolve(row.n)),
  );
  const distinct = await new Promise((resolve) =>
    database.get(
      "SELECT COUNT(*) AS n FROM (SELECT DISTINCT recorder, load, seq FROM event_log WHERE recorder LIKE 'bench:%' AND type = 'signal')",
      (_, row) => resolve(row.n),
    ),
  );
  database.close();
  const sent = recorders.reduce((sum, one) => sum + one.sent, 0);
  against(
    "event acknowledged, 50 recorders at 4 a second, p95",
    quantile(times.slice(50), 0.95),
    "ms",
    await bareCommit(sqlite3),
    ACKNOWLEDGED_TIMES,
    {
      median: Math.round(quantile(times, 0.5) * 100) / 100,
      n: times.length,
    },
  );
  figure("events lost", sent - stored, "events", 0);
  figure("events doubled", stored - distinct, "events", 0);
}

/** A million rows through analyse, as a person would run it. */
async function millionRows() {
  const file = join(folder, "million.csv");
  const out = createWriteStream(file);
  out.write(
    "session,started_at,horse,behaviour,rung,place,block,trial,block_s,kind,t_s,side,phase,outcome,wrong_before,latency_s,waited_s,release_lag_s,mark_lag_s,feed_delay_s,released,marked,reinforced,reinforcers,value,unit,ended_by,ease,faults,logged,zone,note\n",
  );
  // A small generator of its own keeps the file the same from run to run.
  let state = 12345;
  const draw = () => {
    state = (state * 1103515245 + 12345) % 2147483648;
    return state / 2147483648;
  };
  for (let i = 0; i < 1_000_000; i += 50) {
    let lines = "";
    const at = `2026-${String(1 + ((i / 50) % 12)).padStart(2, "0")}-${String(1 + ((i / 50) % 28)).padStart(2, "0")}T10:00:00+01:00`;
    for (let k = 0; k < 50; k++) {
      const outcome = ["met", "met", "met", "try", "miss", "refused"][Math.floor(draw() * 6)];
      const seconds = (-Math.log(1 - draw()) * 2.5).toFixed(3);
      lines += `s${i / 50},${at},Bench,plate,${1 + ((i / 50) % 8)},pen,${1 + Math.floor(k / 10)},${k + 1},120.5,work,${k * 14.5},${k % 20 < 10 ? "L" : "R"},${1 + Math.floor(draw() * 4)},${outcome},0,${outcome === "met" || outcome === "try" ? seconds : ""},${seconds},${(draw() * 0.9).toFixed(3)},,,1,0,1,1,,,,3,,timed,,\n`;
    }
    if (!out.write(lines)) await new Promise((resolve) => out.once("drain", resolve));
  }
  await new Promise((resolve) => out.end(resolve));
  const times = [];
  let peak = 0;
  for (let run = 0; run < 3; run++) {
    const started = performance.now();
    const child = spawn(process.execPath, ["--max-semi-space-size=32", "scripts/run.mjs", "analyse", file], {
      stdio: ["ignore", "ignore", "inherit"],
    });
    const watch = setInterval(() => {
      try {
        peak = Math.max(peak, Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, "utf8"))?.[1] ?? 0));
      } catch {
        // The process has just ended.
      }
    }, 20);
    await new Promise((resolve) => child.once("exit", resolve));
    clearInterval(watch);
    times.push(performance.now() - started);
  }
  const bare = [];
  for (let run = 0; run < 3; run++) {
    const started = performance.now();
    spawnSync(process.execPath, ["scripts/bench-split.mjs", file], { stdio: "ignore" });
    bare.push(performance.now() - started);
  }
  const seconds = quantile(times, 0.5) / 1000;
  against("a million rows through analyse, median of 3", seconds, "s", quantile(bare, 0.5) / 1000, ANALYSE_TIMES, {
    worst: Math.round(Math.max(...times) / 10) / 100,
  });
  const inR = secondsInR(file);
  if (inR === null) say("R with survival is not here: analyse is not held against it.");
  else against("a million rows through analyse, against R", seconds, "s", inR, 1);
  figure("memory of analyse on a million rows", peak / 1024, "MB", 600);
}

try {
  if (wanted("house")) await benchHouse({ say, figure, against, quantile, sizes: houseSizes });
  if (wanted("analyse")) await millionRows();
  if (wanted("events")) await fiftyRecorders();
  const browser = await chromium.launch({ executablePath, args: CHROMIUM_ARGUMENTS });
  if (wanted("rules")) ruleCheckTable();
  if (wanted("word")) wordOfALongSession();
  if (wanted("hear")) listening();
  if (wanted("editor")) await editorPaint(browser);
  if (wanted("script")) await workPageScript(browser);
  if (wanted("script")) await chartPageScript(browser);
  if (wanted("import")) bringingIn();
  for (const way of ["tally", "timed", "between"]) if (wanted("pads")) await padToPaint(browser, way);
  if (wanted("pen")) {
    await secondDevice({ url, post, store, session, recorder, figure, quantile });
    await offlineOpen({ browser, url, figure, quantile });
  }
  await browser.close();
} finally {
  server.kill("SIGTERM");
  rmSync(folder, { recursive: true, force: true });
}
if (jsonOnly) process.stdout.write(`${JSON.stringify(figures, null, 2)}\n`);
else {
  const HEADS = ["figure", "value", "median", "yardstick", "limit", ""];
  const rows = Object.entries(figures).map(([name, { value, unit, limit, ok, median, yardstick, ratio, mostTimes }]) => [
    name,
    `${value} ${unit}`,
    median === undefined ? "" : `${median} ${unit}`,
    yardstick === undefined ? "" : `${yardstick} ${unit}${ratio === undefined ? "" : `, × ${ratio} of ${mostTimes}`}`,
    `${limit} ${unit}`,
    ok ? "ok" : "over",
  ]);
  const widths = HEADS.map((head, i) => Math.max(...rows.map((row) => row[i].length), head.length));
  for (const row of [HEADS, ...rows])
    process.stdout.write(
      `${row
        .map((cell, i) => cell.padEnd(widths[i] ?? 0))
        .join("  ")
        .trimEnd()}\n`,
    );
}
process.exit(Object.values(figures).every(({ ok }) => ok) ? 0 : 1);
