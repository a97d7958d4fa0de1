import type { Chance } from "@/core/chance";
import { drawNormal } from "@/core/chance";
import type { EventLog } from "./event-log";

/** The look before work: skipped now and then, mostly well. Weather goes with the year. */
export function lookBefore(log: EventLog, chance: Chance, startWallMs: number, pouch: number | null): void {
  if (chance() < 0.15) {
    log.add("preflight", { skipped: true });
    return;
  }
  const day = (startWallMs / 86_400_000) % 365;
  // In summer they work in the cool of the morning.
  const air = Math.min(19, Math.round(11 - 9 * Math.cos(((day - 20) / 365) * 2 * Math.PI) + drawNormal(chance, 0, 3)));
  const open = chance() < 0.08 ? ["gloves"] : [];
  log.add("preflight", {
    air_c: air,
    humidity: Math.round(Math.min(98, Math.max(35, drawNormal(chance, 68, 12)))),
    wind: ["still", "breeze", "wind"][Math.floor(chance() * 3)],
    gear: { helmet: true, gloves: open.length === 0, boots: true },
    checks: ["kit fits", "sound", "fed", "calm", "stick and line accepted"],
    open,
    ...(pouch === null ? {} : { pouch }),
    skipped: false,
  });
}

/** After work: breathing coming down in three readings, legs and kit looked at. */
export function lookAfter(
  log: EventLog,
  chance: Chance,
  restingBreaths: number,
  recovery: { readonly above: number; readonly halfMinutes: number },
): void {
  if (chance() < 0.25) return;
  const above = recovery.above * (0.8 + 0.4 * chance());
  const readAtMs = log.wallMs;
  const breathing: { wall_ms: number; per_min: number }[] = [];
  for (let i = 0; i < 3; i++) {
    const minutes = (log.wallMs - readAtMs) / 60_000;
    const rate = restingBreaths + above * 2 ** (-minutes / recovery.halfMinutes) * (0.94 + 0.12 * chance());
    const everyMs = 60_000 / rate;
    const taps = Array.from({ length: 11 }, (_, n) => Math.round(n * everyMs));
    log.wait((10 * everyMs) / 1000);
    log.add("breath", { taps_ms: taps });
    breathing.push({ wall_ms: log.wallMs, per_min: Math.round(rate * 10) / 10 });
    log.wait(110);
  }
  log.add("aftercare", {
    walked_off: true,
    legs: chance() < 0.9 ? "looked at" : "small graze, near fore; washed",
    kit: chance() < 0.7 ? "looked at" : "",
    food_g: null,
    breathing,
  });
}
