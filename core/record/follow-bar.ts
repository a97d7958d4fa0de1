import { mixedChance, seededChance } from "../chance";
import { beatsDrawnBar, type DrawnBar, drawBar, percentileBar } from "../evidence/percentile";
import type { Criterion } from "../ladder/criterion";
import { shortNumber } from "../strands/phrase";
import type { Trial } from "./trial";

/** What the bar needs to know of the trials of its block. */
export type BarTrial = Pick<Trial, "outcome" | "value" | "tapped">;

/** What the draw of a block's bar hangs on. */
export interface BarBlock {
  /** Number of the block in the session. */
  readonly number: number;
  /** The event that began it. */
  readonly eventId: string;
}

/**
 * The first way of drawing seeded a new generator with a small number for each
 * trial, whose first draw is always near 1. What those blocks were told stays.
 */
const drawChance = (draw: number, block: BarBlock, trial: number) =>
  draw <= 1 ? seededChance(block.number * 10_007 + trial) : mixedChance(`${block.eventId}:${trial}`);

/**
 * The bar of the next answer on a rung that follows the horse's own values, or
 * null where the rung's bar stands still. Its draw is seeded by the block's own
 * event and the count of trials in it: the recorder says before the ask what
 * the core finds again when it derives the session.
 * @param before trials of the block so far, oldest first.
 * @example barOf(criterion, block, []) // { criterion: 3, equalCounts: true, letsAll: false }
 */
export function barOf(criterion: Criterion | null, block: BarBlock, before: readonly BarTrial[]): DrawnBar | null {
  const working = criterion?.working;
  if (working?.percentile === undefined) return null;
  const { look_back, wanted_share, earlier, draw = 1 } = working.percentile;
  // From the newest back, and no farther than the bar looks: it is asked for after every tap.
  const values: number[] = [];
  for (let i = before.length - 1; i >= 0 && values.length < look_back; i--) {
    const { value, tapped } = before[i] as BarTrial;
    if (value !== null && tapped !== "refused") values.push(value);
  }
  const bar = percentileBar([...earlier, ...values.reverse()], look_back, wanted_share, working.harder);
  return drawBar(bar, drawChance(draw, block, before.length));
}

/**
 * The bar in the trainer's words: "more than 3 m earns it".
 * @example barSentence(bar, { unit: "m", harder: "more" }) // "Any answer earns it."
 */
export function barSentence(bar: DrawnBar, working: { readonly unit: string; readonly harder: "more" | "less" }): string {
  if (bar.criterion === null) return bar.letsAll ? "Any answer earns it." : "None earns it this time.";
  const value = `${shortNumber(bar.criterion)}${working.unit === "" ? "" : ` ${working.unit}`}`;
  if (bar.equalCounts) return `${value} or ${working.harder} earns it.`;
  return `${working.harder === "more" ? "More" : "Less"} than ${value} earns it.`;
}

/**
 * A trial tapped as met, judged by its bar: it stands, or counts as a try with the reason.
 * @example judgedByBar(trial, bar, criterion) // { number: 1, blockIndex: 0, askMs: 5000, … }
 */
export function judgedByBar(trial: Trial, bar: DrawnBar, criterion: Criterion): Trial {
  const working = criterion.working;
  if (working === undefined || trial.outcome !== "met" || trial.value === null || beatsDrawnBar(bar, trial.value, working.harder))
    return trial;
  const unit = working.unit === "" ? "" : ` ${working.unit}`;
  return { ...trial, outcome: "try", shortfall: `It was ${shortNumber(trial.value)}${unit}. ${barSentence(bar, working)}` };
}
