// npm run repeat: every browser test three times, those that wait, count or hear ten times, beside a program that takes every core.
// What was run is written down after each file, and a run that was cut off goes on there. What fails once is to be mended.
import { spawn, spawnSync } from "node:child_process";
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import { availableParallelism } from "node:os";
import { join } from "node:path";
import { ensureInstalled, ROOT } from "./bootstrap.mjs";
import { ensureChromium } from "./chromium.mjs";
import { helped } from "./help.mjs";

if (helped("repeat")) process.exit(0);

process.chdir(ROOT);
ensureInstalled();
process.env.DEFT_CHROMIUM = ensureChromium();

const USUAL_TIMES = 3;
const OFTEN_TIMES = 10;
/** What a test that waits, counts or hears has in its file. */
const WAITS = /waitForTimeout|page\.clock|expect\.poll|toPass|setOffline|microphone|Date\.now\(\) - started/;

const value = (name) => {
  const at = process.argv.indexOf(name);
  return at < 0 ? null : (process.argv[at + 1] ?? null);
};
const folder = join(ROOT, ".cache", "repeat");
mkdirSync(folder, { recursive: true });
const stateFile = join(folder, "runs.json");
const head = spawnSync("git", ["rev-parse", "HEAD"], { encoding: "utf8" }).stdout.trim();
const kept = existsSync(stateFile) ? JSON.parse(readFileSync(stateFile, "utf8")) : null;
// Runs of another version say nothing of this one.
const state = kept?.head === head || process.argv.includes("--keep") ? kept : { head, runs: {} };
const save = () => {
  // Written beside and renamed: a cut leaves the old one whole.
  writeFileSync(`${stateFile}.part`, JSON.stringify({ ...state, head }));
  renameSync(`${stateFile}.part`, stateFile);
};

const only = value("--only");
const files = readdirSync(join(ROOT, "tests", "e2e"))
  .filter((name) => name.endsWith(".spec.ts") && (only === null || name.includes(only)))
  .sort();
const wanted = (name) => (WAITS.test(readFileSync(join(ROOT, "tests", "e2e", name), "utf8")) ? OFTEN_TIMES : USUAL_TIMES);
const runsOf = (name) => state.runs[name] ?? [];

function table() {
  process.stdout.write("\n| file | times | of | tests failed |\n|---|---|---|---|\n");
  for (const name of files) {
    const failed = runsOf(name).flatMap((run) => run.failed);
    process.stdout.write(
      `| ${name} | ${runsOf(name).length} | ${wanted(name)} | ${failed.length === 0 ? "none" : [...new Set(failed)].join("; ")} |\n`,
    );
  }
}
if (process.argv.includes("--status")) {
  table();
  process.exit(0);
}

if (spawnSync(process.execPath, ["scripts/start.mjs", "--build-only"], { stdio: "inherit" }).status !== 0) process.exit(1);
const burners = Array.from({ length: availableParallelism() }, () =>
  spawn(process.execPath, ["-e", "process.on('disconnect', () => process.exit()); for (;;) for (let i = 0; i < 1e8; i++);"], {
    stdio: "ignore",
  }),
);
const stopBurning = () => {
  for (const one of burners) one.kill("SIGKILL");
};
process.on("exit", stopBurning);
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => process.exit(1));

/** Every test of a report that did not pass, by its title. */
const failedIn = (suite) => [
  ...(suite.specs ?? []).filter((spec) => !spec.ok).map((spec) => spec.title),
  ...(suite.suites ?? []).flatMap(failedIn),
];

// Turn by turn over all files: a cut leaves each run about as often as the others.
for (let turn = 1; turn <= OFTEN_TIMES; turn++)
  for (const name of files) {
    if (wanted(name) < turn || runsOf(name).length >= turn) continue;
    const report = join(folder, "report.json");
    const started = Date.now();
    spawnSync(
      process.execPath,
      [
        join(ROOT, "node_modules", "@playwright", "test", "cli.js"),
        "test",
        `tests/e2e/${name}`,
        "--workers=1",
        "--retries=0",
        "--reporter=json",
      ],
      {
        stdio: ["ignore", "ignore", "inherit"],
        // Beside a program that takes every core everything takes about twice as long; what is measured in seconds is the bench's.
        env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1", PLAYWRIGHT_JSON_OUTPUT_NAME: report },
      },
    );
    const found = existsSync(report) ? JSON.parse(readFileSync(report, "utf8")) : { suites: [], stats: { unexpected: 1 } };
    const failed = found.suites.flatMap(failedIn);
    state.runs[name] = [...runsOf(name), { seconds: Math.round((Date.now() - started) / 1000), failed }];
    save();
    process.stdout.write(
      `${name} ${turn} of ${wanted(name)}: ${failed.length === 0 ? "ok" : `FAILED ${failed.join("; ")}`}, ${state.runs[name].at(-1).seconds} s\n`,
    );
  }
table();
process.exit(files.some((name) => runsOf(name).some(({ failed }) => failed.length > 0)) ? 1 : 0);
