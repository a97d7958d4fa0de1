import * as z from "zod";
import { cuePhaseDocument } from "../../cues/document";
import { MOST_CUE_PHASES } from "../../cues/phase";
import { document, flag, list, name, number, text, wholeNumber, within, word } from "../../documents";
import { REINFORCERS } from "../../events/reinforcers";
import { masteryRuleDocument } from "../../mastery/document";
import { SIGN_KINDS } from "../../signs";
import { strandDocument } from "../../strands/document";
import { recordOf } from "../../typed";
import { HANDLER_ACTS, OWN_TIMES, RIG_TIMES } from "../conversation";
import { FEWEST_RUNGS, METHODS, MOST_RUNGS, MOST_STRANDS, OFFER_RULES } from "../ladder";
import { MOST_PINNED, MOST_RIG_CHECKS, PLAN_BOUNDS } from "../plan-bounds";
import { WAY_KEYS } from "../way-values";

/** Which met answers earn their reinforcer. */
export const scheduleDocument = z.discriminatedUnion("kind", [
  document({ kind: z.literal("every") }),
  document({ kind: z.literal("fixed"), ratio: within(wholeNumber, PLAN_BOUNDS.ratio) }),
  /** On average every `ratio`-th. */
  document({ kind: z.literal("variable"), ratio: within(wholeNumber, PLAN_BOUNDS.ratio) }),
]);

/** A sign with its class, as it is pinned to a ladder or a horse. */
export const pinnedSignDocument = document({ name, class: word(SIGN_KINDS) });

/** What a ladder logs between the asks. What it leaves out has no pad. */
export const conversationDocument = document({
  /** What is done when the horse chooses wrong. */
  whenWrong: document({
    /** What it is expected to do, and what it is to meet: taken for a tap that says neither. */
    did: text,
    met: text,
    /** In the trainer's own words. */
    plan: text,
  }).optional(),
  ownTimes: list(word(OWN_TIMES), OWN_TIMES.length).optional(),
  pinned: list(pinnedSignDocument, MOST_PINNED).optional(),
  acts: list(word(HANDLER_ACTS), HANDLER_ACTS.length).optional(),
  /** Words for the movement from 0 to 4. */
  movement: z.array(name).length(5).readonly().optional(),
  /** Whether moving away as the reinforcer has a pad of its own. */
  retreats: flag.optional(),
  /** What to look at before work begins, or also each time the side changes. */
  rig: list(document({ text: name, when: word(RIG_TIMES) }), MOST_RIG_CHECKS).optional(),
});

/** One rung: a value for every strand of the ladder, by strand id. What it leaves out is as the ladder says. */
export const rungDocument = document({
  /** A number, or the label of a level. */
  values: z.record(text, z.union([number, text])).readonly(),
  method: word(METHODS).optional(),
  schedule: scheduleDocument.optional(),
  /** Where a rung's bar follows the horse's own last values instead of standing still. */
  percentile: document({
    /** How many of the last values are looked at. */
    lookBack: within(wholeNumber, PLAN_BOUNDS.lookBack),
    /** Share of answers that should earn the reinforcer, from 0 to 1. */
    wantedShare: within(number, PLAN_BOUNDS.wantedShare),
  }).optional(),
  /** Why a fault of the step to this rung is kept; absent where there is none or it is not kept. */
  kept: text.optional(),
  /** Lowest grade of the movement that still counts, 0–4; absent where the movement is not graded. */
  leastMovement: within(wholeNumber, PLAN_BOUNDS.leastMovement).optional(),
  /** The most of what the handler may do within one ask. */
  handlerMost: list(
    document({ act: word(HANDLER_ACTS), most: within(wholeNumber, PLAN_BOUNDS.handlerMost) }),
    HANDLER_ACTS.length,
  ).optional(),
});

/** How food is given, and what takes its place. */
export const feedingDocument = document({
  reinforcer: word(REINFORCERS),
  /** Mass of one piece, in grams. */
  pieceGrams: within(number, PLAN_BOUNDS.pieceGrams).nullable(),
  /** Most for one day, in grams. */
  dayLimitGrams: within(number, PLAN_BOUNDS.dayLimitGrams).nullable(),
  /** Where it is given. */
  where: text,
  /** How long the head is turned away before food comes, in seconds; 0 asks for none. */
  politeSeconds: within(number, PLAN_BOUNDS.politeSeconds),
});

/** What was chosen, by question; a question left out takes its first option. */
export const waysDocument = document({
  ...recordOf(WAY_KEYS, () => text.optional()),
  /** Which of its library template's ways the ladder began with, by the way's key. */
  taught: z.string().max(40).optional(),
});

/** One version of a plan for one horse and one behaviour, as it is kept. Its type is read off this. */
export const ladderPlanDocument = document({
  method: word(METHODS),
  strands: z.array(strandDocument).min(1).max(MOST_STRANDS).readonly(),
  rungs: z.array(rungDocument).min(FEWEST_RUNGS).max(MOST_RUNGS).readonly(),
  phases: z.array(cuePhaseDocument).min(1).max(MOST_CUE_PHASES).readonly(),
  /** The longest an ask goes on before the horse is helped, in seconds. */
  maximumSeconds: within(number, PLAN_BOUNDS.maximumSeconds),
  /** Whether the level is held on a wrong answer: no release, no escalation. */
  holdOnWrong: flag,
  /** How near the hand or tool comes before it touches, in centimetres, where the last phase is a touch; null where it is not said. */
  firstTouchCentimetres: within(number, PLAN_BOUNDS.firstTouchCentimetres).nullable(),
  /** Where the first phase is a new cue being put in front of the second: the pause between the two, in seconds. */
  transfer: document({ gapSeconds: within(number, PLAN_BOUNDS.gapSeconds) }).nullable(),
  mastery: masteryRuleDocument,
  schedule: scheduleDocument,
  feeding: feedingDocument,
  /** What an answer nobody asked for earns. */
  offers: word(OFFER_RULES),
  /** The number strand whose value is counted in each trial, or null. */
  workingStrandId: text.nullable(),
  /** Repetitions planned for a block. */
  plannedRepetitions: within(wholeNumber, PLAN_BOUNDS.plannedRepetitions),
  /** What was chosen where trainers disagree. */
  ways: waysDocument,
  /** What is logged between the asks; absent where nothing is. */
  conversation: conversationDocument.optional(),
});
