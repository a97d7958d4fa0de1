import { describe, expect, it } from "vitest";
import { reduceSession } from "@/core/record";
import { DEFAULT_SETTINGS } from "@/core/settings";
import { onlyNamed } from "@/core/start";
import { allowanceOn } from "@/core/welfare";
import { emptyDraft } from "@/tests/support/plan";
import { recorderStart, type StartChange } from "@/tests/support/recorder-start";
import { SessionWriter } from "@/tests/support/session-writer";
import { adviceNow } from "./use-advice";

/** A session whose block runs on the ladder of the start, with so many answers met. */
function record(met = 3, write: (w: SessionWriter) => void = () => undefined) {
  const w = new SessionWriter();
  w.add(0, "session.start", { horse: "Bo", method: "combined" });
  write(w);
  w.block(1);
  for (let i = 0; i < met; i++) w.add(5 + 5 * i, "trial", { outcome: "met", phase: 1 });
  return reduceSession(w.events);
}

const said = (change: StartChange, of = record(), minutes = 1) => adviceNow(recorderStart(change), of, minutes * 60_000);

describe("the word of the recorder", () => {
  it("is there where a block of the ladder in work runs, and nowhere else", () => {
    expect(said({})?.word).toBe("Repeat");
    expect(adviceNow(recorderStart(), reduceSession([]), 0)).toBeNull();
    const named = recorderStart();
    expect(adviceNow({ ...named, part: { ...named.part, ladderId: null, version: null } }, record(), 60_000)).toBeNull();
  });

  it("goes by the cap on circling of the ladder in work, and of no other", () => {
    const circlingLeft = { value: 4, why: "This yard's rule." };
    const round: StartChange = { behaviourInput: { ...onlyNamed("round"), involves: ["circling"] }, today: { circlingLeft } };
    expect(said(round, record(), 3)?.word).toBe("Repeat");
    expect(said(round, record(), 5)).toMatchObject({ word: "Stop", why: "limit" });
    expect(said({ today: { circlingLeft } }, record(), 5)?.word).toBe("Repeat");
  });

  it("goes by what restrictions allow today, also what the behaviour involves", () => {
    const noTying = allowanceOn(
      [{ kind: "no-tying", amount: null, detail: null, reason: "sore poll", givenBy: "", from: null, until: null }],
      "2026-06-01",
      null,
    );
    const tied: StartChange = { behaviourInput: { ...onlyNamed("tied"), involves: ["tying"] }, today: { allowance: noTying } };
    expect(said(tied)).toMatchObject({ word: "Stop", reason: expect.stringContaining("sore poll") });
    expect(said({ today: { allowance: noTying } })?.word).toBe("Repeat");
  });

  it("counts heat worse for a horse that bears it badly", () => {
    const warm = record(3, (w) => w.add(0.5, "preflight", { skipped: false, air_c: 28, humidity: 50, sky: "sun" }));
    const levels = [0, 3].map((heatLowerCelsius) => said({ today: { heatLowerCelsius } }, warm)?.word);
    expect(levels).toEqual(["Repeat", "Stop"]);
  });

  it("goes by the yard's own thresholds", () => {
    const settings = { ...DEFAULT_SETTINGS, restAfterMinutes: 60, finishAfterMinutes: 6 };
    expect(said({ yard: { settings }, plan: { ...emptyDraft().plan, plannedRepetitions: 50 } }, record(), 8)?.word).toBe("Finish");
    const later = { ...settings, finishAfterMinutes: 40 };
    expect(said({ yard: { settings: later }, plan: { ...emptyDraft().plan, plannedRepetitions: 50 } }, record(), 8)?.word).toBe("Repeat");
  });
});
