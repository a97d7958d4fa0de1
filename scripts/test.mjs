// npm test: sets up what it needs, then types, lint, unit tests and browser tests against the production build.
import { spawnSync } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { join, relative } from "node:path";
import { ensureInstalled, ROOT } from "./bootstrap.mjs";
import { ensureChromium } from "./chromium.mjs";
import { helped } from "./help.mjs";

if (helped("test")) process.exit(0);

process.chdir(ROOT);
ensureInstalled();
process.env.DEFT_CHROMIUM = ensureChromium();

const out = join(ROOT, ".cache", "test");
rmSync(out, { recursive: true, force: true });
mkdirSync(out, { recursive: true });
const bin = (...parts) => join(ROOT, "node_modules", ...parts);
let passed = 0;
let failed = 0;
/** What failed, by name: said once more at the end, where a cut-off output still shows it. */
const failures = [];

/** Runs one step and says how it went. */
function step(name, command, parameters, env = {}) {
  process.stdout.write(`\n== ${name}\n`);
  const started = Date.now();
  const { status } = spawnSync(command, parameters, {
    stdio: ["ignore", "inherit", "inherit"],
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1", ...env },
  });
  process.stdout.write(`== ${name}: ${status === 0 ? "ok" : "failed"}, ${Math.round((Date.now() - started) / 1000)} s\n`);
  if (status !== 0) failures.push(`step ${name}`);
  return status === 0;
}

const count = (ok) => {
  if (ok) passed++;
  else failed++;
};

/** Adds a runner's own counts; a runner that ended without a report counts as one failure. */
function addReport(file, ok, read) {
  if (!existsSync(file)) return count(false);
  const counts = read(JSON.parse(readFileSync(file, "utf8")));
  passed += counts.passed;
  failed += counts.failed;
  if (counts.passed + counts.failed === 0 || (!ok && counts.failed === 0)) failed++;
}

const node = process.execPath;
/** The inner loop: types, lint, the unit tests of what changed, two browser lines; no faults. */
const quick = process.argv.includes("--quick");
/** Two short lines through the whole program: the word taken, and a tap that falls short. */
const TWO_LINES = ["line.spec", "-g", "ten of ten says Raise|falls short counts as a try"];
// The pages' own types are made by the build, so it comes first.
const built = step("build", node, ["scripts/start.mjs", "--build-only"]);
count(built);
count(step("types", node, [bin("typescript", "bin", "tsc"), "--noEmit"]));
count(step("lint", node, [bin("@biomejs", "biome", "bin", "biome"), "check", "."]));

const unitReport = join(out, "unit.json");
const unit = step("unit", node, [
  bin("vitest", "vitest.mjs"),
  "run",
  ...(quick ? ["--changed", "HEAD", "--passWithNoTests"] : []),
  "--reporter=dot",
  "--reporter=json",
  `--outputFile.json=${unitReport}`,
]);
/** The first line a failed test gives as its reason. */
const reasonOf = (message) => (message ?? "").split("\n")[0].slice(0, 300);
const countsOf = (report) => {
  for (const file of report.testResults) {
    const broken = file.assertionResults.filter((test) => test.status !== "passed");
    for (const test of broken) failures.push(`${relative(ROOT, file.name)} › ${test.fullName}: ${reasonOf(test.failureMessages?.[0])}`);
    if (file.status !== "passed" && broken.length === 0) failures.push(`${relative(ROOT, file.name)}: ${reasonOf(file.message)}`);
  }
  return { passed: report.numPassedTests, failed: report.numFailedTests + (report.numPendingTests ?? 0) };
};
/** The names of what failed among a browser report's suites, which hold suites. */
function* brokenSpecs(suites = []) {
  for (const suite of suites) {
    for (const spec of suite.specs ?? []) {
      const broken = spec.tests.find((test) => test.status !== "expected");
      if (broken)
        yield `${spec.file}:${spec.line} › ${spec.title}: ${reasonOf(broken.results.find((result) => result.error)?.error.message)}`;
    }
    yield* brokenSpecs(suite.suites);
  }
}
if (quick && unit && readFileSync(unitReport, "utf8").includes('"numTotalTests":0')) count(true);
else addReport(unitReport, unit, countsOf);

if (built && !quick) {
  const faultsReport = join(out, "faults.json");
  const faults = step("faults", node, [
    bin("vitest", "vitest.mjs"),
    "run",
    "-c",
    "vitest.faults.config.ts",
    "--reporter=default",
    "--reporter=json",
    `--outputFile.json=${faultsReport}`,
  ]);
  addReport(faultsReport, faults, countsOf);
}
if (built) {
  const browserReport = join(out, "browser.json");
  const browser = step("browser", node, [bin("@playwright", "test", "cli.js"), "test", ...(quick ? TWO_LINES : [])], {
    PLAYWRIGHT_JSON_OUTPUT_NAME: browserReport,
  });
  addReport(browserReport, browser, ({ stats, suites }) => {
    failures.push(...brokenSpecs(suites));
    return { passed: stats.expected, failed: stats.unexpected + stats.skipped + stats.flaky };
  });
} else failed++;

if (failures.length > 0) process.stdout.write(`\n== failed\n${failures.map((failure) => `- ${failure}\n`).join("")}`);
process.stdout.write(`\n${passed} passed, ${failed} failed\n`);
process.exit(failed === 0 ? 0 : 1);
