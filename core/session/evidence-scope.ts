import type { Outcome } from "../evidence";
import type { Criterion } from "../ladder";
import type { MasteryTrial } from "../mastery";
import { MILLISECONDS_PER_DAY } from "../units";
import type { BlockKind, SessionRecord } from "./reduce";

/** A trial as evidence for moving on, across sessions. */
export interface EvidenceTrial {
  readonly session: string;
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
  /** On the working strand, in its unit. */
  readonly value: number | null;
  /** Met at phase 1 with the ease the rung asks for. */
  readonly clean: boolean;
}

/** Which rung's evidence is wanted, and how old it may be. */
export interface EvidenceScope {
  readonly ladder: string;
  readonly version: number;
  readonly rung: number;
  readonly nowWallMs: number;
  readonly maxAgeDays: number;
}

/** Evidence older than this no longer speaks for moving on (a setting; common practice, no source). */
export const EVIDENCE_MAX_AGE_DAYS = 21;

/** The trials of a session that belong to a ladder, as evidence. Trials without a ladder are left out. */
export function evidenceOfSession(session: string, record: SessionRecord): EvidenceTrial[] {
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
      value: trial.value,
      clean: isClean(trial, block.criterion),
    });
  }
  return out;
}

function isClean(trial: { outcome: Outcome; phase: number | null; ease: number | null }, criterion: Criterion | null): boolean {
  const wanted = criterion?.min_ease;
  return trial.outcome === "met" && trial.phase === 1 && (wanted === undefined || (trial.ease !== null && trial.ease >= wanted));
}

/**
 * The evidence for moving on from a rung: work trials on the same rung of the
 * same version across sessions, not older than the setting, from the last
 * time the horse came back to the rung. Warm-up, sure and probe blocks
 * neither count nor interrupt.
 * @param trials oldest first.
 */
export function evidenceForRung(trials: readonly EvidenceTrial[], scope: EvidenceScope): EvidenceTrial[] {
  const oldest = scope.nowWallMs - scope.maxAgeDays * MILLISECONDS_PER_DAY;
  const found: EvidenceTrial[] = [];
  for (let i = trials.length - 1; i >= 0; i--) {
    const trial = trials[i] as EvidenceTrial;
    if (trial.ladder !== scope.ladder || trial.kind !== "work") continue;
    if (trial.rung !== scope.rung || trial.version !== scope.version || trial.wallMs < oldest) break;
    found.push(trial);
  }
  return found.reverse();
}

/** Evidence as a mastery rule takes it. */
export function asMasteryTrials(trials: readonly EvidenceTrial[]): MasteryTrial[] {
  return trials.map((t) => ({ met: t.outcome === "met", clean: t.clean, blockKey: t.blockKey }));
}

/**
 * Trials of earlier versions of a ladder as the present one counts them: where
 * the rung is unchanged they carry over under its present number, otherwise
 * they keep pointing at the version they were worked on.
 * @param carried for each earlier version, its unchanged rungs: old number → present number.
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

/** Values on the working strand of answers that held one, oldest first. A refusal enters none. */
export function valuesOf(trials: readonly EvidenceTrial[]): number[] {
  return trials.flatMap(({ value, outcome }) => (value === null || outcome === "refused" ? [] : [value]));
}
