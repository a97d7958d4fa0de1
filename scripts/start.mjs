// npm start and npm run demo: installs, builds and starts; plain JavaScript, since nothing may be installed yet.
import { spawnSync } from "node:child_process";
import { existsSync, readdirSync, rmSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { ensureInstalled, newestChange, ROOT } from "./bootstrap.mjs";
import { helped } from "./help.mjs";

if (helped("start")) process.exit(0);

process.chdir(ROOT);
ensureInstalled();

/** What a build is made of. A change in any of it asks for a new build. */
const SOURCES = [
  "app",
  "features",
  "ui",
  "store",
  "core",
  "library",
  "workers",
  "proxy.ts",
  "next.config.ts",
  "postcss.config.mjs",
  "package-lock.json",
  "tsconfig.json",
];
// Written only after the build has ended well: a build that was killed is made again.
const built = join(ROOT, ".next", "deft-built");
if (!existsSync(built) || statSync(built).mtimeMs < newestChange(SOURCES, readdirSync)) {
  rmSync(built, { force: true });
  process.stdout.write("Building. This takes about a minute.\n");
  const run = spawnSync(process.execPath, [join(ROOT, "node_modules", "next", "dist", "bin", "next"), "build"], {
    stdio: ["ignore", "pipe", "pipe"],
    encoding: "utf8",
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1" },
  });
  if (run.status !== 0) {
    process.stderr.write(`${run.stdout}\n${run.stderr}\nThe build failed; the lines above say why.\n`);
    process.exit(1);
  }
  writeFileSync(built, "");
}
if (process.argv.includes("--build-only")) process.exit(0);
process.argv.splice(2, 0, "serve");
await import("./run.mjs");
