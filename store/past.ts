import { QueryTypes } from "sequelize";
import { type Past, type PastSession, type PastTrial, pastTrialsOf, readFacts } from "@/core/past";
import { openedOrNull, overlay, readKept, TRIAL_FLAGS } from "./caches";
import { keysOf } from "./evidence";
import { isTexts, keptJson } from "./kept-json";
import { carriedRungsOf, type StoredLadder } from "./ladders";
import type { SessionRow } from "./models";
import type { Store } from "./store";

/** What of a horse's past is wanted. */
export interface PastWanted {
  /** Sessions made from here on and before there, milliseconds. */
  readonly fromMs: number;
  readonly toMs?: number;
  /** Only what was worked on these; left out, everything. Their versions are carried over either way. */
  readonly ladders: readonly Pick<StoredLadder, "id" | "presentVersion">[];
  readonly only?: "these ladders";
}

type PackedTrial = readonly [
  session: number,
  number: number,
  block: number | null,
  handler: number | null,
  ladder: number | null,
  version: number | null,
  rung: number | null,
  side: PastTrial["side"],
  kind: PastTrial["kind"] | null,
  outcome: PastTrial["outcome"],
  phase: number | null,
  ease: number | null,
  movement: number | null,
  value: number | null,
  unit: string | null,
  askMs: number,
  endMs: number,
  answerMs: number | null,
  latency: number | null,
  waited: number | null,
  release: number | null,
  mark: number | null,
  feed: number | null,
  wrongBefore: number,
  released: number | null,
  marked: number | null,
  reinforced: number | null,
  reinforcers: number | null,
  zone: string | null,
  endedBy: PastTrial["endedBy"],
  logged: PastTrial["logged"],
  flags: number,
];

/** All trials come out of the file as one text: rows that are taken over one by one cost several times as much. */
const PACKED = `'[' || group_concat(json_array(t.session_no, t.number, t.block, t.handler_no, t.ladder_no, t.version, t.rung, t.side, t.kind,
  t.outcome, t.phase, t.ease, t.movement, t.value, t.unit, t.ask_ms, t.end_ms, t.answer_ms, t.latency_s, t.waited_s, t.release_lag_s,
  t.mark_lag_s, t.feed_delay_s, t.wrong_before, t.released, t.marked, t.reinforced, t.reinforcers, t.zone, t.ended_by, t.logged, t.flags)) || ']'`;

const flag = (bit: number | null) => (bit === null ? null : bit === 1);

type FoundSession = Pick<SessionRow, "id" | "no" | "created_ms" | "person_id" | "place_id" | "kit"> & {
  readonly started_ms: number | null;
  readonly work_s: number | null;
  readonly past: string | null;
};

/** The session in which each rung of these ladders was first worked, by its number and when it was made; a rung by its version as it was worked. */
async function firstOnRungs(store: Store, ladders: readonly string[]): Promise<Map<string, { readonly no: number; readonly at: number }>> {
  if (ladders.length === 0) return new Map();
  // Of several sessions made at the least time SQLite gives the row of that least.
  const rows = await store.sequelize.query<{ ladder: string; version: number; rung: number; no: number; at: number }>(
    `SELECT k.id AS ladder, r.version, r.rung, s.no, MIN(s.created_ms) AS at FROM json_each($ladders) j
     CROSS JOIN cache_key k ON k.id = j.value CROSS JOIN rung_side_summary r ON r.ladder_no = k.no
     CROSS JOIN session s ON s.no = r.session_no GROUP BY k.id, r.version, r.rung`,
    { bind: { ladders: JSON.stringify(ladders) }, type: QueryTypes.SELECT },
  );
  return new Map(rows.map(({ ladder, version, rung, no, at }) => [JSON.stringify([ladder, version, rung]), { no, at }]));
}

/**
 * What was worked with a horse in a span, trial by trial, oldest first. A rung
 * that is unchanged since counts under its present number. Five questions,
 * whatever the number of sessions; cost grows with the trials of the span.
 */
export const pastOfHorse = (store: Store, horseId: string, wanted: PastWanted): Promise<Past> =>
  readKept(store, () => pastKept(store, horseId, wanted));

async function pastKept(store: Store, horseId: string, { fromMs, toMs, ladders, only }: PastWanted): Promise<Past> {
  const behind = await overlay(store, horseId);
  const to = toMs ?? Number.MAX_SAFE_INTEGER;
  const ids = ladders.map(({ id }) => id);
  const onThese =
    only === undefined
      ? ""
      : "AND EXISTS (SELECT 1 FROM block b WHERE b.session_no = s.no AND b.ladder_no IN (SELECT k.no FROM json_each($ladders) j CROSS JOIN cache_key k ON k.id = j.value))";
  const bind = {
    horse: horseId,
    from: fromMs,
    to,
    behind: JSON.stringify([...behind.keys()]),
    ...(only === undefined ? {} : { ladders: JSON.stringify(ids) }),
  };
  const whole = `s.horse_id = $horse AND (s.kind = 'work' OR (s.kind = 'circle' AND s.ladder_id IS NOT NULL)) AND s.binned_ms IS NULL AND s.created_ms >= $from AND s.created_ms < $to`;
  const found = await store.sequelize.query<FoundSession>(
    `SELECT s.id, s.no, s.created_ms, s.person_id, s.place_id, s.kit, c.started_ms, c.work_s, c.past FROM session s
     LEFT JOIN session_summary c ON c.session_no = s.no
     WHERE ${whole} AND (s.no IN (SELECT value FROM json_each($behind)) OR (c.seen = 1 ${onThese}))`,
    { bind, type: QueryTypes.SELECT },
  );
  const [packed] = await store.sequelize.query<{ trials: string | null }>(
    `SELECT ${PACKED} AS trials FROM session s CROSS JOIN trial t ON t.session_no = s.no
     WHERE ${whole} AND s.no NOT IN (SELECT value FROM json_each($behind))
     ${only === undefined ? "" : "AND t.ladder_no IN (SELECT k.no FROM json_each($ladders) j CROSS JOIN cache_key k ON k.id = j.value)"}`,
    { bind, type: QueryTypes.SELECT },
  );
  const kept = JSON.parse(packed?.trials ?? "[]") as PackedTrial[];
  const keys = await keysOf(store, new Set(kept.flatMap(([, , , handler, ladder]) => [handler, ladder].filter((no) => no !== null))));
  const key = (no: number | null) => (no === null ? null : (keys.get(no) ?? null));
  const carried = await carriedRungsOf(store, ladders);
  const present = new Map(ladders.map(({ id, presentVersion }) => [id, presentVersion]));
  /** Where a rung stands now: under its own version and number, or unchanged under the present one. */
  const placed = (ladder: string | null, version: number | null, rung: number | null) => {
    const over = ladder === null || version === null || rung === null ? undefined : carried.get(ladder)?.get(version)?.get(rung);
    return over === undefined ? { version, rung } : { version: present.get(ladder ?? "") ?? version, rung: over };
  };
  const earliest = new Map<string, { readonly no: number; readonly at: number }>();
  for (const [text, one] of await firstOnRungs(store, ids)) {
    const [ladder, version, rung] = JSON.parse(text) as [string, number, number];
    const now = placed(ladder, version, rung);
    const at = JSON.stringify([ladder, now.version, now.rung]);
    const before = earliest.get(at);
    if (before === undefined || one.at < before.at) earliest.set(at, one);
  }
  const first = new Map([...earliest].map(([at, { no }]) => [at, no]));
  const trials = new Map<number, PastTrial[]>();
  for (const trial of kept) {
    const [no, number, block, handler, ladder, version, rung, side, kind, outcome, phase, ease, movement, value, unit] = trial;
    const [askMs, endMs, answerMs, latency, waited, release, mark, feed, wrongBefore, released, marked, reinforced] = trial.slice(15) as [
      number,
      number,
      number | null,
      number | null,
      number | null,
      number | null,
      number | null,
      number | null,
      number,
      number | null,
      number | null,
      number | null,
    ];
    const [reinforcers, zone, endedBy, logged, flags] = trial.slice(27) as [
      number | null,
      string | null,
      PastTrial["endedBy"],
      PastTrial["logged"],
      number,
    ];
    const now = placed(key(ladder), version, rung);
    const list = trials.get(no) ?? [];
    list.push({
      session: 0,
      number,
      block,
      handler: key(handler),
      ladder: key(ladder),
      ...now,
      side,
      kind: kind ?? "work",
      outcome,
      phase,
      ease,
      movement,
      value,
      unit,
      askMs,
      endMs,
      answerMs,
      latencySeconds: latency,
      waitedSeconds: waited,
      releaseLagSeconds: release,
      markLagSeconds: mark,
      feedDelaySeconds: feed,
      wrongBefore,
      released: flag(released),
      marked: flag(marked),
      reinforced: flag(reinforced),
      reinforcers,
      zone,
      endedBy,
      logged,
      comparable: (flags & TRIAL_FLAGS.comparable) !== 0,
      clean: (flags & TRIAL_FLAGS.clean) !== 0,
      ...((flags & TRIAL_FLAGS.troubled) === 0 ? {} : { troubled: true as const }),
      novel: first.get(JSON.stringify([key(ladder), now.version, now.rung])) === no,
    });
    trials.set(no, list);
  }
  return assembled(found, behind, trials, { horseId, placed, first, only: only === undefined ? null : new Set(ids) });
}

function assembled(
  found: readonly FoundSession[],
  behind: Awaited<ReturnType<typeof overlay>>,
  trials: ReadonlyMap<number, readonly PastTrial[]>,
  {
    horseId,
    placed,
    first,
    only,
  }: {
    readonly horseId: string;
    readonly placed: (ladder: string | null, version: number | null, rung: number | null) => Pick<PastTrial, "version" | "rung">;
    readonly first: ReadonlyMap<string, number>;
    readonly only: ReadonlySet<string> | null;
  },
): Past {
  const rows = found.flatMap((row) => {
    const now = behind.get(row.no);
    const summary = now?.summary ?? {
      started_ms: row.started_ms,
      work_s: row.work_s ?? 0,
      past: openedOrNull(row.past) ?? "{}",
      seen: true,
    };
    if (!summary.seen || summary.started_ms === null) return [];
    const session: PastSession = {
      id: row.id,
      horse: horseId,
      startedMs: summary.started_ms,
      workSeconds: summary.work_s,
      handler: row.person_id,
      place: row.place_id,
      kit: keptJson<string[]>(row.kit, isTexts) ?? [],
      facts: readFacts(summary.past),
    };
    // A session behind its events is worked out from them, as its rows will be.
    const own =
      now === undefined
        ? (trials.get(row.no) ?? [])
        : pastTrialsOf(now.record, 0, row.person_id).flatMap((trial) => {
            if (only !== null && (trial.ladder === null || !only.has(trial.ladder))) return [];
            const at = placed(trial.ladder, trial.version, trial.rung);
            const before = first.get(JSON.stringify([trial.ladder, at.version, at.rung]));
            return [{ ...trial, ...at, novel: before === undefined || before === row.no }];
          });
    return only !== null && own.length === 0 ? [] : [{ session, own }];
  });
  rows.sort((a, b) => a.session.startedMs - b.session.startedMs);
  return {
    sessions: rows.map(({ session }) => session),
    trials: rows.flatMap(({ own }, session) => own.map((trial) => ({ ...trial, session }))),
  };
}
