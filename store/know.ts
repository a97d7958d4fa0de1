import { Op } from "sequelize";
import type { KnowDigest } from "@/core/know";
import type { SessionRow } from "./models";
import { plain } from "./rows";
import { withSummaries } from "./sessions";
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
export async function digestsOfHorse(store: Store, horseId: string, sinceMs = 0): Promise<DigestedSession[]> {
  const rows = await store.models.session.findAll({
    where: { horse_id: horseId, created_ms: { [Op.gte]: sinceMs } },
    order: [["created_ms", "ASC"]],
  });
  const loaded = await withSummaries(store, rows.map(plain));
  return loaded
    .filter(({ summary }) => Boolean(summary.seen))
    .map(({ session, summary }) => ({
      session,
      startedMs: summary.started_ms ?? session.created_ms,
      finished: Boolean(summary.finished),
      digest: JSON.parse(summary.digest) as KnowDigest,
    }));
}
