import { createHash, X509Certificate } from "node:crypto";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { connect } from "node:tls";
import { type Browser, chromium, type Page } from "@playwright/test";
import { CHROMIUM_ARGUMENTS } from "../../scripts/chromium.mjs";
import { eventsOnDisk } from "../support/driver";
import { type NetworkFacts, PASSPHRASE } from "../support/phone";
import { freePort, TestServer } from "../support/server";
import { allSaved, expect, makeHorse, noAxeFindings, openRecorder, pad, startBlock, test, workerReady } from "./fixtures";

const executablePath = process.env.DEFT_CHROMIUM ?? "/usr/bin/chromium";

/** What Chromium takes a certificate by in place of a trusted authority: the digest of its public key. */
function keyDigest({ host, port }: NetworkFacts): Promise<string> {
  return new Promise((resolve, reject) => {
    const socket = connect({ host: "127.0.0.1", port, servername: host, rejectUnauthorized: false }, () => {
      const key = new X509Certificate(socket.getPeerCertificate().raw).publicKey.export({ type: "spki", format: "der" });
      socket.end();
      resolve(createHash("sha256").update(key).digest("base64"));
    });
    socket.once("error", reject);
  });
}

/** A phone's browser: it finds the computer by its name and takes its certificate. */
const phoneOf = async (network: NetworkFacts): Promise<Browser> =>
  chromium.launch({
    executablePath,
    args: [
      ...CHROMIUM_ARGUMENTS,
      `--host-resolver-rules=MAP ${network.host} 127.0.0.1`,
      `--ignore-certificate-errors-spki-list=${await keyDigest(network)}`,
    ],
  });

const PHONE = { viewport: { width: 390, height: 664 }, serviceWorkers: "allow" } as const;

async function signIn(page: Page, name: string): Promise<void> {
  await page.getByLabel("Name").fill(name);
  await page.getByLabel("Passphrase").fill(PASSPHRASE);
  await page.getByRole("button", { name: "Sign in" }).click();
  await page.waitForURL(/\/pen/);
}

test("the network is turned on, a helper signs in on a phone, works with no network, and is shut out when the owner ends it", async ({
  page,
}) => {
  const server = new TestServer(await freePort());
  await server.start();
  const { horse } = await makeHorse(server.url, "Far pen");

  // On the computer: nobody could sign in yet, so it is not turned on.
  await page.goto(`${server.url}/people`);
  for (const name of ["Olga", "Hilda"]) {
    await page.getByRole("button", { name: "Add a person" }).click();
    await page.getByLabel("Name").fill(name);
    await page.getByRole("button", { name: "Add the person" }).click();
    await expect(page.getByText(name).first()).toBeVisible();
  }
  await page.goto(`${server.url}/network`);
  await expect(page.getByRole("button", { name: "Turn it on" })).toBeDisabled();
  for (const [name, access] of [
    ["Olga", "owner"],
    ["Hilda", "helper"],
  ] as const) {
    await page.getByRole("button", { name: `Change the access of ${name}` }).click();
    await page.getByLabel("Access", { exact: true }).selectOption(access);
    await page.getByLabel("Passphrase").fill("short");
    await page.getByRole("button", { name: "Save" }).click();
    await expect(page.getByText("at least 10 characters")).toBeVisible();
    await page.getByLabel("Passphrase").fill(PASSPHRASE);
    await page.getByRole("button", { name: "Save" }).click();
    await expect(page.getByText(access === "owner" ? "yard keeper: everything" : "helper: logs and reads")).toBeVisible();
  }
  await page.getByRole("button", { name: "Turn it on" }).click();
  await expect(page.getByRole("heading", { name: "Bring a phone to the pen" })).toBeVisible();
  await noAxeFindings(page, "network");
  const network = (await (await fetch(`${server.url}/api/network`)).json()) as NetworkFacts;

  const browser = await phoneOf(network);
  const context = await browser.newContext(PHONE);
  const phone = await context.newPage();
  const at = `https://${network.host}:${network.port}`;
  // What leads a phone in, over plain http: the page looks by itself whether the certificate is trusted.
  await phone.goto(`http://${network.host}:${network.joinPort}/`);
  await expect(phone.getByText("It worked: this phone trusts the computer.")).toBeVisible();
  await noAxeFindings(phone, "trust");
  await phone.getByRole("link", { name: "Open Deft Tether" }).click();
  await phone.getByRole("link", { name: "Sign in" }).click();
  await noAxeFindings(phone, "sign in");
  await phone.getByLabel("Name").fill("Hilda");
  await phone.getByLabel("Passphrase").fill("not the right words");
  await phone.getByRole("button", { name: "Sign in" }).click();
  await expect(phone.getByText("Name and passphrase do not fit together.")).toBeVisible();
  await signIn(phone, "Hilda");
  await expect(phone.getByRole("link", { name: "Far pen" })).toBeVisible();
  await expect(phone.getByText("All of them are on this device")).toBeVisible();
  await workerReady(phone);

  // The owner's pages are not the helper's.
  await phone.goto(`${at}/store`);
  await expect(phone.getByRole("heading", { name: "That is the yard keeper's" })).toBeVisible();

  // A session with no network at all.
  await context.setOffline(true);
  await phone.goto(`${at}/pen?horse=${horse}`);
  await phone.getByRole("button", { name: "Open the recorder" }).click();
  await startBlock(phone);
  for (const word of ["got it", "try", "got it"]) await pad(phone, word).click();
  await expect(phone.getByTestId("block-count")).toContainText("2 met of 3");
  const session = new URL(phone.url()).searchParams.get("session") ?? "";
  await context.setOffline(false);
  await allSaved(phone);
  const trials = (await eventsOnDisk(server.file, session)).filter(({ type }) => type === "trial");
  expect(trials).toHaveLength(3);
  expect(new Set(trials.map(({ recorder }) => recorder.slice(8)))).toEqual(new Set([":Hilda"]));

  // Ended on the computer: with the next tap the phone says so, and keeps what is tapped until somebody signs in.
  await page.reload();
  await page.getByRole("button", { name: /^End Hilda on/ }).click();
  await expect(page.getByText("None.")).toBeVisible();
  await pad(phone, "got it").click();
  await expect(phone.getByText("Sign in on this device first")).toBeVisible();
  await expect(phone.locator("[data-waiting='1']")).toBeVisible();
  await phone.goto(`${at}/sign-in`);
  await signIn(phone, "Hilda");
  await expect.poll(async () => (await eventsOnDisk(server.file, session)).filter(({ type }) => type === "trial").length).toBe(4);

  await page.goto(`${server.url}/network`);
  await page.getByRole("button", { name: "Turn it off" }).click();
  await expect(page.getByText("The network is off")).toBeVisible();
  await expect(fetch(`${server.url}/api/network`).then((r) => r.json())).resolves.toMatchObject({ on: false });
  await browser.close();
  await server.stop();
});

test("the browser killed outright in the middle of a session with no server: every tap is there when it is opened again", async () => {
  const server = new TestServer(await freePort());
  await server.start();
  const { horse } = await makeHorse(server.url, "Killed");
  const profile = mkdtempSync(join(tmpdir(), "deft-profile-"));
  const open = () => chromium.launchPersistentContext(profile, { ...PHONE, executablePath, args: CHROMIUM_ARGUMENTS });
  const first = await open();
  const page = first.pages()[0] ?? (await first.newPage());
  await page.goto(server.url);
  await page.locator("html[data-ready]").waitFor({ state: "attached" });
  await workerReady(page);
  await openRecorder(page, server.url, horse);
  const session = page.url().split("/").at(-1) ?? "";
  await allSaved(page);
  await server.kill();
  for (let i = 0; i < 12; i++) {
    await pad(page, i % 3 === 0 ? "try" : "got it").click();
    await expect(page.getByTestId("block-count")).toContainText(`of ${i + 1}`);
  }
  await expect(page.locator("[data-waiting='12']")).toBeVisible();
  // Every process of the browser at once, as when a phone's battery ends.
  const { spawnSync } = await import("node:child_process");
  spawnSync("pkill", ["-9", "-f", profile]);
  await first.close().catch(() => undefined);

  const again = await open();
  // A browser writes its small store to the disk now and then only: a kill may take all it was told.
  await again.addInitScript(() => localStorage.clear());
  const back = again.pages()[0] ?? (await again.newPage());
  await back.goto(`${server.url}/pen?horse=${horse}&session=${session}`);
  await expect(back.getByTestId("block-count")).toContainText("8 met of 12");
  // A device without its plans says that the taps are there all the same.
  const other = await again.newPage();
  await other.goto(`${server.url}/pen?horses=1`);
  await expect(other.getByRole("link", { name: "Killed" })).toBeVisible();
  await other.evaluate(
    () =>
      new Promise<void>((resolve) => {
        const opening = indexedDB.open("deft-pen");
        opening.onsuccess = () => {
          const transaction = opening.result.transaction(["yards", "horses"], "readwrite");
          for (const name of ["yards", "horses"]) transaction.objectStore(name).clear();
          transaction.oncomplete = () => resolve();
        };
      }),
  );
  await other.reload();
  await expect(other.getByText("12 taps on this device wait", { exact: false })).toBeVisible();
  await other.close();
  await server.start();
  await allSaved(back);
  const trials = (await eventsOnDisk(server.file, session)).filter(({ type }) => type === "trial");
  expect(trials).toHaveLength(12);
  await again.close();
  await server.stop();
  rmSync(profile, { recursive: true, force: true });
});
