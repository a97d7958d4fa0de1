import { criterionSentence, EASE_GRADES, type Strand, type StrandValue } from "../strands";
import { placeIn } from "../typed";
import { MOVEMENT_GRADES } from "./conversation";
import { type LadderPlan, methodOf, scheduleOf } from "./ladder";
import { type PlayedSchedule, ratioList } from "./schedule";

/**
 * A rung's whole criterion, as `block.start` carries it, so that an event
 * file can be read without the ladder beside it. Limits are absent where the
 * rung does not set them.
 */
export interface Criterion {
  readonly sentence: string;
  /** Highest cue phase that still counts. */
  readonly max_phase?: number;
  /** Longest latency that still counts, in seconds. */
  readonly max_latency_s?: number;
  /** Time to be stayed, in seconds. */
  readonly stay_s?: number;
  /** Lowest ease grade that still counts, 0–4. */
  readonly min_ease?: number;
  readonly side?: "left" | "right" | "both";
  /** The strand whose value is counted, with the value asked for. */
  readonly working?: {
    readonly strand: string;
    readonly unit: string;
    readonly target: number;
    readonly harder: "more" | "less";
    /** Where the bar follows the last values, with those from before this block, oldest first. */
    readonly percentile?: {
      readonly look_back: number;
      readonly wanted_share: number;
      readonly earlier: readonly number[];
      /** Which way of drawing between two ranks and on a tie holds for this block; 1 where it does not say. */
      readonly draw?: number;
    };
  };
  /** Cue phases from the lightest, for the words and the drawing. */
  readonly phases?: readonly string[];
  readonly schedule?: PlayedSchedule;
  /** Planned dwell of each phase in seconds; of the first the gap to the old cue where a cue is being transferred. */
  readonly dwell_s?: readonly number[];
  /** The longest an ask goes on, in seconds. */
  readonly max_s?: number;
  /** Polite wait between the mark and the food, in seconds; absent where none is asked for. */
  readonly polite_s?: number;
  /** Where the handler and the companion are to be. */
  readonly handler_place?: string;
  readonly company?: string;
  /** Lowest grade of the movement that still counts, 0–4, with what the grades are called. */
  readonly min_movement?: number;
  readonly movement?: readonly string[];
  /** The most of what the handler may do within one ask. */
  readonly handler_most?: readonly { readonly act: string; readonly most: number }[];
}

/** The draw new blocks are given; what earlier ones were told stays as it was. */
export const BAR_DRAW = 2;

const numberOf = (value: StrandValue | undefined) => (typeof value === "number" ? value : undefined);

const textOf = (value: StrandValue | undefined) => (typeof value === "string" && value !== "" ? value : undefined);

function strandValue(plan: LadderPlan, values: Readonly<Record<string, StrandValue>>, key: Strand["key"]): StrandValue | undefined {
  const strand = plan.strands.find((s) => s.key === key);
  return strand === undefined ? undefined : values[strand.id];
}

/** What a block knows that the plan does not. */
export interface BlockSurroundings {
  /** Seed of a variable schedule's list, so that no two blocks pay alike. */
  readonly seed?: number;
  /** Values of the working strand from before the block, oldest first, for a bar that follows them. */
  readonly earlierValues?: readonly number[];
}

/**
 * The criterion of one rung.
 * @param number the rung, counted from 1.
 * @throws RangeError where the ladder has no such rung.
 * @example criterionOf(plan, 1) // { max_s: 20, … }
 */
export function criterionOf(plan: LadderPlan, number: number, { seed = number, earlierValues = [] }: BlockSurroundings = {}): Criterion {
  const rung = plan.rungs[number - 1];
  if (rung === undefined) throw new RangeError(`criterionOf: the ladder has no rung ${number}`);
  const schedule = scheduleOf(plan, number);
  const labels = plan.phases.map((phase) => phase.label);
  const stay = numberOf(strandValue(plan, rung.values, "stay"));
  const ease = strandValue(plan, rung.values, "ease");
  const side = strandValue(plan, rung.values, "side");
  const working = plan.strands.find((s) => s.id === plan.workingStrandId);
  const target = working === undefined ? undefined : numberOf(rung.values[working.id]);
  const easeGrade = ease === undefined ? 0 : placeIn(EASE_GRADES, String(ease));
  return {
    sentence: criterionSentence(plan.strands, rung.values, labels),
    max_phase: numberOf(strandValue(plan, rung.values, "lightness")),
    max_latency_s: numberOf(strandValue(plan, rung.values, "latency")),
    stay_s: stay === undefined || stay === 0 ? undefined : stay,
    min_ease: easeGrade > 0 ? easeGrade : undefined,
    side: side === "left" || side === "right" || side === "both" ? side : undefined,
    working:
      working === undefined || target === undefined || (working.key === "stay" && target === 0)
        ? undefined
        : {
            strand: working.key === "own" ? working.name : working.key,
            unit: working.unit,
            target,
            harder: working.harder,
            ...(rung.percentile === undefined
              ? {}
              : {
                  percentile: {
                    look_back: rung.percentile.lookBack,
                    wanted_share: rung.percentile.wantedShare,
                    earlier: earlierValues.slice(-rung.percentile.lookBack),
                    draw: BAR_DRAW,
                  },
                }),
          },
    phases: labels,
    dwell_s: plan.phases.map(({ dwellSeconds }, i) => (i === 0 && plan.transfer !== null ? plan.transfer.gapSeconds : dwellSeconds)),
    max_s: plan.maximumSeconds,
    polite_s:
      methodOf(plan, number) !== "pressure-release" && plan.feeding.reinforcer === "food" && plan.feeding.politeSeconds > 0
        ? plan.feeding.politeSeconds
        : undefined,
    handler_place: textOf(strandValue(plan, rung.values, "handler-place")),
    company: textOf(strandValue(plan, rung.values, "company")),
    min_movement: rung.leastMovement,
    movement: rung.leastMovement === undefined ? undefined : (plan.conversation?.movement ?? MOVEMENT_GRADES),
    handler_most: rung.handlerMost === undefined || rung.handlerMost.length === 0 ? undefined : rung.handlerMost,
    schedule: schedule.kind === "variable" ? { ...schedule, list: ratioList(schedule.ratio, seed) } : schedule,
  };
}
