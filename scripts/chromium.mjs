// Debian's Chromium for the browser tests and the pictures: found, or installed where that is allowed.
import { spawnSync } from "node:child_process";
import { existsSync } from "node:fs";

const PLACES = [process.env.DEFT_CHROMIUM, "/usr/bin/chromium", "/usr/bin/chromium-browser"].filter(
  (path) => path !== undefined && path !== "",
);

const find = () => PLACES.find((path) => existsSync(path));

/** The browser's path; ends the process with a clear message where there is none and none can be installed. */
export function ensureChromium() {
  const found = find();
  if (found !== undefined) return found;
  const aptGet = ["/usr/bin/apt-get", "/bin/apt-get"].find((path) => existsSync(path));
  if (aptGet !== undefined && process.getuid?.() === 0) {
    process.stderr.write("Installing Debian's chromium for the browser tests.\n");
    const options = { stdio: ["ignore", 2, 2], env: { ...process.env, DEBIAN_FRONTEND: "noninteractive" } };
    spawnSync(aptGet, ["update"], options);
    spawnSync(aptGet, ["install", "-y", "--no-install-recommends", "chromium", "fonts-liberation"], options);
    const installed = find();
    if (installed !== undefined) return installed;
  }
  process.stderr.write(
    "The browser tests need Chromium. Install it (on Debian: apt-get install chromium) or set DEFT_CHROMIUM to its path.\n",
  );
  process.exit(1);
}

/** Switches that keep the browser quiet and able to run as root. */
export const CHROMIUM_ARGUMENTS = [
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
];
