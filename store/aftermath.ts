import { QueryTypes } from "sequelize";
import { type PackedAftermath, type SessionAftermath, unpackAftermath } from "@/core/aftermath";
import { isWork, WORK_KINDS } from "@/core/events";
import { opened, overlay, readKept } from "./caches";
import type { Store } from "./store";

/**
 * What each session of work since a time left for the next one, by horse,
 * oldest first. One question whatever the number of horses; cost grows with
 * the sessions since then.
 * @param horseId of one horse alone, or null for the whole yard.
 */
export const aftermathsOf = (
  store: Store,
  horseId: string | null,
  sinceMs: number,
): Promise<ReadonlyMap<string, readonly SessionAftermath[]>> => readKept(store, () => aftermathsKept(store, horseId, sinceMs));

async function aftermathsKept(
  store: Store,
  horseId: string | null,
  sinceMs: number,
): Promise<ReadonlyMap<string, readonly SessionAftermath[]>> {
  const behind = await overlay(store, horseId);
  const rows = await store.sequelize.query<{ horse: string; kept: string }>(
    `SELECT s.horse_id AS horse, '[' || group_concat(json_array(s.no, s.id, c.aftermath)) || ']' AS kept
     FROM horse h CROSS JOIN json_each($kinds) k
     CROSS JOIN session s ON s.horse_id = h.id AND s.kind = k.value AND s.created_ms >= $since
     CROSS JOIN session_summary c ON c.session_no = s.no
     WHERE ($horse IS NULL OR h.id = $horse) AND s.binned_ms IS NULL AND c.aftermath IS NOT NULL GROUP BY s.horse_id`,
    { bind: { horse: horseId, since: sinceMs, kinds: JSON.stringify(WORK_KINDS) }, type: QueryTypes.SELECT },
  );
  const found = new Map(
    rows.map(({ horse, kept }) => [
      horse,
      (JSON.parse(kept) as [number, string, unknown][]).flatMap(([no, session, aftermath]): SessionAftermath[] =>
        behind.has(no) ? [] : [{ session, ...unpackAftermath(JSON.parse(opened(aftermath)) as PackedAftermath) }],
      ),
    ]),
  );
  for (const { session, summary } of behind.values()) {
    if (summary.aftermath === null || !isWork(session.kind) || session.created_ms < sinceMs) continue;
    const own = found.get(session.horse_id) ?? [];
    own.push({ session: session.id, ...unpackAftermath(JSON.parse(summary.aftermath) as PackedAftermath) });
    found.set(session.horse_id, own);
  }
  for (const own of found.values()) own.sort((a, b) => a.startedMs - b.startedMs);
  return found;
}
