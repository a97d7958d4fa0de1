// npm run faults: kills, a full disk, foreign locks, cuts at every step, hostile bodies, at length; then the browsers.
// Prints a table of what was tried and what was found. --fuzz N tries N bodies and nothing else.
import { spawnSync } from "node:child_process";
import { existsSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { ensureInstalled, ROOT } from "./bootstrap.mjs";
import { ensureChromium } from "./chromium.mjs";
import { helped } from "./help.mjs";

if (helped("faults")) process.exit(0);

process.chdir(ROOT);
ensureInstalled();
const report = join(ROOT, ".cache", "faults", "report.jsonl");
rmSync(report, { force: true });
const at = process.argv.indexOf("--fuzz");
const bodies = at >= 0 ? (process.argv[at + 1] ?? "10000") : null;
const env = {
  ...process.env,
  NEXT_TELEMETRY_DISABLED: "1",
  DEFT_FAULTS: "long",
  DEFT_FAULTS_REPORT: report,
  DEFT_FUZZ: bodies ?? process.env.DEFT_FUZZ ?? "10000",
  DEFT_FAULT_ROUNDS: process.env.DEFT_FAULT_ROUNDS ?? "25",
};
const node = (...parameters) => spawnSync(process.execPath, parameters, { stdio: "inherit", env }).status === 0;
const bin = (...parts) => join(ROOT, "node_modules", ...parts);
if (!node("scripts/start.mjs", "--build-only")) process.exit(1);
let ok = node(bin("vitest", "vitest.mjs"), "run", "-c", "vitest.faults.config.ts", ...(bodies === null ? [] : ["fuzz"]));
if (bodies === null) {
  env.DEFT_CHROMIUM = ensureChromium();
  ok = node(bin("@playwright", "test", "cli.js"), "test", "kill", "pen", "network", "--retries=0") && ok;
}
if (existsSync(report)) {
  process.stdout.write("\n| tried | times | found | s |\n|---|---|---|---|\n");
  for (const line of readFileSync(report, "utf8").trim().split("\n")) {
    const { name, rounds, found, ok: good, seconds } = JSON.parse(line);
    process.stdout.write(`| ${name} | ${rounds} | ${good ? "" : "**failed:** "}${found} | ${Math.round(seconds)} |\n`);
  }
}
process.exit(ok ? 0 : 1);
