// npm start and npm run demo: installs, builds and starts; plain JavaScript, since nothing may be installed yet.
import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { join, relative } from "node:path";
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
  "public",
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
  await buildWorkers();
  writeFileSync(built, "");
}

/** The audio thread's script, and the pages' own worker with the list of every file of the pen written in. */
async function buildWorkers() {
  const { build } = await import("esbuild");
  // The audio thread's own script: the page asks for it by its name.
  await build({
    absWorkingDir: ROOT,
    entryPoints: ["workers/listen.ts"],
    outfile: join(ROOT, "public", "listen.js"),
    bundle: true,
    minify: true,
    format: "iife",
    target: "es2022",
    logLevel: "error",
  });
  const statics = join(ROOT, ".next", "static");
  const files = readdirSync(statics, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && !entry.name.endsWith(".map"))
    .map((entry) => relative(statics, join(entry.parentPath ?? entry.path, entry.name)).replaceAll("\\", "/"));
  const version = readFileSync(join(ROOT, ".next", "BUILD_ID"), "utf8").trim();
  const ofContent = (file) =>
    createHash("sha256")
      .update(readFileSync(join(ROOT, "public", file)))
      .digest("hex")
      .slice(0, 16);
  const own = readdirSync(join(ROOT, "public"), { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && entry.name !== "sw.js")
    .map((entry) => relative(join(ROOT, "public"), join(entry.parentPath ?? entry.path, entry.name)).replaceAll("\\", "/"));
  const list = [
    { url: "/pen", revision: version },
    // Their names change with their content.
    ...files.map((file) => ({ url: `/_next/static/${file}`, revision: null })),
    ...own.map((file) => ({ url: `/${file}`, revision: ofContent(file) })),
  ];
  await build({
    absWorkingDir: ROOT,
    entryPoints: ["workers/service-worker.ts"],
    outfile: join(ROOT, "public", "sw.js"),
    bundle: true,
    minify: true,
    format: "iife",
    target: "es2022",
    define: { PEN_FILES: JSON.stringify(list), "process.env.NODE_ENV": '"production"' },
    logLevel: "error",
  });
}

if (process.argv.includes("--build-only")) process.exit(0);
process.argv.splice(2, 0, "serve");
await import("./run.mjs");
