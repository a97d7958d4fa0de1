import { defineConfig } from "@playwright/test";
import { CHROMIUM_ARGUMENTS } from "./scripts/chromium.mjs";

export default defineConfig({
  testDir: "tests/e2e",
  // Two cores: one for the browser, one for the server it talks to.
  workers: 2,
  fullyParallel: false,
  forbidOnly: true,
  // What passes only at a second try has failed.
  retries: 0,
  // Waits end when what is waited for is there. They only have to outlast a machine that is shared and slow for a while.
  timeout: 240_000,
  expect: { timeout: 45_000 },
  reporter: [["list"], ["json", { outputFile: process.env.PLAYWRIGHT_JSON_OUTPUT_NAME ?? ".cache/test/browser.json" }]],
  outputDir: ".cache/test/browser",
  use: {
    browserName: "chromium",
    launchOptions: { executablePath: process.env.DEFT_CHROMIUM ?? "/usr/bin/chromium", args: CHROMIUM_ARGUMENTS },
    // The pages' worker is tried by its own tests; in the others it would only cost time.
    serviceWorkers: "block",
    viewport: { width: 1280, height: 800 },
    actionTimeout: 45_000,
  },
});
