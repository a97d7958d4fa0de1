import type { Chance } from "@/core/chance";
import type { Moment, Past } from "@/core/past";
import { type WrittenSession, writePast } from "@/tests/support/past-writer";
import type { Dials } from "./dials";

/**
 * Signs and departures of a season that have nothing to do with one another.
 * @param leads share of the bouts of "head high" that a departure follows within ten seconds, where something is to be there.
 */
export function goings(chance: Chance, { bouts, late }: Dials, days: number, leads = 0): Past {
  const end = 600_000;
  // Later in the session is likelier by so many times, rising evenly.
  const when = () => {
    for (;;) {
      const at = chance();
      if (chance() < (1 + (late - 1) * at) / late) return Math.floor(at * (end - 30_000));
    }
  };
  return writePast(
    Array.from({ length: days }, (_, day): WrittenSession => {
      const moments: Moment[] = [];
      const away: [number, number][] = [];
      const leave = (ms: number) => {
        moments.push([ms, "left", ""]);
        away.push([ms, ms + 5000]);
      };
      for (const name of ["head high", "tail swishes", "calls"])
        for (let i = 0; i < Math.max(1, Math.round(4 / bouts)); i++) {
          let at = when();
          for (let k = 0; k < bouts; k++) {
            moments.push([at, "tension", name]);
            at += 12_000 + Math.floor(chance() * 7000);
          }
          if (name === "head high" && chance() < leads) leave(at - 5000);
        }
      for (let i = 0; i < Math.max(1, Math.round(3 / bouts)); i++) {
        const at = when();
        for (let k = 0; k < bouts; k++) leave(at + k * 15_000);
      }
      return { day, trials: "m", facts: { moments: moments.sort((a, b) => a[0] - b[0]), away } };
    }),
  );
}
