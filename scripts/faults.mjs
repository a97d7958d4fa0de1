// npm run faults: the kill-and-cut test at length.
import { spawnSync } from "node:child_process";
import { join } from "node:path";
import { ensureInstalled, ROOT } from "./bootstrap.mjs";
import { ensureChromium } from "./chromium.mjs";

process.chdir(ROOT);
ensureInstalled();
const env = { ...process.env, DEFT_CHROMIUM: ensureChromium(), DEFT_FAULT_ROUNDS: process.env.DEFT_FAULT_ROUNDS ?? "40" };
const build = spawnSync(process.execPath, ["scripts/start.mjs", "--build-only"], { stdio: "inherit" });
if (build.status !== 0) process.exit(1);
const run = spawnSync(process.execPath, [join("node_modules", "@playwright", "test", "cli.js"), "test", "kill"], { stdio: "inherit", env });
process.exit(run.status ?? 1);
