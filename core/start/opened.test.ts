import { describe, expect, it } from "vitest";
import { PLAN } from "@/tests/support/circle-plan";
import { plainPack, plainYard } from "@/tests/support/plain-pack";
import { SESSION_KIND_FACTS, SESSION_KINDS } from "../events";
import { planToLog } from "../events/circle-log";
import { openSession, unpackStart } from ".";

const NOW = Date.UTC(2026, 5, 1, 9);
const SO_FAR = { storeId: "s", events: [], clocks: {}, position: 0 };

describe("a session as it is opened", () => {
  it.each(SESSION_KINDS)("of kind %s has its recorder, and its own session in it", (kind) => {
    const circle = kind === "circle" ? { circle: { plan: planToLog(PLAN), overrides: [] } } : {};
    const begun = { id: "n", horse: "h", kind, ladder: null, person: null, place: null, start_rung: null, kit: [], ...circle };
    const opened = openSession(plainPack(), plainYard(), NOW, begun, SO_FAR, "all");
    expect(opened.recorder).toBe(SESSION_KIND_FACTS[kind].recorder);
    const { session } = "packed" in opened ? unpackStart(opened.packed) : opened.start;
    expect(session).toMatchObject({ id: "n", begun: { kind }, battery: kind === "first-look" });
  });

  it("says on a device that what others circled is not known to it, and on the server does not", () => {
    const ladders = plainPack().ladders.map((one) => ({ ...one, involves: ["circling"] }));
    const pack = plainPack({ ladders, horse: { ...plainPack().horse, bornDay: "2023-01-01", birthYear: 2023 } });
    const begun = { id: "n", horse: "h", kind: "work", ladder: "ladder-1", person: null, place: null, start_rung: 1, kit: [] } as const;
    const used = (knows: "all" | "own") => {
      const opened = openSession(pack, plainYard(), NOW, begun, SO_FAR, knows);
      return "packed" in opened ? opened.packed.today.used.filter((line) => line.startsWith("Circling")) : [];
    };
    expect(used("all")).toHaveLength(1);
    expect(used("own")).toEqual([`${used("all")[0]} As far as this phone knows.`]);
  });
});
