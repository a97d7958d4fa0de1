import type { Transaction } from "sequelize";
import { aftermathOf, packAftermath } from "@/core/aftermath";
import { circleDigestOf } from "@/core/circle";
import { knowDigest, packDigest } from "@/core/know";
import { packFacts, pastFactsOf } from "@/core/past";
import {
  blockSeconds,
  compactRibbonOf,
  type EvidenceTrial,
  evidenceOfSession,
  reduceSession,
  type SessionRecord,
  type SessionSums,
  struckNotesOf,
  sumsOfSession,
} from "@/core/record";
import type { SessionEvent } from "@/core/schemas";
import { eventsOfSessions, type NumberedSession } from "../events";
import type { SessionSummaryRow } from "../models";
import { getSettings } from "../settings";
import type { StoreParts } from "../store";
import { setNotSummed, setSummed } from "./not-summed";
import type { BlockRow, RungSideSummaryRow } from "./rows";

/** Sums of a block, with the ladder it was worked on by its id. */
export type KeptBlock = Omit<BlockRow, "session_no" | "ladder_no"> & { readonly ladder: string | null };
/** Sums of a rung and a side, with the ladder by its id. */
export type KeptRung = Omit<RungSideSummaryRow, "session_no" | "ladder_no"> & { readonly ladder: string };

/** Everything that is kept of a session beside its events: worked out from them, and from them alone. */
export interface SessionCache {
  readonly no: number;
  readonly sums: SessionSums;
  readonly summary: SessionSummaryRow;
  readonly blocks: readonly KeptBlock[];
  readonly rungs: readonly KeptRung[];
  readonly evidence: readonly EvidenceTrial[];
  readonly record: SessionRecord;
}

/** What it leaves for the next start, or null before any work. */
function aftermathText(record: SessionRecord): string | null {
  const aftermath = aftermathOf(record);
  return aftermath === null ? null : packAftermath(aftermath);
}

/** What it came to on the circle, or null where it was none. */
function circleText(record: SessionRecord): string | null {
  const digest = circleDigestOf(record);
  return digest === null ? null : JSON.stringify(digest);
}

function rungsOf(evidence: readonly EvidenceTrial[]): KeptRung[] {
  const sums = new Map<string, KeptRung>();
  for (const { ladder, version, rung, side, kind, outcome, phase } of evidence) {
    if (kind !== "work") continue;
    const key = JSON.stringify([ladder, version, rung, side]);
    const sum = sums.get(key) ?? { ladder, version, rung, side: side ?? "", n: 0, met: 0, met_at_lightest: 0 };
    sum.n++;
    if (outcome === "met") sum.met++;
    if (outcome === "met" && phase === 1) sum.met_at_lightest++;
    sums.set(key, sum);
  }
  return [...sums.values()];
}

/** What is kept of a session whose events are at hand. Cost grows as n·log n with them. */
export function keptOf(
  { no, id, person_id }: NumberedSession,
  events: readonly SessionEvent[],
  clocks: { readonly offsetMsByLoad: ReadonlyMap<string, number>; readonly silenceMinutes: number },
): SessionCache {
  const record = reduceSession(events, clocks);
  const evidence = evidenceOfSession(id, record, person_id);
  const sums = sumsOfSession(record);
  const struck = struckNotesOf(events);
  const n = record.blocks.map(() => 0);
  const met = record.blocks.map(() => 0);
  for (const { blockIndex, outcome } of record.trials) {
    if (blockIndex === null) continue;
    n[blockIndex] = (n[blockIndex] ?? 0) + 1;
    if (outcome === "met") met[blockIndex] = (met[blockIndex] ?? 0) + 1;
  }
  return {
    no,
    sums,
    record,
    evidence,
    summary: {
      session_no: no,
      started_ms: sums.startedMs,
      finished: sums.finished,
      seen: sums.seen,
      last_ms: sums.lastMs,
      runs_on_ms: sums.runsOnMs,
      shift_ms: sums.shiftMs,
      work_s: sums.workSeconds,
      n: sums.trials,
      met: sums.met,
      pieces: sums.pieces,
      food_g: sums.weighedGrams,
      do_next: sums.doNext,
      struck_notes: struck.length === 0 ? null : JSON.stringify(struck),
      drawing: compactRibbonOf(record),
      digest: packDigest(knowDigest(record)),
      past: packFacts(pastFactsOf(record)),
      circle: circleText(record),
      aftermath: aftermathText(record),
    },
    blocks: record.blocks.map((b, index) => ({
      position: index,
      number: b.number,
      behaviour: b.behaviour,
      ladder: b.ladder,
      version: b.version,
      rung: b.rung,
      side: b.side,
      kind: b.kind,
      seconds: blockSeconds(record, index),
      n: n[index] ?? 0,
      met: met[index] ?? 0,
    })),
    rungs: rungsOf(evidence),
  };
}

const YIELD_EVERY = 8;

/**
 * Works out what is to be kept of these sessions from their events. Reads only.
 * One that cannot be summed up is named and left out: what was kept of it stays, and the others go on.
 */
export async function workOut(store: StoreParts, sessions: readonly NumberedSession[], transaction?: Transaction): Promise<SessionCache[]> {
  const { bySession, offsetMsByLoad } = await eventsOfSessions(store, sessions, transaction);
  const { silenceMinutes } = await getSettings(store);
  const kept: SessionCache[] = [];
  for (const session of sessions) {
    try {
      kept.push(keptOf(session, bySession.get(session.no) ?? [], { offsetMsByLoad, silenceMinutes }));
      setSummed(store, session.no);
    } catch (error) {
      setNotSummed(store, session, error);
    }
    // Whoever waits for an answer, and the write of the part before, get in between.
    if (kept.length % YIELD_EVERY === 0) await new Promise((resolve) => setImmediate(resolve));
  }
  return kept;
}
