import { type Chance, drawExponential } from "@/core/chance";
import { noNames, type SignCounts } from "@/core/know";
import { reduceSession } from "@/core/record";
import { SessionWriter } from "@/tests/support/session-writer";
import type { Dials } from "./dials";
import { dayOf } from "./season";

function poisson(chance: Chance, mean: number): number {
  let n = 0;
  for (let left = mean - drawExponential(chance, 1); left >= 0; left -= drawExponential(chance, 1)) n++;
  return n;
}

/** Tension signs of sessions with days of their own, in bouts; the last has so many times as many. */
export function signSeason(chance: Chance, dials: Dials, sessions: number, more: number): SignCounts[] {
  const next = dayOf(chance, dials);
  const found: SignCounts[] = [];
  for (let i = 0; i < sessions; i++) {
    const { today, written } = next();
    const last = i === sessions - 1;
    const minutes = 10 + 10 * chance();
    let tension = 0;
    const bouts = poisson(chance, (0.3 / dials.bouts) * Math.exp(-0.85 * today) * minutes * (last ? more : 1));
    for (let b = 0; b < bouts; b++) tension += dials.bouts + (dials.bouts > 1 ? poisson(chance, 0.5) : 0);
    if (written || last) found.push({ minutes, byClass: { ease: 0, tension, danger: 0, pain: 0 }, byName: noNames() });
  }
  return found;
}

/** Fifteen minutes with wrong choices and signs of tension that have nothing to do with one another, unless one leads to the other so often. */
export function wrongsAndSigns(chance: Chance, { bouts, late }: Dials, leads: number) {
  const end = 900;
  const taps: { at: number; sign: boolean }[] = [];
  for (const [perMinute, sign] of [
    [0.6, false],
    [1, true],
  ] as const) {
    const n = poisson(chance, (15 * perMinute) / bouts);
    for (let i = 0; i < n; i++) {
      let at = chance();
      while (chance() >= (1 + (late - 1) * at) / late) at = chance();
      for (let k = 0; k < bouts; k++) {
        const seconds = Math.min(end - 1, at * end + k * 8);
        taps.push({ at: seconds, sign });
        if (!sign && chance() < leads) taps.push({ at: Math.min(end - 1, seconds + 2 + 4 * chance()), sign: true });
      }
    }
  }
  const w = new SessionWriter();
  w.block(0);
  for (const { at, sign } of taps.sort((x, y) => x.at - y.at))
    if (sign) w.add(at, "signal", { name: "braces", class: "tension" });
    else w.add(at, "wrong", { met: "moved on", seconds: 3 });
  w.add(end, "session.end");
  return reduceSession(w.events);
}
