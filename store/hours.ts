import { QueryTypes } from "sequelize";
import type { Store } from "./store";

/** Sessions of a horse in a span by kind, and their working time. One question; sessions still behind their events count as they were last kept. */
export async function hoursByKind(
  store: Store,
  horseId: string,
  fromMs: number,
  toMs: number,
): Promise<{ readonly kind: string; readonly sessions: number; readonly minutes: number }[]> {
  return store.sequelize.query<{ kind: string; sessions: number; minutes: number }>(
    `SELECT s.kind, COUNT(*) AS sessions, SUM(c.work_s) / 60 AS minutes FROM session s CROSS JOIN session_summary c ON c.session_no = s.no
     WHERE s.horse_id = $horse AND s.binned_ms IS NULL AND s.created_ms >= $from AND s.created_ms < $to AND c.seen = 1
     GROUP BY s.kind ORDER BY minutes DESC`,
    { bind: { horse: horseId, from: fromMs, to: toMs }, type: QueryTypes.SELECT },
  );
}
