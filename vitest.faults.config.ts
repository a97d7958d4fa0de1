import { defineConfig } from "vitest/config";
import base from "./vitest.config.ts";

/** The faults: servers of their own, killed, starved and lied to. They mostly wait, so two files run at once; never a second try. */
export default defineConfig({
  ...base,
  test: { include: ["tests/faults/**/*.fault.ts"], testTimeout: 600_000, hookTimeout: 120_000, retry: 0, maxWorkers: 2 },
});
