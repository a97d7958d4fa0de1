import type { Outcome } from "../evidence";
import type { Criterion } from "../ladder";
import type { MasteryTrial } from "../mastery";
import { MILLISECONDS_PER_DAY } from "../units";
import type { BlockKind, SessionRecord } from "./reduce";
import { type LoggedWay, whoseTrial } from "./trial";

/** A trial as evidence for moving on, across sessions. */
export interface EvidenceTrial {
  readonly session: string;
  /** Who handled the horse, by id or else by name; null where nobody was named. */
  readonly handler: string | null;
  /** Server wall clock of the ask, milliseconds. */
  readonly wallMs: number;
  readonly ladder: string;
  readonly version: number;
  readonly rung: number;
  readonly kind: BlockKind;
  readonly blockKey: string;
  readonly side: "L" | "R" | null;
  readonly outcome: Outcome;
  readonly phase: number | null;
  readonly ease: number | null;
  /** How it moved, 0–4; left out where that was not graded. */
  readonly movement?: number;
  /** On the working strand, in its unit. */
  readonly value: number | null;
  /** Met at phase 1 with the ease the rung asks for. */
  readonly clean: boolean;
  /** A sign of tension, pain or danger came within the ask; left out where none did. */
  readonly troubled?: true;
  /** Whether it may be held against the other side: not written from memory, and not on a rung that names one side. */
  readonly comparable: boolean;
}

/** Which rung's evidence is wanted, and how old it may be. */
export interface EvidenceScope {
  readonly ladder: string;
  readonly version: number;
  readonly rung: number;
  readonly nowWallMs: number;
  readonly maxAgeDays: number;
}

/**
 * The trials of a session that belong to a ladder, as evidence. Trials without a ladder are left out.
 * @param handler whose session it is, by id or else by name; null for nobody's.
 * @example evidenceOfSession("s", record, "a") // 48 of them
 */
export function evidenceOfSession(session: string, record: SessionRecord, handler: string | null): EvidenceTrial[] {
  const start = record.startWallMs;
  if (start === null) return [];
  const out: EvidenceTrial[] = [];
  for (const trial of record.trials) {
    const block = trial.blockIndex === null ? undefined : record.blocks[trial.blockIndex];
    if (block === undefined || block.ladder === null || block.version === null) continue;
    const rung = Number(block.rung);
    if (!Number.isInteger(rung)) continue;
    out.push({
      session,
      handler: whoseTrial(trial, handler),
      wallMs: start + trial.askMs,
      ladder: block.ladder,
      version: block.version,
      rung,
      kind: block.kind ?? "work",
      blockKey: `${session}:${trial.blockIndex}`,
      side: trial.side,
      outcome: trial.outcome,
      phase: trial.phase,
      ease: trial.ease,
      ...(trial.movement === null ? {} : { movement: trial.movement }),
      value: trial.value,
      clean: isClean(trial, block.criterion),
      ...(trial.troubled === null ? {} : { troubled: true as const }),
      comparable: isComparable(trial, block.criterion),
    });
  }
  return out;
}

/**
 * Whether a trial is met at the lightest cue with the ease its rung asks for.
 * @example isClean(trial, { sentence: "Any answer." }) // true
 */
export function isClean(trial: { outcome: Outcome; phase: number | null; ease: number | null }, criterion: Criterion | null): boolean {
  const wanted = criterion?.min_ease;
  return trial.outcome === "met" && trial.phase === 1 && (wanted === undefined || (trial.ease !== null && trial.ease >= wanted));
}

/** Whether a trial says something of its side against the other one. @example isComparable({ … }, { sentence: "Any answer." }) // true */
export const isComparable = ({ logged }: { logged: LoggedWay | null }, criterion: Criterion | null): boolean =>
  logged !== "late" && criterion?.side !== "left" && criterion?.side !== "right";

/**
 * The evidence for moving on from a rung: work trials on the same rung of the
 * same version across sessions, not older than the setting, from the last
 * time the horse came back to the rung. Warm-up, sure and probe blocks
 * neither count nor interrupt, and neither does an easier rung that a session
 * ends on, where the next one goes on with this rung.
 * @param trials oldest first.
 * @example evidenceForRung(trials, scope) // 7 of them
 */
export function evidenceForRung(trials: readonly EvidenceTrial[], scope: EvidenceScope): EvidenceTrial[] {
  const oldest = scope.nowWallMs - scope.maxAgeDays * MILLISECONDS_PER_DAY;
  const found: EvidenceTrial[] = [];
  // The session whose easier end is being passed over, or null.
  let ending: string | null = null;
  for (let i = trials.length - 1; i >= 0; i--) {
    const trial = trials[i] as EvidenceTrial;
    if (trial.ladder !== scope.ladder || trial.kind !== "work") continue;
    if (trial.version !== scope.version || trial.wallMs < oldest || (ending !== null && trial.session !== ending)) break;
    if (trial.rung === scope.rung) {
      ending = null;
      found.push(trial);
    } else if (trial.rung < scope.rung && trial.session !== found.at(-1)?.session) ending = trial.session;
    else break;
  }
  return found.reverse();
}

/** The lowest grade that is calm: soft. */
export const SOFT_GRADE = 3;

/**
 * Whether an answer was said to be soft or better: false also where a sign of
 * tension, pain or danger came within its ask; null where nobody said.
 * @example saidSoft(trial) // true
 */
export const saidSoft = ({ ease, troubled }: Pick<EvidenceTrial, "ease" | "troubled">): boolean | null =>
  troubled === true ? false : ease === null ? null : ease >= SOFT_GRADE;

/** Evidence as a mastery rule takes it. @example asMasteryTrials(trials) // 2 of them */
export function asMasteryTrials(trials: readonly EvidenceTrial[]): MasteryTrial[] {
  return trials.map((t) => {
    const soft = saidSoft(t);
    return { met: t.outcome === "met", clean: t.clean, blockKey: t.blockKey, wallMs: t.wallMs, ...(soft === null ? {} : { soft }) };
  });
}

/**
 * Trials of earlier versions of a ladder as the present one counts them: where
 * the rung is unchanged they carry over under its present number, otherwise
 * they keep pointing at the version they were worked on.
 * @param carried for each earlier version, its unchanged rungs: old number → present number.
 * @example carriedOver(trials, 1, carried) // 2 of them
 */
export function carriedOver(
  trials: readonly EvidenceTrial[],
  present: number,
  carried: ReadonlyMap<number, ReadonlyMap<number, number>>,
): EvidenceTrial[] {
  return trials.map((trial) => {
    const rung = carried.get(trial.version)?.get(trial.rung);
    return rung === undefined ? trial : { ...trial, version: present, rung };
  });
}

/** Values on the working strand of answers that held one, oldest first. A refusal enters none. @example valuesOf(trials) // [2] */
export function valuesOf(trials: readonly EvidenceTrial[]): number[] {
  return trials.flatMap(({ value, outcome }) => (value === null || outcome === "refused" ? [] : [value]));
}

/** A ladder's trials in short, for the way to a device: each a list, with its session by its place in another. */
export interface PackedEvidence {
  readonly ladder: string;
  readonly sessions: readonly string[];
  readonly handlers: readonly string[];
  readonly trials: readonly EvidenceTrialCells[];
}

type EvidenceTrialCells = readonly [
  session: number,
  wallMs: number,
  version: number,
  rung: number,
  kind: BlockKind,
  block: string,
  side: "L" | "R" | null,
  outcome: Outcome,
  phase: number | null,
  ease: number | null,
  value: number | null,
  /** 1 clean, 2 comparable, 4 troubled, added up. */
  flags: number,
  /** Its place among the handlers, −1 for nobody. */
  handler: number,
  /** −1 where it was not graded. */
  movement: number,
];

/** Packs trials ladder by ladder: a quarter of what they take as objects. @example unpackEvidence(packEvidence(trials)) // the same, ladder by ladder */
export function packEvidence(trials: readonly EvidenceTrial[]): PackedEvidence[] {
  return [...new Set(trials.map(({ ladder }) => ladder))].map((ladder) => {
    const own = trials.filter((trial) => trial.ladder === ladder);
    const sessions = [...new Set(own.map(({ session }) => session))];
    const places = new Map(sessions.map((session, i) => [session, i]));
    const handlers = [...new Set(own.flatMap(({ handler }) => handler ?? []))];
    return {
      ladder,
      sessions,
      handlers,
      trials: own.map(
        (t): EvidenceTrialCells => [
          places.get(t.session) ?? 0,
          t.wallMs,
          t.version,
          t.rung,
          t.kind,
          t.blockKey.slice(t.session.length + 1),
          t.side,
          t.outcome,
          t.phase,
          t.ease,
          t.value,
          (t.clean ? 1 : 0) + (t.comparable ? 2 : 0) + (t.troubled === true ? 4 : 0),
          t.handler === null ? -1 : handlers.indexOf(t.handler),
          t.movement ?? -1,
        ],
      ),
    };
  });
}

/** And back. @example unpackEvidence(packed) // 6 of them */
export const unpackEvidence = (packed: readonly PackedEvidence[]): EvidenceTrial[] =>
  packed.flatMap(({ ladder, sessions, handlers = [], trials }) =>
    trials.map(([at, wallMs, version, rung, kind, block, side, outcome, phase, ease, value, flags, handler, movement = -1]) => {
      const session = sessions[at] ?? "";
      return {
        session,
        handler: handlers[handler] ?? null,
        wallMs,
        ladder,
        version,
        rung,
        kind,
        blockKey: `${session}:${block}`,
        side,
        outcome,
        phase,
        ease,
        ...(movement < 0 ? {} : { movement }),
        value,
        clean: (flags & 1) !== 0,
        comparable: (flags & 2) !== 0,
        ...((flags & 4) === 0 ? {} : { troubled: true as const }),
      };
    }),
  );
