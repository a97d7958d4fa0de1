// npm run screenshots: remakes docs/screenshots from a fresh demo yard.
import { spawn, spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { ensureInstalled, ROOT } from "./bootstrap.mjs";
import { CHROMIUM_ARGUMENTS, ensureChromium } from "./chromium.mjs";

process.chdir(ROOT);
ensureInstalled();
const executablePath = ensureChromium();
const { chromium } = await import("@playwright/test");
if (spawnSync(process.execPath, ["scripts/start.mjs", "--build-only"], { stdio: "inherit" }).status !== 0) process.exit(1);
const folder = mkdtempSync(join(tmpdir(), "deft-pictures-"));
const out = join(ROOT, "docs", "screenshots");
mkdirSync(out, { recursive: true });
const port = 4390;
const url = `http://127.0.0.1:${port}`;
const server = spawn(process.execPath, ["scripts/start.mjs", "--demo", "--port", String(port)], {
  env: { ...process.env, DEFT_DATA: folder },
  stdio: ["ignore", "pipe", "inherit"],
});
await new Promise((resolve, reject) => {
  server.stdout.on("data", (piece) => String(piece).includes("is running on") && resolve());
  server.once("exit", () => reject(new Error("The demo did not start.")));
});

const rest = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
const browser = await chromium.launch({ executablePath, args: CHROMIUM_ARGUMENTS });

async function opened(width, height, theme) {
  const context = await browser.newContext({ viewport: { width, height }, locale: "en-GB", reducedMotion: "reduce" });
  if (theme) await context.addCookies([{ name: "deft-theme", value: theme, url }]);
  return context.newPage();
}

async function picture(name, path, { width = 1280, height = 800, theme = "desk" } = {}) {
  const page = await opened(width, height, theme);
  await page.goto(`${url}${path}`, { waitUntil: "networkidle" });
  await page.screenshot({ path: join(out, `${name}.png`) });
  await page.context().close();
}

/** A few trials as they go in a pen, so that the recorder has something to show. */
async function recorder(name, horse, { width, height, theme, timed, ladder, preflight }) {
  const page = await opened(width, height, theme);
  await page.goto(`${url}/horses/${horse}/work`);
  if (ladder) await page.getByRole("radio", { name: new RegExp(ladder) }).check();
  await page.getByRole("button", { name: "Open the recorder" }).click();
  await page.getByTestId("preflight").waitFor();
  if (preflight) {
    await page.getByLabel(/^Air/).fill("24");
    await page.getByLabel(/^Humidity/).fill("64");
    await page.getByLabel("Wind").selectOption("breeze");
    await rest(400);
    await page.screenshot({ path: join(out, `${preflight}.png`) });
  }
  await page.getByRole("button", { name: "All well, go on" }).click();
  await page.getByRole("button", { name: "Start the block" }).click();
  const pad = (label) => page.getByRole("region", { name: "Pads" }).getByRole("button", { name: label, exact: true });
  await pad("undo").waitFor();
  if (timed) {
    await page.getByRole("button", { name: "Timed" }).click();
    for (let i = 0; i < 5; i++) {
      await page.keyboard.down("Space");
      await rest(1500);
      if (i % 2) await page.keyboard.press("2").then(() => rest(1200));
      await page.keyboard.press(i === 3 ? "o" : "g");
      await rest(350);
      if (i < 4) {
        await page.keyboard.up("Space");
        if (i !== 3)
          await page.keyboard
            .press("m")
            .then(() => rest(900))
            .then(() => page.keyboard.press("f"));
        await rest(3000);
      }
    }
  } else {
    for (const [i, label] of ["got it", "try", "got it", "other", "got it", "no answer", "got it"].entries()) {
      if (i % 3 === 2) await page.keyboard.press("2");
      await pad(label).click();
      await rest(2600);
    }
    await pad("relaxes").click();
  }
  await page.locator("[data-waiting='0']").waitFor();
  await page.screenshot({ path: join(out, `${name}.png`) });
  await page.context().close();
}

const post = async (path, body) => {
  const response = await fetch(`${url}${path}`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify(body),
  });
  if (!response.ok) throw new Error(`${path}: ${await response.text()}`);
  return response.json();
};

/** A session begun yesterday evening and left open, as the recorder meets it in the morning. */
async function leftOvernight({ id: horse, ladders: [ladder] }) {
  const session = crypto.randomUUID();
  const load = crypto.randomUUID();
  await post("/api/sessions", { id: session, horse, ladder: ladder.id, person: null, place: null, start_rung: 1, beside: true });
  const { store } = await (await fetch(`${url}/api/clock`)).json();
  const began = Date.now() - 14 * 3_600_000;
  const block = { block: 1, behaviour: ladder.name, ladder: ladder.id, version: 1, rung: 1, side: "L", kind: "work" };
  const list = [
    [0, "session.start", { horse: "Sorrelay", method: "combined" }],
    [1, "block.start", { ...block, criterion: { sentence: "Any answer." } }],
    ...[20, 45, 70, 110, 150].map((at, i) => [at, "trial", { outcome: i === 2 ? "miss" : "met", phase: 1 }]),
  ];
  const events = list.map(([at, type, payload], seq) => ({
    id: crypto.randomUUID(),
    session,
    recorder: "phone:",
    load,
    seq,
    mono_ms: at * 1000,
    wall_ms: began + at * 1000,
    type,
    payload,
  }));
  await post("/api/events", { store, recorder: "phone:", clocks: {}, events });
  const page = await opened(390, 664);
  await page.goto(`${url}/horses/${horse}/work/${session}`);
  await page.getByTestId("come-back").waitFor();
  await page.locator("[data-waiting='0']").waitFor();
  await page.screenshot({ path: join(out, "come-back.png") });
  await page.context().close();
}

try {
  const { horses } = await (await fetch(`${url}/api/find`)).json();
  const by = (start) => horses.find(({ name }) => name.startsWith(start));
  const cob = by("Quillomar");
  await picture("yard", "/");
  const mare = by("Ostrevine");
  await picture("know", `/horses/${mare.id}/know`);
  await picture("first-look", `/horses/${mare.id}/know/first-look`);
  await picture("body", `/horses/${by("Sorrelay").id}/know/touch`);
  await picture("places", `/horses/${mare.id}/know/places`);
  await picture("shape", `/horses/${cob.id}/shape/${cob.ladders[0].id}`);
  await picture("shape-edit", `/horses/${cob.id}/shape/${cob.ladders[0].id}/edit`);
  await picture("card", `/horses/${cob.id}/shape/${cob.ladders[1].id}/card`);
  const library = await opened(1280, 800);
  await library.goto(`${url}/horses/${cob.id}/shape/library`, { waitUntil: "networkidle" });
  await library.getByRole("searchbox").fill("trialer");
  await library.screenshot({ path: join(out, "library.png") });
  await library.context().close();
  await picture("ahead", `/horses/${cob.id}/ahead`);
  await picture("work", `/horses/${cob.id}/work`);
  const page = await opened(1280, 800);
  await page.goto(`${url}/horses/${cob.id}/review`);
  const review = await page.locator(`a[href^="/horses/${cob.id}/review/"]`).nth(1).getAttribute("href");
  await page.context().close();
  await picture("review", review);
  await recorder("recorder-phone", cob.id, {
    width: 390,
    height: 664,
    theme: "desk",
    timed: false,
    ladder: "weighing plate",
    preflight: "preflight-phone",
  });
  await recorder("recorder-landscape", by("Sorrelay").id, { width: 667, height: 375, theme: "field", timed: true });
  await recorder("recorder", by("Ostrevine").id, { width: 1280, height: 800, theme: "desk", timed: true });

  // What follows changes the yard, so it comes last.
  const { id: fresh } = await post("/api/horses", { name: "Marrowby" });
  await picture("new-horse", `/horses/${fresh}/know`, { width: 390, height: 664 });
  await leftOvernight(by("Sorrelay"));
  for (const [kind, id] of [
    ["session", review.split("/").at(-1)],
    ["ladder", cob.ladders[1].id],
    ["horse", by("Brackwidden").id],
  ])
    await post("/api/bin", { kind, id });
  await picture("bin", "/bin");
} finally {
  await browser.close();
  server.kill("SIGTERM");
  rmSync(folder, { recursive: true, force: true });
}
process.exit(0);
