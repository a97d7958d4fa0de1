// npm run screenshots: remakes docs/screenshots from a fresh demo yard.
import { spawn, spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { join } from "node:path";
import { ensureInstalled, ROOT } from "./bootstrap.mjs";
import { CHROMIUM_ARGUMENTS, ensureChromium } from "./chromium.mjs";

process.chdir(ROOT);
ensureInstalled();
const executablePath = ensureChromium();
const { chromium } = await import("@playwright/test");
if (spawnSync(process.execPath, ["scripts/start.mjs", "--build-only"], { stdio: "inherit" }).status !== 0) process.exit(1);
// Inside the program's folder, so that the page of the data shows no path of this machine.
mkdirSync(join(ROOT, ".cache"), { recursive: true });
const folder = mkdtempSync(join(ROOT, ".cache", "pictures-"));
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
  const context = await browser.newContext({
    viewport: { width, height },
    locale: "en-GB",
    reducedMotion: "reduce",
    serviceWorkers: "block",
  });
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
async function recorder(name, horse, { width, height, theme, timed, ladder }) {
  const page = await opened(width, height, theme);
  await page.goto(`${url}/horses/${horse}/work`);
  if (ladder) await page.getByRole("radio", { name: new RegExp(ladder) }).check();
  await page.getByRole("button", { name: "Open the recorder" }).click();
  await page.getByTestId("preflight").waitFor();
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

/** A minute of a session on the circle: its clock as it is read in sunlight, from three metres. */
async function circleClock(name, horse) {
  const page = await opened(390, 664, "field");
  await page.goto(`${url}/horses/${horse}/work/circle`, { waitUntil: "networkidle" });
  for (const why of await page.getByLabel("All the same, because").all()) await why.fill("short, after a day off");
  await page.getByRole("button", { name: "Open the circle clock" }).click();
  for (const one of ["helmet", "gloves", "boots"]) await page.getByLabel(one).check();
  await page.getByRole("button", { name: "Start the clock" }).click();
  const tap = async (label) => {
    await page.getByRole("button", { name: label, exact: true }).click();
    await rest(900);
  };
  for (const label of ["asked by voice", "walk came", "falls in", "lap", "stretches down"]) await tap(label);
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

/** Waits until the browser keeps the pen whole. */
async function kept(page) {
  const state = () => page.evaluate(async () => (await navigator.serviceWorker.getRegistration())?.active?.state ?? "");
  for (let tries = 0; (await state()) !== "activated"; tries++) {
    if (tries > 300) throw new Error("The browser does not keep the pen.");
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
}

/** A phone in the pen: visited once, then the network is gone and a session is worked. */
async function penWithNoServer(name, horse) {
  const context = await browser.newContext({ viewport: { width: 390, height: 664 }, locale: "en-GB", reducedMotion: "reduce" });
  const page = await context.newPage();
  await page.goto(`${url}/pen?horses=1`);
  await kept(page);
  await page.getByText("All of them are on this device").waitFor({ timeout: 60_000 });
  await context.setOffline(true);
  await page.goto(`${url}/pen?horse=${horse}`);
  await page.getByRole("button", { name: /^(Open the recorder|Begin another)/ }).click();
  await page.getByRole("button", { name: "All well, go on" }).click();
  await page.getByRole("button", { name: "Start the block" }).click();
  const pad = (label) => page.getByRole("region", { name: "Pads" }).getByRole("button", { name: label, exact: true });
  for (const label of ["got it", "got it", "try", "got it"]) {
    await pad(label).click();
    await rest(1500);
  }
  await rest(600);
  await page.screenshot({ path: join(out, `${name}.png`) });
  await context.close();
}

/** The network turned on: the page with the code. */
async function network(name) {
  const { facts } = await (await fetch(`${url}/api/pack`)).json();
  const put = (path, body) =>
    fetch(`${url}${path}`, { method: "PUT", headers: { "content-type": "application/json" }, body: JSON.stringify(body) });
  const access = ["owner", "helper"];
  for (const [i, { id }] of facts.people.slice(0, 2).entries())
    await put(`/api/people/${id}/access`, { access: access[i], passphrase: "four words do well" });
  await put("/api/network", { on: true });
  await picture(name, "/network", { height: 1000 });
  await put("/api/network", { on: false });
}

try {
  const { horses } = await (await fetch(`${url}/api/find`)).json();
  const by = (start) => horses.find(({ name }) => name.startsWith(start));
  const cob = by("Quillomar");
  await picture("yard", "/");
  const mare = by("Ostrevine");
  await picture("know", `/horses/${mare.id}/know`);
  await picture("places", `/horses/${mare.id}/know/places`);
  await picture("shape", `/horses/${cob.id}/shape/${cob.ladders[0].id}`);
  const library = await opened(1280, 800);
  await library.goto(`${url}/horses/${cob.id}/shape/library`, { waitUntil: "networkidle" });
  await library.getByRole("searchbox").fill("trialer");
  await library.screenshot({ path: join(out, "library.png") });
  await library.context().close();
  await picture("ahead", `/horses/${by("Harrowmint").id}/ahead`);
  await picture("work", `/horses/${cob.id}/work`);
  const page = await opened(1280, 800);
  await page.goto(`${url}/horses/${mare.id}/review`);
  // A session, and none of the pages over weeks that stand beside them.
  const hrefs = await page
    .locator(`a[href^="/horses/${mare.id}/review/"]`)
    .evaluateAll((links) => links.map((link) => link.getAttribute("href")));
  const review = hrefs.find((href) => /\/review\/[0-9a-f-]{36}$/.test(href));
  await page.context().close();
  await picture("review", review);
  await picture("weeks", `/horses/${mare.id}/review/weeks?span=91`, { height: 1100 });
  await picture("changes", `/horses/${cob.id}/review/changes`, { height: 1000 });
  await recorder("recorder-phone", cob.id, {
    width: 390,
    height: 664,
    theme: "desk",
    timed: false,
    ladder: "weighing plate",
  });
  await recorder("recorder", by("Ostrevine").id, { width: 1280, height: 800, theme: "desk", timed: true });

  const round = by("Corriemoor");
  await picture("circle", `/horses/${round.id}/work/circle`);
  await picture("circle-ramp", `/horses/${round.id}/work/circle/ramp`);
  await picture("load", `/horses/${round.id}/review/load`, { height: 1000 });

  // What follows changes the yard, so it comes last.
  await circleClock("circle-clock-phone", round.id);
  await penWithNoServer("pen-offline", cob.id);
  for (let i = 0; i < 2; i++) await post("/api/store/backup", {});
  await fetch(`${url}/api/store?check=1`);
  await picture("store", "/store");
  await network("network");
} finally {
  await browser.close();
  server.kill("SIGTERM");
  rmSync(folder, { recursive: true, force: true });
}
process.exit(0);
