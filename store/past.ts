import { QueryTypes } from "sequelize";
import { textsDocument } from "@/core/documents";
import { type Past, type PastSession, type PastTrial, pastTrialsOf, readFacts } from "@/core/past";
import { openedOrNull, overlay, packTrials, readKept, TRIAL_FLAGS, type TrialCells } from "./caches";
import { keysOf } from "./evidence";
import { keptJson } from "./kept-json";
import { ANY_LADDER, ITS_LADDER } from "./kinds";
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

/** What of a trial a look over weeks goes by. */
const TRIAL = packTrials([
  ...(["session_no", "number", "block", "handler_no", "ladder_no", "version", "rung", "side", "kind", "outcome", "phase", "ease"] as const),
  ...(["movement", "value", "unit", "ask_ms", "end_ms", "answer_ms", "latency_s", "waited_s", "release_lag_s", "mark_lag_s"] as const),
  ...(["feed_delay_s", "wrong_before", "released", "marked", "reinforced", "reinforcers", "zone", "ended_by", "logged", "flags"] as const),
]);
const PACKED = `'[' || group_concat(${TRIAL.json}) || ']'`;

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
  const whole = `s.horse_id = $horse AND (s.kind IN (${ANY_LADDER}) OR (s.kind IN (${ITS_LADDER}) AND s.ladder_id IS NOT NULL)) AND s.binned_ms IS NULL AND s.created_ms >= $from AND s.created_ms < $to`;
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
  const kept = JSON.parse(packed?.trials ?? "[]") as TrialCells[];
  const cell = TRIAL.cell;
  const keys = await keysOf(
    store,
    new Set(kept.flatMap((row) => [cell(row, "handler_no"), cell(row, "ladder_no")].filter((no) => no !== null))),
  );
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
  for (const row of kept) {
    const no = cell(row, "session_no");
    const ladder = key(cell(row, "ladder_no"));
    const flags = cell(row, "flags");
    const now = placed(ladder, cell(row, "version"), cell(row, "rung"));
    const list = trials.get(no) ?? [];
    list.push({
      session: 0,
      number: cell(row, "number"),
      block: cell(row, "block"),
      handler: key(cell(row, "handler_no")),
      ladder,
      ...now,
      side: cell(row, "side"),
      kind: cell(row, "kind") ?? "work",
      outcome: cell(row, "outcome"),
      phase: cell(row, "phase"),
      ease: cell(row, "ease"),
      movement: cell(row, "movement"),
      value: cell(row, "value"),
      unit: cell(row, "unit"),
      askMs: cell(row, "ask_ms"),
      endMs: cell(row, "end_ms"),
      answerMs: cell(row, "answer_ms"),
      latencySeconds: cell(row, "latency_s"),
      waitedSeconds: cell(row, "waited_s"),
      releaseLagSeconds: cell(row, "release_lag_s"),
      markLagSeconds: cell(row, "mark_lag_s"),
      feedDelaySeconds: cell(row, "feed_delay_s"),
      wrongBefore: cell(row, "wrong_before"),
      released: flag(cell(row, "released")),
      marked: flag(cell(row, "marked")),
      reinforced: flag(cell(row, "reinforced")),
      reinforcers: cell(row, "reinforcers"),
      zone: cell(row, "zone"),
      endedBy: cell(row, "ended_by"),
      logged: cell(row, "logged"),
      comparable: (flags & TRIAL_FLAGS.comparable) !== 0,
      clean: (flags & TRIAL_FLAGS.clean) !== 0,
      ...((flags & TRIAL_FLAGS.troubled) === 0 ? {} : { troubled: true as const }),
      novel: first.get(JSON.stringify([ladder, now.version, now.rung])) === no,
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
      kit: keptJson(row.kit, textsDocument) ?? [],
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
