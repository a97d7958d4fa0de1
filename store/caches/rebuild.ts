import { QueryTypes, type Transaction } from "sequelize";
import type { NumberedSession } from "../events";
import type { StoreParts } from "../store";
import { type SessionCache, workOut } from "./kept";
import { setNotSummed } from "./not-summed";
import { markAllStale, marksOf } from "./stale";
import type { Whose } from "./trial-columns";
import { dropKeptOfNone, writeKept } from "./write";

/** Sessions summed up in one transaction: twice so many lie in memory at once. */
const AT_ONCE = 200;

async function whoseAre(store: StoreParts, sessions: readonly NumberedSession[], transaction?: Transaction): Promise<Map<number, Whose>> {
  const rows = await store.sequelize.query<Whose & { no: number }>(
    "SELECT no, horse_id, person_id FROM session WHERE no IN (SELECT value FROM json_each($nos))",
    { bind: { nos: JSON.stringify(sessions.map(({ no }) => no)) }, type: QueryTypes.SELECT, transaction },
  );
  return new Map(rows.map((row) => [row.no, row]));
}

interface Part {
  readonly sessions: readonly NumberedSession[];
  readonly kept: readonly SessionCache[];
  readonly whose: ReadonlyMap<number, Whose>;
  readonly marks: number;
}

async function prepare(store: StoreParts, sessions: readonly NumberedSession[]): Promise<Part> {
  const marks = marksOf(store);
  return { sessions, marks, whose: await whoseAre(store, sessions), kept: await workOut(store, sessions) };
}

/**
 * Keeps a part. Where anything was tapped since it was worked out, it is worked out again inside the write.
 * One whose sums the file does not take is named and left out, and the others go on.
 */
async function keep(store: StoreParts, part: Part): Promise<void> {
  try {
    await store.writer.write(async (transaction) => {
      const { sessions, kept, whose, marks } = part;
      if (marks === marksOf(store)) await writeKept(store, kept, whose, transaction);
      else await writeKept(store, await workOut(store, sessions, transaction), await whoseAre(store, sessions, transaction), transaction);
    }, "sums");
  } catch (error) {
    if (!isRefusedSum(error)) throw error;
    const [only, ...others] = part.sessions;
    if (only !== undefined && others.length === 0) setNotSummed(store, only, error);
    else for (const session of part.sessions) await keep(store, await prepare(store, [session]));
  }
}

/** Whether the file refused a row for what is in it: no number, or one beyond all of ours. */
function isRefusedSum(error: unknown): boolean {
  const parent: unknown = error instanceof Error && "parent" in error ? error.parent : error;
  return parent instanceof Error && /(CHECK|NOT NULL) constraint failed/.test(parent.message);
}

/** Makes what is kept of these sessions anew from their events, in one write. */
export async function refreshCaches(store: StoreParts, sessions: readonly NumberedSession[]): Promise<void> {
  if (sessions.length > 0) await keep(store, await prepare(store, sessions));
}

/**
 * Makes every cache anew, each in place of the one before: a cut leaves none empty. What is stale is worked through in parts, so memory
 * stays bounded and a cut leaves the rest stale.
 * @param each told how many sessions are done after each part.
 * @returns how many sessions were summed up.
 */
export async function rebuildCaches(store: StoreParts, each: (done: number) => void = () => undefined): Promise<number> {
  await store.writer.write((transaction) => markAllStale(store, transaction));
  const done = await catchUp(store, each);
  await store.writer.write((transaction) => dropKeptOfNone(store, transaction));
  return done;
}

async function nextPart(store: StoreParts, after: number): Promise<Part | null> {
  const sessions = await store.sequelize.query<NumberedSession>(
    `SELECT s.no, s.id, s.person_id FROM stale t CROSS JOIN session s ON s.no = t.session_no
     WHERE t.session_no > :after AND s.binned_ms IS NULL ORDER BY t.session_no LIMIT :most`,
    { replacements: { after, most: AT_ONCE }, type: QueryTypes.SELECT },
  );
  return sessions.length === 0 ? null : prepare(store, sessions);
}

/** Works through what is stale, whatever made it so: while one part is written the next is read and worked out. @returns how many sessions were summed up. */
export async function catchUp(store: StoreParts, each: (done: number) => void = () => undefined): Promise<number> {
  let done = 0;
  let part = await nextPart(store, 0);
  while (part !== null) {
    const [next] = await Promise.all([nextPart(store, part.sessions.at(-1)?.no ?? 0), keep(store, part)]);
    done += part.kept.length;
    each(done);
    part = next;
  }
  return done;
}
