import { QueryTypes } from "sequelize";
import type { SessionKind } from "@/core/events";
import { overlay } from "./caches";
import type { Store } from "./store";

/** Sessions of one kind in a span, and their working time. */
export interface KindHours {
  readonly kind: SessionKind;
  readonly sessions: number;
  readonly minutes: number;
}

/** Sessions of a horse in a span by kind, the longest together first. */
export async function hoursByKind(store: Store, horseId: string, fromMs: number, toMs: number): Promise<KindHours[]> {
  const behind = await overlay(store, horseId);
  const rows = await store.sequelize.query<KindHours>(
    `SELECT s.kind, COUNT(*) AS sessions, SUM(c.work_s) / 60 AS minutes FROM session s CROSS JOIN session_summary c ON c.session_no = s.no
     WHERE s.horse_id = $horse AND s.binned_ms IS NULL AND s.created_ms >= $from AND s.created_ms < $to AND c.seen = 1
     AND s.no NOT IN (SELECT value FROM json_each($behind)) GROUP BY s.kind`,
    { bind: { horse: horseId, from: fromMs, to: toMs, behind: JSON.stringify([...behind.keys()]) }, type: QueryTypes.SELECT },
  );
  const sums = new Map(rows.map((row) => [row.kind, { ...row }]));
  // What was tapped a moment ago counts too.
  for (const { session, summary } of behind.values()) {
    if (!summary.seen || session.created_ms < fromMs || session.created_ms >= toMs) continue;
    const sum = sums.get(session.kind) ?? { kind: session.kind, sessions: 0, minutes: 0 };
    sums.set(session.kind, { ...sum, sessions: sum.sessions + 1, minutes: sum.minutes + summary.work_s / 60 });
  }
  return [...sums.values()].sort((a, b) => b.minutes - a.minutes);
}
