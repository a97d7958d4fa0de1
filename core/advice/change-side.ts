import type { EvidenceTrial } from "../record/evidence-scope";
import type { YardSettings } from "../settings";
import { numberWord, numberWordFirst, otherSide, SIDE_WORDS } from "../words";
import type { Advice } from "./advice";
import { mayBeSaid } from "./declined";
import type { AdviceInput } from "./input";

/**
 * Change side: this side has had its planned share and the other has not, or
 * the other one is known to be the weaker. How today's few asks on each side
 * compare says nothing: equal sides differ by 30 points in half of all days.
 * @example sideAdvice(input, [], settings) // null
 */
export function sideAdvice(input: AdviceInput, block: readonly EvidenceTrial[], settings: YardSettings): Advice | null {
  const { sides } = input;
  if (sides == null) return null;
  const here = sides.here + block.length;
  const there = otherSide(sides.running);
  const to = `Change to the ${SIDE_WORDS[there]}.`;
  const { planned, weaker = null } = sides;
  const share = (side: "L" | "R") => Math.ceil((planned ?? 0) * (weaker === side ? settings.weakerSideTimes : 1));
  const enough = share(sides.running);
  const byPlan: Advice | null =
    planned === null || here < enough || sides.there >= share(there)
      ? null
      : {
          word: "Change side",
          why: "planned share",
          reason: `${numberWordFirst(here)} done on the ${SIDE_WORDS[sides.running]}${sides.there === 0 ? "" : `, ${numberWord(sides.there)} on the ${SIDE_WORDS[there]}`}. ${to}`,
          numbers: { here, there: sides.there, planned: enough },
        };
  if (byPlan !== null && mayBeSaid(byPlan, input.declined)) return byPlan;
  if (weaker !== there || block.length < settings.sideGapTrials || sides.there >= here) return null;
  const byWeakness: Advice = {
    word: "Change side",
    why: "weaker side",
    reason: `The ${SIDE_WORDS[there]} has been the weaker side these last weeks. Today it had ${numberWord(sides.there)}, this side ${numberWord(here)}. ${to}`,
    numbers: { here, there: sides.there },
  };
  return mayBeSaid(byWeakness, input.declined) ? byWeakness : null;
}
