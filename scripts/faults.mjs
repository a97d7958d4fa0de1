// npm run faults: kills, a full disk, foreign locks, cuts at every step, hostile bodies, at length; then the browsers.
// Prints a table of what was tried and what was found. --fuzz N tries N bodies and nothing else.
import { spawnSync } from "node:child_process";
import { appendFileSync, existsSync, readFileSync, rmSync } from "node:fs";
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
/** What is tried without a server of its own, file by file, and what each stands for. */
const GUARDS = new Map([
  ["app/server/take-events.test.ts", "a helper's batch: what it may not change is kept for the keeper, clocks of own loads alone"],
  ["store/nothing-lost.test.ts", "one bad session stops no other; sums equal the log after a clock moved"],
  ["tests/unit/bad-rows.test.ts", "damaged sums are worked out anew; rows of another version are met with a sentence"],
  ["store/package/values.test.ts", "odd packages, value by value"],
  ["store/package/package.test.ts", "a package is whole or refused: turned bits, swapped files, a merge that fails midway"],
  ["store/package/bring.test.ts", "a table comes in as it says"],
  ["store/time-seen.test.ts", "a machine's clock a year ahead or back"],
  ["store/file/file.test.ts", "a restore brings no old access back"],
  ["store/file/own-only.test.ts", "files are their owner's alone"],
  ["app/server/live.test.ts", "a thousand live lines, bounded and heard"],
  ["features/device/sender.test.ts", "answers that are not ours, restores under open pages, set clocks"],
  ["features/device/own-address.test.ts", "addresses that lead away"],
]);

const row = (line) => appendFileSync(report, `${JSON.stringify(line)}\n`);

/** A row for each file of unit checks. */
function unitRows({ testResults }) {
  for (const [file, name] of GUARDS) {
    const found = testResults.find((one) => one.name.replaceAll("\\", "/").endsWith(file));
    const checks = found?.assertionResults ?? [];
    const bad = checks.filter(({ status }) => status !== "passed");
    row({
      name,
      rounds: checks.length,
      found: bad.length === 0 && checks.length > 0 ? "as it should be" : bad.map(({ title }) => title).join("; ") || "not run",
      ok: bad.length === 0 && checks.length > 0,
      seconds: checks.reduce((sum, { duration }) => sum + (duration ?? 0), 0) / 1000,
    });
  }
}

/** A row for each browser test. */
function browserRows(suite) {
  for (const { title, ok: good, tests } of suite.specs ?? [])
    row({
      name: title,
      rounds: 1,
      found: good ? "as it should be" : "failed",
      ok: good,
      seconds: tests.flatMap(({ results }) => results).reduce((sum, { duration }) => sum + duration, 0) / 1000,
    });
  for (const inner of suite.suites ?? []) browserRows(inner);
}

/** The table of what was tried and found. */
function printRows() {
  if (existsSync(report)) {
    process.stdout.write("\n| tried | times | found | s |\n|---|---|---|---|\n");
    for (const line of readFileSync(report, "utf8").trim().split("\n")) {
      const { name, rounds, found, ok: good, seconds } = JSON.parse(line);
      process.stdout.write(`| ${name} | ${rounds} | ${good ? "" : "**failed:** "}${found} | ${Math.round(seconds)} |\n`);
    }
  }
}

const node = (...parameters) => spawnSync(process.execPath, parameters, { stdio: "inherit", env }).status === 0;
const bin = (...parts) => join(ROOT, "node_modules", ...parts);
if (!node("scripts/start.mjs", "--build-only")) process.exit(1);
const guardsAlone = process.argv.includes("--guards");
let ok = guardsAlone || node(bin("vitest", "vitest.mjs"), "run", "-c", "vitest.faults.config.ts", ...(bodies === null ? [] : ["fuzz"]));
if (bodies === null) {
  const unitReport = join(ROOT, ".cache", "faults", "unit.json");
  rmSync(unitReport, { force: true });
  ok =
    node(bin("vitest", "vitest.mjs"), "run", ...GUARDS.keys(), "--reporter=dot", "--reporter=json", `--outputFile.json=${unitReport}`) &&
    ok;
  if (existsSync(unitReport)) unitRows(JSON.parse(readFileSync(unitReport, "utf8")));
  if (guardsAlone) printRows();
  if (guardsAlone) process.exit(ok ? 0 : 1);
  env.DEFT_CHROMIUM = ensureChromium();
  const browserReport = join(ROOT, ".cache", "faults", "browser.json");
  rmSync(browserReport, { force: true });
  env.PLAYWRIGHT_JSON_OUTPUT_NAME = browserReport;
  ok = node(bin("@playwright", "test", "cli.js"), "test", "kill", "pen", "network", "nothing-lost", "long-session", "--retries=0") && ok;
  if (existsSync(browserReport)) for (const suite of JSON.parse(readFileSync(browserReport, "utf8")).suites) browserRows(suite);
}
printRows();
process.exit(ok ? 0 : 1);
