import type { CuePhase } from "../cues";
import type { Reinforcer } from "../events/reinforcers";
import type { MasteryRule } from "../mastery";
import type { Strand, StrandValue } from "../strands";
import type { Conversation, HandlerAct } from "./conversation";
import type { Schedule } from "./schedule";
import type { Ways } from "./way-values";

export const METHODS = ["pressure-release", "marker-food", "combined"] as const;
/** How the horse is taught. It chooses buttons and words, never the arithmetic. */
export type Method = (typeof METHODS)[number];

export const OFFER_RULES = ["reinforce", "ignore", "settle"] as const;
/** What an answer nobody asked for earns. */
export type OfferRule = (typeof OFFER_RULES)[number];

/** Where a rung's bar follows the horse's own last values instead of standing still. */
export interface PercentileSetting {
  /** How many of the last values are looked at. */
  readonly lookBack: number;
  /** Share of answers that should earn the reinforcer, from 0 to 1. */
  readonly wantedShare: number;
}

/** One rung: a value for every strand of the ladder, by strand id. What it leaves out is as the ladder says. */
export interface Rung {
  readonly values: Readonly<Record<string, StrandValue>>;
  readonly method?: Method;
  readonly schedule?: Schedule;
  readonly percentile?: PercentileSetting;
  /** Why a fault of the step to this rung is kept; absent where there is none or it is not kept. */
  readonly kept?: string;
  /** Lowest grade of the movement that still counts, 0–4; absent where the movement is not graded. */
  readonly leastMovement?: number;
  /** The most of what the handler may do within one ask. */
  readonly handlerMost?: readonly { readonly act: HandlerAct; readonly most: number }[];
}

/** How food is given, and what takes its place. */
export interface Feeding {
  readonly reinforcer: Reinforcer;
  /** Mass of one piece, in grams. */
  readonly pieceGrams: number | null;
  /** Most for one day, in grams. */
  readonly dayLimitGrams: number | null;
  /** Where it is given. */
  readonly where: string;
  /** How long the head is turned away before food comes, in seconds; 0 asks for none. */
  readonly politeSeconds: number;
}

/** A new cue put as phase 1 in front of the old one. */
export interface CueTransfer {
  /** Pause between the new cue and the old one, in seconds. */
  readonly gapSeconds: number;
}

/** One version of a plan for one horse and one behaviour. */
export interface LadderPlan {
  readonly method: Method;
  readonly strands: readonly Strand[];
  readonly rungs: readonly Rung[];
  readonly phases: readonly CuePhase[];
  /** The longest an ask goes on before the horse is helped, in seconds. */
  readonly maximumSeconds: number;
  /** Whether the level is held on a wrong answer: no release, no escalation. */
  readonly holdOnWrong: boolean;
  /** How near the hand or tool comes before it touches, in centimetres, where the last phase is a touch; null where it is not said. */
  readonly firstTouchCentimetres: number | null;
  /** Where the first phase is a new cue being put in front of the second. */
  readonly transfer: CueTransfer | null;
  readonly mastery: MasteryRule;
  readonly schedule: Schedule;
  readonly feeding: Feeding;
  readonly offers: OfferRule;
  /** The number strand whose value is counted in each trial, or null. */
  readonly workingStrandId: string | null;
  /** Repetitions planned for a block. */
  readonly plannedRepetitions: number;
  /** What was chosen where trainers disagree. */
  readonly ways: Ways;
  /** What is logged between the asks; absent where nothing is. */
  readonly conversation?: Conversation;
}

/** What a plan says where nothing else was chosen. */
export const PLAN_DEFAULTS = {
  holdOnWrong: true,
  firstTouchCentimetres: null,
  transfer: null,
  feeding: { reinforcer: "food", pieceGrams: null, dayLimitGrams: null, where: "", politeSeconds: 0 },
  ways: {},
} as const satisfies Partial<LadderPlan>;

export const FEWEST_RUNGS = 2;
export const MOST_RUNGS = 40;
export const MOST_STRANDS = 12;

/** The schedule of a rung, counted from 1: its own, or the ladder's. */
export function scheduleOf(plan: Pick<LadderPlan, "rungs" | "schedule">, rung: number): Schedule {
  return plan.rungs[rung - 1]?.schedule ?? plan.schedule;
}

/** The method of a rung, counted from 1: its own, or the ladder's. */
export function methodOf(plan: LadderPlan, rung: number): Method {
  return plan.rungs[rung - 1]?.method ?? plan.method;
}

/** The one side a rung, counted from 1, asks for; null where it asks for both, or says nothing. */
export function sideAsked(plan: Pick<LadderPlan, "rungs" | "strands">, rung: number): "L" | "R" | null {
  const side = plan.strands.find(({ key }) => key === "side");
  const value = side === undefined ? undefined : plan.rungs[rung - 1]?.values[side.id];
  return value === "left" ? "L" : value === "right" ? "R" : null;
}

/** Whether a rung, counted from 1, asks for both sides. */
export function asksBothSides(plan: Pick<LadderPlan, "rungs" | "strands">, rung: number): boolean {
  const side = plan.strands.find(({ key }) => key === "side");
  return side !== undefined && plan.rungs[rung - 1]?.values[side.id] === "both";
}
