import { describe, expect, it } from "vitest";
import type { EvidenceTrial } from "@/core/record";
import { ladderPart, onlyNamed } from "@/core/start";
import { emptyDraft } from "@/tests/support/plan";
import { recorderStart } from "@/tests/support/recorder-start";
import { packStart, unpackStart } from "./wire";

const trial = (n: number, change: Partial<EvidenceTrial> = {}): EvidenceTrial => ({
  session: `session-${n % 3}`,
  handler: n % 4 === 0 ? null : `person-${n % 3}`,
  wallMs: 1_700_000_000_000 + n * 1000.5,
  ladder: "l",
  version: 1 + (n % 2),
  rung: 1 + (n % 5),
  kind: n % 7 === 0 ? "probe" : "work",
  blockKey: `session-${n % 3}:${n % 4}`,
  side: n % 2 === 0 ? "L" : null,
  outcome: n % 3 === 0 ? "refused" : "met",
  phase: n % 4 === 0 ? null : n % 4,
  ease: null,
  value: n % 5 === 0 ? 1 / 3 : null,
  clean: n % 2 === 0,
  comparable: n % 3 !== 0,
  ...change,
});

describe("what the recorder is given", () => {
  it("comes out on the device as it went in, and takes a third of the way", () => {
    const earlier = Array.from({ length: 200 }, (_, n) => trial(n));
    const other = [trial(1, { ladder: "m" })];
    const of = (id: string, trials: readonly EvidenceTrial[]) => ({
      ladder: { id, version: 1, revision: 1 },
      behaviourInput: onlyNamed(id),
      plan: emptyDraft().plan,
      next: { rung: 1, kind: "work", headline: "", reason: "", barred: null } as const,
      earlier: trials,
      circlingLeft: null,
    });
    const { part, ...start } = recorderStart({ ...of("l", earlier), others: [ladderPart(of("m", other)), ladderPart(of("n", []))] });
    expect(start.first).toBe(part);
    const packed = packStart(start);
    expect(unpackStart(packed)).toEqual(start);
    expect(JSON.stringify(packed.first.earlier).length * 3).toBeLessThan(JSON.stringify(earlier).length * 1.1);
    // Told once: the page sends what is the same object only once.
    expect(packed.parts[0]?.earlier).toBe(packed.first.earlier);
  });
});
