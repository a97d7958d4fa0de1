import { QueryTypes } from "sequelize";
import { type KnowDigest, readDigest } from "@/core/know";
import { opened, overlay, readKept } from "./caches";
import type { SessionRow, SessionSummaryRow } from "./models";
import type { Store } from "./store";

/** A session with what it shows of the horse. */
export interface DigestedSession {
  readonly session: SessionRow;
  /** Server wall clock of the start of work, or of the session's making where no work began. */
  readonly startedMs: number;
  readonly finished: boolean;
  readonly digest: KnowDigest;
}

/** What every session of a horse since a time shows of it, oldest first. Cost grows with the sessions asked for. */
export const digestsOfHorse = (store: Store, horseId: string, sinceMs = 0): Promise<DigestedSession[]> =>
  readKept(store, () => digestsKept(store, horseId, sinceMs));

async function digestsKept(store: Store, horseId: string, sinceMs: number): Promise<DigestedSession[]> {
  const behind = await overlay(store, horseId);
  const rows = await store.sequelize.query<SessionRow & Pick<SessionSummaryRow, "started_ms" | "finished" | "seen" | "digest">>(
    `SELECT s.*, c.started_ms, c.finished, c.seen, c.digest FROM session s LEFT JOIN session_summary c ON c.session_no = s.no
     WHERE s.horse_id = :horse AND s.created_ms >= :since AND s.binned_ms IS NULL AND (c.seen = 1 OR s.no IN (:behind))
     ORDER BY s.created_ms`,
    { replacements: { horse: horseId, since: sinceMs, behind: [-1, ...behind.keys()] }, type: QueryTypes.SELECT },
  );
  return rows.flatMap((row) => {
    const { started_ms, finished, seen, digest, ...session } = row;
    const summary = behind.get(row.no)?.summary ?? { started_ms, finished, seen, digest: opened(digest) };
    if (!summary.seen) return [];
    return [
      {
        session: { ...session, sample: Boolean(session.sample) },
        startedMs: summary.started_ms ?? session.created_ms,
        finished: Boolean(summary.finished),
        digest: readDigest(summary.digest),
      },
    ];
  });
}
