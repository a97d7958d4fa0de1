import { type Chance, drawNormal } from "@/core/chance";
import { NOTHING, type SessionRelief } from "@/core/know";
import type { Dials } from "./dials";
import { dayOf, logit, orderOn, shareOf, withinSession } from "./season";

type Zone = "gate" | "middle" | "corner";
const NAMES: readonly Zone[] = ["gate", "middle", "corner"];
/** Asks a zone takes of the session: by its middle the session is so far on. */
const ASKS_EACH = 6;

/**
 * Three zones worked one after the other in each session: the share of the time
 * under pressure there.
 * @param easier logits less pressure at the gate.
 */
export function zoneSeason(chance: Chance, dials: Dials, easier: number, days: number): SessionRelief[] {
  const next = dayOf(chance, dials);
  const found: SessionRelief[] = [];
  let lastTime: ReadonlyMap<Zone, number> | null = null;
  for (let day = 0; day < days; day++) {
    const { today, written } = next();
    const walked: readonly Zone[] = orderOn(dials, chance, NAMES, day, lastTime);
    const zones = walked.map((zone, i) => {
      const seconds = 60 + 120 * chance();
      const middle = logit(0.35) - today - withinSession(dials, i * ASKS_EACH + ASKS_EACH / 2 - 1) + drawNormal(chance, 0, 0.5);
      const share = shareOf(middle - (zone === "gate" ? easier : 0));
      return { ...NOTHING, zone, seconds, pressureSeconds: seconds * share, releases: 4, reinforcers: 4, trials: 4, met: 3 };
    });
    // The zone that went worse is the one with more pressure.
    lastTime = new Map(zones.map(({ zone, seconds, pressureSeconds }) => [zone, 1 - pressureSeconds / seconds]));
    const stays = zones.map(({ zone, seconds }, i) => ({ zone, seconds, left: i < zones.length - 1 }));
    if (written) found.push({ zones, stays, secondsElsewhere: 0, departures: 0 });
  }
  return found;
}
