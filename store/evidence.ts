import { QueryTypes } from "sequelize";
import { isWork } from "@/core/events";
import { addShares, NO_SHARE, type ShareSums } from "@/core/evidence";
import { carriedOver, type EvidenceTrial } from "@/core/record";
import { overlay, packTrials, TRIAL_FLAGS, type TrialCells } from "./caches";
import { carriedRungsOf, type StoredLadder } from "./ladders";
import type { Store } from "./store";

type LadderAsked = Pick<StoredLadder, "id" | "horseId" | "presentVersion">;

/** What of a trial is evidence. */
const TRIAL = packTrials([
  ...(["session_no", "block", "version", "rung", "side", "kind", "outcome", "phase", "ease", "value", "wall_ms", "flags"] as const),
  ...(["handler_no", "movement"] as const),
]);
/** A ladder's trials come out of the file as one text. */
const PACKED = `'[' || group_concat(${TRIAL.json} ORDER BY t.wall_ms, t.created_ms, t.session_no, t.number) || ']'`;
const COLUMNS = `${TRIAL.columns}, t.number, s.created_ms`;

interface FoundTrials {
  readonly ladder: string;
  readonly trials: string;
}

/** What the caches number, by that number. */
export async function keysOf(store: Store, nos: ReadonlySet<number>): Promise<Map<number, string>> {
  if (nos.size === 0) return new Map();
  const rows = await store.sequelize.query<{ no: number; id: string }>(
    "SELECT k.no, k.id FROM json_each($nos) j CROSS JOIN cache_key k ON k.no = j.value",
    { bind: { nos: JSON.stringify([...nos]) }, type: QueryTypes.SELECT },
  );
  return new Map(rows.map(({ no, id }) => [no, id]));
}

/** Takes packed trials apart, those of sessions that are left out aside. */
async function unpacked(store: Store, rows: readonly FoundTrials[], but: { has(no: number): boolean }) {
  const packed = rows.map(({ ladder, trials }) => [ladder, JSON.parse(trials) as TrialCells[]] as const);
  const cell = TRIAL.cell;
  const nos = new Set(packed.flatMap(([, trials]) => trials.map((row) => cell(row, "session_no"))));
  const ids = new Map(
    (nos.size === 0
      ? []
      : await store.sequelize.query<{ no: number; id: string }>(
          "SELECT s.no, s.id FROM json_each($nos) j CROSS JOIN session s ON s.no = j.value",
          {
            bind: { nos: JSON.stringify([...nos]) },
            type: QueryTypes.SELECT,
          },
        )
    ).map(({ no, id }) => [no, id]),
  );
  const people = await keysOf(store, new Set(packed.flatMap(([, trials]) => trials.flatMap((row) => cell(row, "handler_no") ?? []))));
  return new Map(
    packed.map(([ladder, trials]) => [
      ladder,
      trials.flatMap((row): EvidenceTrial[] => {
        const no = cell(row, "session_no");
        const session = ids.get(no);
        const [version, rung] = [cell(row, "version"), cell(row, "rung")];
        if (session === undefined || but.has(no) || version === null || rung === null) return [];
        const handler = cell(row, "handler_no");
        const movement = cell(row, "movement");
        const flags = cell(row, "flags");
        return [
          {
            session,
            handler: handler === null ? null : (people.get(handler) ?? null),
            wallMs: cell(row, "wall_ms"),
            ladder,
            version,
            rung,
            kind: cell(row, "kind") ?? "work",
            blockKey: `${session}:${cell(row, "block")}`,
            side: cell(row, "side"),
            outcome: cell(row, "outcome"),
            phase: cell(row, "phase"),
            ease: cell(row, "ease"),
            ...(movement === null ? {} : { movement }),
            value: cell(row, "value"),
            clean: (flags & TRIAL_FLAGS.clean) !== 0,
            comparable: (flags & TRIAL_FLAGS.comparable) !== 0,
            ...((flags & TRIAL_FLAGS.troubled) === 0 ? {} : { troubled: true as const }),
          },
        ];
      }),
    ]),
  );
}

const asked = (ladders: readonly LadderAsked[]) => JSON.stringify(ladders.map(({ id, horseId }) => [id, horseId]));

/**
 * Trials worked on ladders of one horse as evidence, by ladder, oldest first,
 * from sessions begun after a time. Trials of earlier versions count for the
 * present one where their rung is unchanged. Three questions, whatever the
 * number of ladders; cost grows with the trials since then.
 */
export async function evidenceOfLadders(
  store: Store,
  ladders: readonly LadderAsked[],
  sinceMs = 0,
): Promise<ReadonlyMap<string, readonly EvidenceTrial[]>> {
  const [first] = ladders;
  if (first === undefined) return new Map();
  const behind = await overlay(store, ladders.every(({ horseId }) => horseId === first.horseId) ? first.horseId : null);
  const rows = await store.sequelize.query<FoundTrials>(
    `SELECT t.ladder, ${PACKED} AS trials FROM (
       SELECT k.id AS ladder, ${COLUMNS}
       FROM json_each($ladders) j CROSS JOIN cache_key k ON k.id = j.value->>0 CROSS JOIN trial t ON t.ladder_no = k.no AND t.wall_ms >= $from
       CROSS JOIN session s ON s.no = t.session_no AND s.horse_id = j.value->>1 AND s.created_ms >= $since
     ) t GROUP BY t.ladder`,
    {
      bind: {
        ladders: asked(ladders),
        since: sinceMs,
        // A session's row is made when its recorder opens, before its first ask; a clock put right may move that by a little.
        from: sinceMs - 86_400_000,
      },
      type: QueryTypes.SELECT,
    },
  );
  const read = await unpacked(store, rows, behind);
  const found = new Map(ladders.map(({ id }) => [id, read.get(id) ?? []]));
  const fresh = [...behind.values()].filter(({ session }) => isWork(session.kind) && session.created_ms >= sinceMs);
  const owners = new Map(ladders.map(({ id, horseId }) => [id, horseId]));
  for (const { evidence, session } of fresh)
    for (const trial of evidence) if (owners.get(trial.ladder) === session.horse_id) found.get(trial.ladder)?.push(trial);
  if (fresh.length > 0) for (const trials of found.values()) trials.sort((a, b) => a.wallMs - b.wallMs);
  return carriedBy(store, ladders, found);
}

async function carriedBy(store: Store, ladders: readonly LadderAsked[], found: ReadonlyMap<string, readonly EvidenceTrial[]>) {
  const carried = await carriedRungsOf(store, ladders);
  return new Map(
    ladders.map(({ id, presentVersion }) => [id, carriedOver(found.get(id) ?? [], presentVersion, carried.get(id) ?? new Map())]),
  );
}

/**
 * The trials the next start is judged by: those that are evidence still, and
 * for a ladder without any the last one worked since a time.
 */
export async function evidenceForNextStart(
  store: Store,
  ladders: readonly LadderAsked[],
  { evidenceSinceMs, lastSinceMs }: { readonly evidenceSinceMs: number; readonly lastSinceMs: number },
): Promise<ReadonlyMap<string, readonly EvidenceTrial[]>> {
  const recent = await evidenceOfLadders(store, ladders, evidenceSinceMs);
  const resting = ladders.filter(({ id }) => !recent.get(id)?.some(({ kind }) => kind === "work"));
  if (resting.length === 0) return recent;
  const rows = await store.sequelize.query<FoundTrials>(
    `SELECT t.ladder, ${PACKED} AS trials FROM (
       SELECT k.id AS ladder, ${COLUMNS}
       FROM json_each($ladders) j CROSS JOIN cache_key k ON k.id = j.value->>0 CROSS JOIN trial t ON t.ladder_no = k.no AND t.wall_ms = (
         SELECT MAX(x.wall_ms) FROM trial x CROSS JOIN session y ON y.no = x.session_no AND y.horse_id = j.value->>1
         WHERE x.ladder_no = k.no AND x.wall_ms >= $since AND COALESCE(x.kind, 'work') = 'work')
       CROSS JOIN session s ON s.no = t.session_no
     ) t GROUP BY t.ladder`,
    { bind: { ladders: asked(resting), since: lastSinceMs }, type: QueryTypes.SELECT },
  );
  const last = await carriedBy(store, resting, await unpacked(store, rows, new Set()));
  return new Map(ladders.map(({ id }) => [id, [...(last.get(id) ?? []), ...(recent.get(id) ?? [])]]));
}

/** The newest trials of a ladder, oldest first: so many and no more, however long it has been worked. */
export async function newestEvidence(store: Store, ladder: LadderAsked, most: number): Promise<readonly EvidenceTrial[]> {
  const [reach] = await store.sequelize.query<{ ms: number | null }>(
    `SELECT MIN(wall_ms) AS ms FROM (SELECT t.wall_ms FROM cache_key k CROSS JOIN trial t ON t.ladder_no = k.no
     WHERE k.id = $ladder ORDER BY t.wall_ms DESC LIMIT $most)`,
    { bind: { ladder: ladder.id, most }, type: QueryTypes.SELECT },
  );
  // From sessions begun a day before at the earliest: the last of so many may lie in the middle of one.
  return (await evidenceOfLadder(store, ladder, (reach?.ms ?? 0) - 86_400_000)).slice(-most);
}

/** When each ladder of the yard was last worked since a time, in milliseconds, by ladder; those that were not are left out. */
export async function lastWorkedMs(store: Store, sinceMs: number): Promise<ReadonlyMap<string, number>> {
  const behind = await overlay(store, null);
  const rows = await store.sequelize.query<{ ladder: string; ms: number | null }>(
    `SELECT l.id AS ladder, (SELECT MAX(t.wall_ms) FROM trial t WHERE t.ladder_no = k.no AND t.wall_ms >= $since) AS ms
     FROM ladder l JOIN cache_key k ON k.id = l.id WHERE l.binned_ms IS NULL`,
    { bind: { since: sinceMs }, type: QueryTypes.SELECT },
  );
  const last = new Map(rows.flatMap(({ ladder, ms }) => (ms === null ? [] : [[ladder, ms] as const])));
  for (const { evidence } of behind.values())
    for (const { ladder, wallMs } of evidence) if (wallMs >= sinceMs) last.set(ladder, Math.max(last.get(ladder) ?? 0, wallMs));
  return last;
}

/** The same of one ladder. */
export async function evidenceOfLadder(store: Store, ladder: LadderAsked, sinceMs = 0): Promise<readonly EvidenceTrial[]> {
  return (await evidenceOfLadders(store, [ladder], sinceMs)).get(ladder.id) ?? [];
}

/** Sums of a rung over all its work, for the strand chart. */
export interface RungEvidence {
  readonly rung: number;
  readonly n: number;
  readonly met: number;
  readonly metAtLightest: number;
  /** By sessions, so that the share can be said with how alike the trials of one are. */
  readonly share: ShareSums;
}

interface RungSum {
  readonly version: number;
  readonly rung: number;
  readonly n: number;
  readonly met: number;
  readonly met_at_lightest: number;
  readonly sessions: number;
  readonly met_squares: number;
  readonly n_squares: number;
  readonly products: number;
  readonly pairs: number;
  readonly met_next: number;
  readonly n_next: number;
  readonly products_next: number;
}

/** Rows of one session by rung, both sides together, as sums of one session. */
function sumsByRung(rows: readonly Pick<RungSum, "version" | "rung" | "n" | "met" | "met_at_lightest">[]): RungSum[] {
  const sums = new Map<string, RungSum>();
  for (const { version, rung, n, met, met_at_lightest } of rows) {
    const key = JSON.stringify([version, rung]);
    const sum = sums.get(key);
    const all = { n: n + (sum?.n ?? 0), met: met + (sum?.met ?? 0) };
    sums.set(key, {
      version,
      rung,
      ...all,
      met_at_lightest: met_at_lightest + (sum?.met_at_lightest ?? 0),
      sessions: 1,
      met_squares: all.met ** 2,
      n_squares: all.n ** 2,
      products: all.met * all.n,
      pairs: 0,
      met_next: 0,
      n_next: 0,
      products_next: 0,
    });
  }
  return [...sums.values()];
}

/** Sums by rung for every version of a ladder; of the present one with what is carried over from earlier ones. */
export async function rungEvidenceByVersion(store: Store, ladder: LadderAsked): Promise<(version: number) => RungEvidence[]> {
  const behind = await overlay(store, ladder.horseId);
  const kept = await store.sequelize.query<RungSum>(
    `SELECT version, rung, SUM(n) AS n, SUM(met) AS met, SUM(light) AS met_at_lightest, COUNT(*) AS sessions,
       SUM(met * met) AS met_squares, SUM(n * n) AS n_squares, SUM(met * n) AS products, COUNT(n_before) AS pairs,
       COALESCE(SUM(met * met_before), 0) AS met_next, COALESCE(SUM(n * n_before), 0) AS n_next,
       COALESCE(SUM(met * n_before + n * met_before), 0) AS products_next
     FROM (SELECT *, LAG(n) OVER by_day AS n_before, LAG(met) OVER by_day AS met_before
       FROM (SELECT r.session_no, r.version, r.rung, SUM(r.n) AS n, SUM(r.met) AS met, SUM(r.met_at_lightest) AS light
         FROM cache_key k CROSS JOIN rung_side_summary r ON r.ladder_no = k.no
         WHERE k.id = $ladder AND r.session_no NOT IN (SELECT value FROM json_each($behind)) GROUP BY r.session_no, r.version, r.rung) sums
       LEFT JOIN (SELECT session_no AS no, started_ms FROM session_summary) days ON days.no = sums.session_no
       WINDOW by_day AS (PARTITION BY version, rung ORDER BY started_ms, session_no))
     GROUP BY version, rung`,
    { bind: { ladder: ladder.id, behind: JSON.stringify([...behind.keys()]) }, type: QueryTypes.SELECT },
  );
  const rows = [...kept, ...[...behind.values()].flatMap(({ rungs }) => sumsByRung(rungs.filter((sum) => sum.ladder === ladder.id)))];
  const carried = (await carriedRungsOf(store, [ladder])).get(ladder.id) ?? new Map<number, Map<number, number>>();
  return (version) => {
    const sums = new Map<number, RungEvidence>();
    for (const row of rows) {
      const over = version === ladder.presentVersion ? carried.get(row.version)?.get(row.rung) : undefined;
      const rung = row.version === version ? row.rung : over;
      if (rung === undefined) continue;
      const sum = sums.get(rung) ?? { rung, n: 0, met: 0, metAtLightest: 0, share: NO_SHARE };
      const own: ShareSums = {
        sessions: row.sessions,
        met: row.met,
        of: row.n,
        metSquares: row.met_squares,
        ofSquares: row.n_squares,
        products: row.products,
        pairs: row.pairs,
        metNext: row.met_next,
        ofNext: row.n_next,
        productsNext: row.products_next,
      };
      sums.set(rung, {
        rung,
        n: sum.n + row.n,
        met: sum.met + row.met,
        metAtLightest: sum.metAtLightest + row.met_at_lightest,
        share: addShares([sum.share, own]),
      });
    }
    return [...sums.values()].sort((a, b) => a.rung - b.rung);
  };
}

/** The same of one version. */
export async function rungEvidence(store: Store, ladder: LadderAsked, version: number): Promise<RungEvidence[]> {
  return (await rungEvidenceByVersion(store, ladder))(version);
}
