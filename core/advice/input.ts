import type { MasteryRule } from "../mastery";
import type { EvidenceTrial } from "../record/evidence-scope";
import type { AboveHeart } from "../welfare/breath-down";
import type { HeatCaution } from "../welfare/heat";
import type { Cap } from "../welfare/restrictions";
import type { Closed } from "./closed";
import type { DeclinedAdvice } from "./declined";
import type { ValuesGoal } from "./goal";

/** The sides of a rung that is worked on one after the other. */
export interface SideState {
  readonly running: "L" | "R";
  /** Trials of this rung today on the running side and on the other one. */
  readonly here: number;
  readonly there: number;
  /** Repetitions planned for one side; null where the rung names no sides, and only a gap calls for the other one. */
  readonly planned: number | null;
  /** The side that is behind over the sessions of the horse, where one is known to be; see core/compare. */
  readonly weaker?: "L" | "R" | null;
}

/** A breathing rate taken in this session, with what it is held against. */
export interface BreathingState {
  readonly perMinute: number;
  readonly restingPerMinute: number | null;
  /** Whether the count may decide on a rest: not the only one, right after trot or canter. */
  readonly settled: boolean;
  /** The last time it stood above the heart rate in this session, both counted within two minutes; null where it never did. */
  readonly aboveHeart: AboveHeart | null;
  /** Ten minutes later either had not clearly fallen. */
  readonly notFallen: boolean;
}

/** What the word looks at. What is left out is not known and calls for nothing. */
export interface AdviceInput {
  readonly rule: MasteryRule;
  /** Whether the rung asks for both sides: the rule must then hold on each. */
  readonly bothSides: boolean;
  /** The side being worked; its own numbers are said first. */
  readonly running?: "L" | "R" | null;
  /** Where the rung's bar follows the horse's own values: moving on is then judged by them, and shares call for no easing. Null otherwise. */
  readonly byValues?: ValuesGoal | null;
  readonly rung: number;
  readonly rungCount: number;
  /** The present, server wall clock; left out where it is the last trial's. A rule over days asks what is of today. */
  readonly nowWallMs?: number;
  /** Evidence of this rung from earlier blocks, oldest first. */
  readonly earlier: readonly EvidenceTrial[];
  /** Every work trial on this rung before this block, also from before it was last left, oldest first: for Split. */
  readonly history?: readonly EvidenceTrial[];
  /** Trials of the running block, oldest first. */
  readonly block: readonly EvidenceTrial[];
  readonly blockKind?: "warm-up" | "work" | "probe" | "sure";
  /** Whether the running block counts for moving on: a work block. */
  readonly counts: boolean;
  readonly minutesSinceRest: number;
  readonly trialsSinceRest: number;
  readonly workMinutes: number;
  /** Limits of restrictions and age on the whole session, with where they come from; left out where there are none. */
  readonly limits?: {
    readonly minutes: Cap<number> | null;
    readonly trials: Cap<number> | null;
    readonly sessionTrials: number;
    readonly circling?: { readonly left: Cap<number>; readonly minutes: number } | null;
  };
  /** Why the next rung may not be worked today; left out or null where it may. */
  readonly nextBarred?: string | null;
  /** The danger sign that has not been answered by the stop card yet. */
  readonly danger?: string | null;
  /** Tension signs within the settings' window, up to now. */
  readonly tensionSigns?: number;
  /** Whether that sign was one of pain. */
  readonly pain?: boolean;
  readonly heat?: HeatCaution | null;
  /** Why a little work was begun though it is too hot; null or left out where nobody said. */
  readonly heatReason?: string | null;
  /** Why what runs may go on no further today; null or left out where it may. */
  readonly closed?: Closed | null;
  readonly breathing?: BreathingState | null;
  /** The clearest phase of the ask. */
  readonly fullPhase?: number | null;
  /** Whether a rung fits between this one and the one before. */
  readonly splittable?: boolean;
  readonly sides?: SideState | null;
  /** All trials of the session, and how many were planned; null where nothing was. */
  readonly session?: { readonly trials: number; readonly planned: number | null };
  /** Trials of this rung today before this block: what a clear best is held against. */
  readonly today?: readonly EvidenceTrial[];
  /** The highest easier rung that is mostly met; null where none is known. */
  readonly sureRung?: number | null;
  /** Whether the session is over and is looked back at. */
  readonly over?: boolean;
  /** Why pressure on wrong choices is to be eased; null or left out where nothing speaks for it. */
  readonly wrong?: { readonly words: string; readonly numbers: Readonly<Record<string, number>> } | null;
  /** Words of this session that were said and not taken, oldest first. */
  readonly declined?: readonly DeclinedAdvice[];
  /** The lowest ease grade the rung takes; null where it asks for none. */
  readonly minEase?: number | null;
  /** The lowest grade of the movement the rung takes, with its words; null where it asks for none. */
  readonly movement?: { readonly least: number; readonly words: readonly string[] } | null;
}
