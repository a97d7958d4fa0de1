import type { MeasuredTrial, Outcome } from "../evidence/group";

export const ORDER_FAULTS = [
  "mark before response",
  "food before mark",
  "phase raised during a try",
  "release without a try",
  "food before the wait",
  "rewarded below the rung",
] as const;
export type OrderFault = (typeof ORDER_FAULTS)[number];

export const LOGGED_WAYS = ["tally", "timed", "film", "late"] as const;
export type LoggedWay = (typeof LOGGED_WAYS)[number];

/** A person who took over the horse, by name and, where the yard knows them, by id. */
export interface Handler {
  readonly name: string;
  readonly id: string | null;
}

/** What a handler's evidence goes by: the id where it is known. @example handlerKey({ name: "Bo", id: null }) // "Bo" */
export const handlerKey = ({ id, name }: Handler): string => id ?? name;

/**
 * Whose evidence a trial is.
 * @param begunFor whose session it is, by id or else by name; null for nobody's.
 * @example whoseTrial({ handler: { name: "Ida", id: "p-1" } }, "p-2") // "p-1"
 */
export const whoseTrial = ({ handler }: { readonly handler: Handler | null }, begunFor: string | null): string | null =>
  handler === null ? begunFor : handlerKey(handler);

/** A trial as derived from events. Times in milliseconds from the start of work; lags and values in the units named. */
export interface Trial extends MeasuredTrial {
  /** Counts inside the session, from 1. */
  readonly number: number;
  /** Its block's place in the session, or null outside any block. */
  readonly blockIndex: number | null;
  readonly askMs: number;
  /** The release, the refusal, or what else ended it. */
  readonly endMs: number;
  /** When the horse's answer it ended on began, or null. */
  readonly answerMs: number | null;
  readonly markMs: number | null;
  readonly feedMs: number | null;
  /** The outcome as tapped, before the check against the rung. */
  readonly tapped: Outcome;
  /** Why a tap of met counts as try, or null. */
  readonly shortfall: string | null;
  readonly overridden: boolean;
  readonly side: "L" | "R" | null;
  readonly zone: string | null;
  readonly wrongBefore: number;
  /** Ask to the first answer of any kind. */
  readonly firstAnswerSeconds: number | null;
  readonly value: number | null;
  readonly unit: string | null;
  readonly endedBy: "criterion" | "left" | "handler" | null;
  readonly ease: number | null;
  /** How it moved, from 0 stiff to 4 fluid, where the rung grades that. */
  readonly movement: number | null;
  /** Who handled it, where that was said in the session; null for whoever it was begun for. */
  readonly handler: Handler | null;
  /** What the handler did for it, and how often. */
  readonly handlerActs: Readonly<Record<string, number>>;
  /** What a refusing horse was helped to. */
  readonly helped: string | null;
  readonly faults: readonly string[];
  readonly logged: LoggedWay | null;
  readonly note: string | null;
  /** The worst sign seen within the ask; null where none was. */
  readonly troubled: "tension" | "danger" | "pain" | null;
  /** A sign of danger ended the ask and the line was given: no reinforcement, and nobody's fault. */
  readonly safety: boolean;
  /** Cue phases with the time each began. */
  readonly phaseSteps: readonly { readonly ms: number; readonly phase: number }[];
  readonly reinforcerKinds: readonly string[];
  /** The event an override or a correction names: the ask, or the whole trial. */
  readonly eventId: string;
  readonly eventIds: readonly string[];
}
