import { type ChildProcess, spawn, spawnSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { compare, eventsOnDisk, NOTHING_FOUND, soundAfter } from "../support/driver";
import { ROOT } from "../support/server";
import { reported } from "./report";

/**
 * Two hosts for real: the computer in the tack room and the phone each in a
 * network namespace of its own, with one line between them that loses, delays
 * and is cut. Where the machine allows no namespaces it says so and tries the
 * rest of the faults alone.
 */
const LONG = process.env.DEFT_FAULTS === "long";
const id = process.pid % 10_000;
const YARD = `deft-yard-${id}`;
const PHONE = `deft-phone-${id}`;
const LINE = { yard: `dy${id}`, phone: `dp${id}` };
const SERVER = "192.168.77.5";
const MOVED = "192.168.77.9";

const sh = (...words: string[]) => spawnSync(words[0] ?? "", words.slice(1), { encoding: "utf8" });

/** Builds the two hosts. @returns why it could not, or null. */
function build(): string | null {
  for (const words of [
    ["ip", "netns", "add", YARD],
    ["ip", "netns", "add", PHONE],
    ["ip", "link", "add", LINE.yard, "type", "veth", "peer", "name", LINE.phone],
    ["ip", "link", "set", LINE.yard, "netns", YARD],
    ["ip", "link", "set", LINE.phone, "netns", PHONE],
    ["ip", "-n", YARD, "addr", "add", `${SERVER}/24`, "dev", LINE.yard],
    ["ip", "-n", PHONE, "addr", "add", "192.168.77.20/24", "dev", LINE.phone],
    ["ip", "-n", YARD, "link", "set", "lo", "up"],
    ["ip", "-n", PHONE, "link", "set", "lo", "up"],
    ["ip", "-n", YARD, "link", "set", LINE.yard, "up"],
    ["ip", "-n", PHONE, "link", "set", LINE.phone, "up"],
    ["ip", "-n", YARD, "route", "add", "default", "dev", LINE.yard],
    ["ip", "-n", PHONE, "route", "add", "default", "dev", LINE.phone],
  ]) {
    const { status, stderr, error } = sh(...words);
    if (status !== 0) return `${words.slice(0, 5).join(" ")}: ${error?.message ?? stderr.trim()}`;
  }
  return null;
}

function takeDown(): void {
  for (const space of [YARD, PHONE]) sh("ip", "netns", "del", space);
}

const why = build();
let folder = "";
let server: ChildProcess | null = null;
let said = "";

async function until(what: () => boolean, ms: number, words: () => string): Promise<void> {
  const end = Date.now() + ms;
  while (!what()) {
    if (Date.now() > end) throw new Error(words());
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}

async function startServer(): Promise<void> {
  said = "";
  const child = spawn("ip", ["netns", "exec", YARD, process.execPath, "scripts/start.mjs", "--port", "4470"], {
    cwd: ROOT,
    env: { ...process.env, DEFT_DATA: folder, DEFT_PORT: "" },
    stdio: ["ignore", "pipe", "pipe"],
  });
  for (const stream of [child.stdout, child.stderr]) stream?.on("data", (piece) => (said += piece));
  server = child;
  await until(
    () => said.includes("is running on"),
    60_000,
    () => said,
  );
}

async function stopServer(signal: NodeJS.Signals): Promise<void> {
  const child = server;
  server = null;
  if (child === null) return;
  const ended = new Promise((resolve) => child.once("exit", resolve));
  child.kill(signal);
  await ended;
}

/** The tests' own helpers, bundled so that they run inside a namespace. */
async function helper(): Promise<string> {
  const { build: bundle } = await import("esbuild");
  // Inside the project, so that it finds the packages it is not bundled with.
  const out = join(ROOT, ".cache", `two-hosts-${process.pid}.mjs`);
  await bundle({
    absWorkingDir: ROOT,
    entryPoints: ["tests/support/two-hosts-helper.ts"],
    outfile: out,
    bundle: true,
    platform: "node",
    format: "esm",
    target: "node20",
    packages: "external",
    logLevel: "error",
  });
  return out;
}

let helperFile = "";
const run = (space: string, ms: number, ...parameters: string[]) => {
  const { status, stdout, stderr } = spawnSync("ip", ["netns", "exec", space, process.execPath, helperFile, ...parameters], {
    cwd: ROOT,
    encoding: "utf8",
    timeout: ms,
  });
  if (status !== 0) throw new Error(`${parameters[0]}: ${stderr || stdout || "no end in time"}`);
  return JSON.parse(stdout) as Record<string, unknown>;
};
const start = (space: string, ...parameters: string[]) => {
  const child = spawn("ip", ["netns", "exec", space, process.execPath, helperFile, ...parameters], {
    cwd: ROOT,
    stdio: ["ignore", "pipe", "pipe"],
  });
  let out = "";
  let wrong = "";
  child.stdout.on("data", (piece) => (out += piece));
  child.stderr.on("data", (piece) => (wrong += piece));
  return new Promise<Record<string, unknown>>((resolve, reject) => {
    child.once("exit", (code) => (code === 0 ? resolve(JSON.parse(out) as Record<string, unknown>) : reject(new Error(wrong || out))));
  });
};

beforeAll(async () => {
  if (why !== null) return;
  folder = mkdtempSync(join(tmpdir(), "two-hosts-"));
  helperFile = await helper();
  await startServer();
});
afterAll(async () => {
  await stopServer("SIGTERM");
  takeDown();
  rmSync(helperFile, { force: true });
  if (folder !== "") rmSync(folder, { recursive: true, force: true });
});

describe("two hosts", () => {
  it("can be made here, or it is said why not", () => {
    if (why !== null) {
      process.stdout.write(`No two hosts on this machine (${why}); the line between them is not tried.\n`);
      reported({ name: "two hosts in network namespaces", rounds: 0, found: `not on this machine: ${why}`, ok: true, seconds: 0 });
    }
    expect(why === null || why.length > 0).toBe(true);
  });

  it.runIf(why === null)(
    "the phone finds the computer by its name, trusts it, and loses nothing on a line that loses, delays and is cut",
    async () => {
      const at = Date.now();
      const yard = run(YARD, 60_000, "open", "http://127.0.0.1:4470");
      const network = JSON.stringify(yard.network);
      // By multicast, as a phone asks.
      expect(run(PHONE, 20_000, "find", String((yard.network as { host: string }).host), "192.168.77.20")).toEqual({ address: SERVER });
      expect(run(PHONE, 20_000, "find", "deft-none.local", "192.168.77.20")).toEqual({ address: null });

      // A tenth of the packets lost, a quarter of a second each way, out of order.
      const netem = sh(
        "tc",
        "-n",
        YARD,
        "qdisc",
        "add",
        "dev",
        LINE.yard,
        "root",
        "netem",
        "delay",
        "80ms",
        "40ms",
        "loss",
        "8%",
        "reorder",
        "20%",
      );
      const lossy = netem.status === 0;
      const seconds = LONG ? 60 : 12;
      const tapping = start(PHONE, "tap", SERVER, network, JSON.stringify(yard.yard), String(seconds));
      // The line is cut outright, twice, and the server killed once, while the phone goes on tapping.
      for (let cut = 0; cut < 2; cut++) {
        await new Promise((resolve) => setTimeout(resolve, 2500));
        sh("ip", "-n", PHONE, "link", "set", LINE.phone, "down");
        await new Promise((resolve) => setTimeout(resolve, 1500));
        sh("ip", "-n", PHONE, "link", "set", LINE.phone, "up");
        sh("ip", "-n", PHONE, "route", "add", "default", "dev", LINE.phone);
      }
      await stopServer("SIGKILL");
      await startServer();
      const { log, sends, failed } = (await tapping) as { log: never[]; sends: number; failed: number };
      sh("tc", "-n", YARD, "qdisc", "del", "dev", LINE.yard, "root");
      const { file, session } = yard as { file: string; session: string };
      const found = compare(log, await eventsOnDisk(file, session));
      reported({
        name: `two hosts, a line that loses ${lossy ? "8 %" : "nothing (no netem here)"}, cut twice, the server killed once`,
        rounds: sends,
        found: `${log.length} taps, ${failed} sendings cut off; ${JSON.stringify(found)}`,
        ok: JSON.stringify(found) === JSON.stringify(NOTHING_FOUND),
        seconds: (Date.now() - at) / 1000,
      });
      expect(log.length).toBeGreaterThan(50);
      expect(failed).toBeGreaterThan(0);
      expect(found).toEqual(NOTHING_FOUND);
      expect(await soundAfter(file, session, log)).toEqual({ integrity: "ok", trials: log.length, sameTrials: true });
    },
  );

  it.runIf(why === null)("a new number from the router: the name leads to it, under a new certificate of the same authority", async () => {
    const yard = run(YARD, 60_000, "network", "http://127.0.0.1:4470") as { host: string };
    sh("ip", "-n", YARD, "addr", "add", `${MOVED}/24`, "dev", LINE.yard);
    sh("ip", "-n", YARD, "addr", "del", `${SERVER}/24`, "dev", LINE.yard);
    sh("ip", "-n", YARD, "addr", "add", `${MOVED}/24`, "dev", LINE.yard);
    sh("ip", "-n", YARD, "route", "add", "default", "dev", LINE.yard);
    const end = Date.now() + 45_000;
    let found: unknown = null;
    while (found !== MOVED && Date.now() < end) found = run(PHONE, 20_000, "find", yard.host, "192.168.77.20").address;
    expect(found).toBe(MOVED);
    expect(run(PHONE, 20_000, "check", MOVED, JSON.stringify(yard))).toMatchObject({ status: 200, names: expect.stringContaining(MOVED) });
  });
});
