// Plain JavaScript over Node alone: it runs on a fresh clone, before anything is installed.
import { spawnSync } from "node:child_process";
import { existsSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";

export const ROOT = fileURLToPath(new URL("..", import.meta.url));
const STAMP = join(ROOT, "node_modules", ".deft-installed");

const say = (text) => process.stderr.write(`${text}\n`);

/** Whether what is installed is what the lock file asks for. */
function installed() {
  if (!existsSync(STAMP)) return false;
  return readFileSync(STAMP, "utf8") === readFileSync(join(ROOT, "package-lock.json"), "utf8");
}

/** Installs the packages of the lock file where they are missing. Everything it says goes to standard error. */
export function ensureInstalled() {
  if (installed()) return;
  const [major, minor] = process.versions.node.split(".").map(Number);
  if (major < 20 || (major === 20 && minor < 20)) {
    say(`Deft Tether needs Node 20.20 or newer; this is ${process.version}.`);
    process.exit(1);
  }
  say("Installing packages. The first time takes a few minutes.");
  // Not "npm ci": it refuses a lock file whose optional packages for other systems a registry happens not to hold.
  // The versions are the same, since package.json pins them and the lock file is read and left as it is.
  const run = spawnSync("npm", ["install", "--no-save", "--no-audit", "--no-fund"], {
    cwd: ROOT,
    stdio: ["ignore", 2, 2],
    shell: process.platform === "win32",
  });
  if (run.status !== 0) {
    say("The packages could not be installed; the lines above say why. Nothing else was changed.");
    process.exit(1);
  }
  writeFileSync(STAMP, readFileSync(join(ROOT, "package-lock.json"), "utf8"));
}

/** When the newest of these files or folders was changed, in milliseconds. */
export function newestChange(paths, list) {
  let newest = 0;
  for (const path of paths) {
    const full = join(ROOT, path);
    if (!existsSync(full)) continue;
    if (!statSync(full).isDirectory()) {
      newest = Math.max(newest, statSync(full).mtimeMs);
      continue;
    }
    for (const entry of list(full, { recursive: true, withFileTypes: true })) {
      if (entry.isFile()) newest = Math.max(newest, statSync(join(entry.parentPath ?? entry.path, entry.name)).mtimeMs);
    }
  }
  return newest;
}
