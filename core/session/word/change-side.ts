import type { EvidenceTrial } from "../evidence-scope";
import type { Advice } from "./advice";
import type { WordInput } from "./input";
import type { WordSettings } from "./settings";

const SIDE_WORD = { L: "left", R: "right" } as const;
const OTHER = { L: "R", R: "L" } as const;

const sums = (trials: readonly EvidenceTrial[], side: "L" | "R") => {
  const own = trials.filter((trial) => trial.side === side);
  return { met: own.filter(({ outcome }) => outcome === "met").length, of: own.length };
};

/** Which side is clearly behind on this rung, or null. */
function weaker(evidence: readonly EvidenceTrial[], settings: WordSettings): { side: "L" | "R"; words: string; gap: number } | null {
  const left = sums(evidence, "L");
  const right = sums(evidence, "R");
  if (left.of < settings.sideGapTrials || right.of < settings.sideGapTrials) return null;
  const gap = right.met / right.of - left.met / left.of;
  if (Math.abs(gap) < settings.sideGap - 1e-12) return null;
  return { side: gap > 0 ? "L" : "R", words: `Left ${left.met} of ${left.of}, right ${right.met} of ${right.of}.`, gap: Math.abs(gap) };
}

/** Change side: this side has had its planned share and the other has not, or the other one is clearly behind. */
export function sideAdvice(input: WordInput, block: readonly EvidenceTrial[], settings: WordSettings): Advice | null {
  const { sides } = input;
  if (sides == null) return null;
  const here = sides.here + block.length;
  const to = `Go to the ${SIDE_WORD[OTHER[sides.running]]}.`;
  const behind = weaker([...input.earlier, ...block], settings);
  const { planned } = sides;
  const share = (side: "L" | "R") => Math.ceil((planned ?? 0) * (behind?.side === side ? settings.weakerSideTimes : 1));
  const enough = share(sides.running);
  if (planned !== null && here >= enough && sides.there < share(OTHER[sides.running]))
    return {
      word: "Change side",
      reason: `${here} on the ${SIDE_WORD[sides.running]}, ${sides.there} on the ${SIDE_WORD[OTHER[sides.running]]}; planned ${enough}. ${to}`,
      numbers: { here, there: sides.there, planned: enough },
    };
  if (behind !== null && behind.side !== sides.running && block.length >= settings.sideGapTrials && sides.there < here)
    return { word: "Change side", reason: `${behind.words} ${to}`, numbers: { gap: Math.round(behind.gap * 100) } };
  return null;
}
