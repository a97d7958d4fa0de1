import { mixedChance } from "@/core/chance";
import type { Claim } from "./claims";

/** How often it was so, among the horses it was said of. */
export interface Measured {
  readonly claim: Claim;
  readonly share: number;
  readonly of: number;
  /** Whether its limits hold, with three standard errors of the simulation left to chance. */
  readonly holds: boolean;
}

const ERRORS = 3;

/** Tries a claim on so many horses; the seed draws them, and 1 draws those that were always tried. */
export function measure(claim: Claim, horses: number, seed = 1): Measured {
  let so = 0;
  let of = 0;
  for (let i = 0; i < horses; i++) {
    const was = claim.run(mixedChance(`${seed === 1 ? "" : `${seed} `}${claim.sentence} ${claim.horses} ${i}`));
    if (was === null) continue;
    of++;
    if (was) so++;
  }
  const share = of === 0 ? 0 : so / of;
  const error = (limit: number) => ERRORS * Math.sqrt((limit * (1 - limit)) / Math.max(1, of));
  const { atMost = 1, atLeast = 0 } = claim;
  return { claim, share, of, holds: of > 0 && share <= atMost + error(atMost) && share >= atLeast - error(atLeast) };
}
