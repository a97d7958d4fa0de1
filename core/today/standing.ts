import { type NextStart, nextStart } from "../advice";
import type { SessionAftermath } from "../aftermath";
import type { LadderPlan } from "../ladder";
import type { EvidenceTrial } from "../record";
import type { YardSettings } from "../settings";
import type { Allowance } from "../welfare";

/** What of a ladder decides where it stands. */
export interface StandingLadder {
  readonly id: string;
  readonly version: number;
  readonly plan: LadderPlan;
  /** What the behaviour involves that a restriction may name. */
  readonly involves: readonly string[];
}

/** What of the day and the horse decides it. */
export interface StandingOn {
  readonly nowWallMs: number;
  readonly allowance: Allowance;
  readonly settings: YardSettings;
  /** The side known to be behind; null where none is, or where the page does not say on which to begin. */
  readonly weakerSide: "L" | "R" | null;
  /** Who handles, as trials name them; null for whoever worked it last. */
  readonly handler: string | null;
  /** Names of handlers by what trials name them. */
  readonly names: ReadonlyMap<string, string>;
  /** What the horse's sessions of work left behind, oldest first. */
  readonly aftermaths: readonly SessionAftermath[];
}

/** Where a ladder stands: what comes next on it, and when it was worked last. */
export interface Standing {
  readonly next: NextStart;
  readonly lastWallMs: number | null;
}

/**
 * Where a ladder stands by its trials, under what the horse may do: the one
 * judge of the server's pages, of a pack and of the Yard.
 * @param trials of the ladder, oldest first.
 * @example standing(ladder, trials, { nowWallMs, allowance, settings, weakerSide: null, handler: null, names, aftermaths }).next.headline
 */
export const standing = (ladder: StandingLadder, trials: readonly EvidenceTrial[], { settings, ...on }: StandingOn): Standing => ({
  next: nextStart({ plan: ladder.plan, ladder: ladder.id, version: ladder.version, involves: ladder.involves, trials, ...on }, settings),
  lastWallMs: trials.at(-1)?.wallMs ?? null,
});

/** What may be worked first, then the one last worked first. @example ladders.sort(byStanding) */
export const byStanding = (a: Standing, b: Standing): number =>
  Number(a.next.barred !== null) - Number(b.next.barred !== null) || (b.lastWallMs ?? 0) - (a.lastWallMs ?? 0);
