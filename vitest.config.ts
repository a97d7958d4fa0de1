import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";

export default defineConfig({
  resolve: {
    alias: {
      "@": fileURLToPath(new URL(".", import.meta.url)),
      "server-only": fileURLToPath(new URL("./tests/support/empty.ts", import.meta.url)),
    },
  },
  test: {
    include: [
      "core/**/*.test.ts",
      "library/**/*.test.ts",
      "store/**/*.test.ts",
      "network/**/*.test.ts",
      "ui/**/*.test.ts",
      "ui/**/*.test.tsx",
      "features/**/*.test.ts",
      "demo/**/*.test.ts",
      "scripts/**/*.test.ts",
      "tests/unit/**/*.test.ts",
      "app/**/*.test.ts",
    ],
    // Left alone the runner keeps one of two cores for itself and runs file after file.
    maxWorkers: 2,
    testTimeout: 240_000,
    hookTimeout: 240_000,
  },
});
