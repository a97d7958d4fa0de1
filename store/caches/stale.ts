import { QueryTypes, type Transaction } from "sequelize";
import type { SessionRow } from "../models";
import type { StoreParts } from "../store";
import { damagedNos } from "./damaged";
import { type SessionCache, workOut } from "./kept";
import { notSummedNos, setSummed } from "./not-summed";

/** What should be kept of a session, with its row. */
export interface WorkedOut extends SessionCache {
  readonly session: SessionRow;
}

/** How many stale sessions a page works out by itself; past that it shows the newest of them so, and the rest as they were kept. */
export const MOST_WORKED_OUT = 20;

/** How often anything was marked, by store: what was read before a mark may be behind after it. */
const marks = new WeakMap<object, number>();
export const marksOf = ({ sequelize }: Pick<StoreParts, "sequelize">): number => marks.get(sequelize) ?? 0;
const mark = ({ sequelize }: Pick<StoreParts, "sequelize">) => marks.set(sequelize, (marks.get(sequelize) ?? 0) + 1);

/** Says that what is kept of these sessions is behind their events, in the write that made it so. */
export async function markStale(store: Pick<StoreParts, "sequelize">, nos: readonly number[], transaction: Transaction): Promise<void> {
  if (nos.length === 0) return;
  mark(store);
  for (const no of nos) setSummed(store, no);
  await store.sequelize.query("INSERT OR IGNORE INTO stale (session_no) SELECT value FROM json_each($nos)", {
    bind: { nos: JSON.stringify(nos) },
    transaction,
  });
}

/** The same of every session that is not in the bin. */
export async function markAllStale(store: Pick<StoreParts, "sequelize">, transaction: Transaction): Promise<void> {
  mark(store);
  await store.sequelize.query("INSERT OR IGNORE INTO stale (session_no) SELECT no FROM session WHERE binned_ms IS NULL", { transaction });
}

/** Sessions whose caches are behind, newest first: of one horse, or of all. Those in the bin are none, and those that cannot be summed up stand in no other's way. */
export const staleSessions = (store: StoreParts, horseId: string | null, most: number): Promise<SessionRow[]> =>
  store.sequelize.query<SessionRow>(
    `SELECT s.* FROM (SELECT session_no FROM stale UNION SELECT value FROM json_each(:damaged)) t CROSS JOIN session s ON s.no = t.session_no
     WHERE s.binned_ms IS NULL ${horseId === null ? "" : "AND s.horse_id = :horse"}
     AND t.session_no NOT IN (SELECT value FROM json_each(:apart)) ORDER BY t.session_no DESC LIMIT :most`,
    {
      replacements: { horse: horseId, most, apart: JSON.stringify(notSummedNos(store)), damaged: JSON.stringify(damagedNos(store)) },
      type: QueryTypes.SELECT,
    },
  );

/**
 * What should be kept of a horse's stale sessions, by number. A page shows
 * what is so without writing: on a full disk it still opens.
 */
export async function overlay(store: StoreParts, horseId: string | null): Promise<Map<number, WorkedOut>> {
  const stale = await staleSessions(store, horseId, MOST_WORKED_OUT);
  if (stale.length === 0) return new Map();
  const kept = await workOut(store, stale);
  const byNo = new Map(kept.map((one) => [one.no, one]));
  return new Map(
    stale.flatMap((session) => {
      const one = byNo.get(session.no);
      return one === undefined ? [] : [[session.no, { ...one, session }] as const];
    }),
  );
}
