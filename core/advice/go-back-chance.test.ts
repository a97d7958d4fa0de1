import { describe, expect, it } from "vitest";
import { DEFAULT_SETTINGS } from "../settings";
import { goBackThresholds } from ".";

describe("how often Ease is heard by a horse that does as its rule asks", () => {
  it.each([1, 2, 3, 4, 5, 6, 7, 8, 9])("in a tenth of its blocks of ten at the most, by a rule of %i in 10", (met) => {
    const { run, misses, window } = goBackThresholds({ kind: "share", of: 10, met, window: "moving" }, DEFAULT_SETTINGS);
    const p = Math.min(0.8, met / 10);
    // Every block of ten, one by one.
    let heard = 0;
    for (let block = 0; block < 2 ** 10; block++) {
      const failed = Array.from({ length: 10 }, (_, i) => ((block >> i) & 1) === 1);
      const chance = failed.reduce((all, one) => all * (one ? 1 - p : p), 1);
      const eases = failed.some((_, i) => {
        const before = failed.slice(0, i + 1);
        const running = before.length - 1 - before.lastIndexOf(false);
        return running >= run || before.slice(-window).filter(Boolean).length >= misses;
      });
      if (eases) heard += chance;
    }
    expect(heard).toBeLessThanOrEqual(0.1);
  });
});
