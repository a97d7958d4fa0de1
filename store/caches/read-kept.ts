import { QueryTypes } from "sequelize";
import type { NumberedSession } from "../events";
import { isOfCode } from "../rows";
import type { StoreParts } from "../store";
import { setDamaged } from "./damaged";
import { refreshCaches } from "./rebuild";
import { opened, openedOrNull } from "./sealed";

const SESSIONS_AT_ONCE = 500;
const RENEWED_AT_ONCE = 50;

const TEXTS = ["drawing", "digest", "past"] as const;
const TEXTS_OR_NONE = ["struck_notes", "circle", "aftermath"] as const;
type Texts = Readonly<Record<(typeof TEXTS)[number] | (typeof TEXTS_OR_NONE)[number], unknown>>;

function isDamaged(row: Texts): boolean {
  try {
    for (const column of TEXTS) opened(row[column]);
    for (const column of TEXTS_OR_NONE) openedOrNull(row[column]);
    return false;
  } catch {
    return true;
  }
}

/** Sessions of which a kept text is not what was written. Reads every sum of the store, in parts. */
async function damagedSessions(store: StoreParts): Promise<NumberedSession[]> {
  const found: NumberedSession[] = [];
  for (let after = -1; ; ) {
    const rows = await store.sequelize.query<NumberedSession & Texts>(
      `SELECT s.no, s.id, s.person_id, ${[...TEXTS, ...TEXTS_OR_NONE].map((column) => `c.${column}`).join(", ")}
       FROM session_summary c CROSS JOIN session s ON s.no = c.session_no WHERE c.session_no > $after ORDER BY c.session_no LIMIT ${SESSIONS_AT_ONCE}`,
      { bind: { after }, type: QueryTypes.SELECT },
    );
    found.push(...rows.filter(isDamaged).map(({ no, id, person_id }) => ({ no, id, person_id })));
    if (rows.length < SESSIONS_AT_ONCE) return found;
    after = rows.at(-1)?.no ?? after;
  }
}

/**
 * Reads what is kept of sessions. Where it cannot be read it is worked out
 * anew from the events, as what is stale is, and read again; on a disk that
 * takes nothing it is worked out for the page alone.
 */
export async function readKept<T>(store: StoreParts, read: () => Promise<T>): Promise<T> {
  try {
    return await read();
  } catch (error) {
    if (!isOfCode(error, "damaged-sum")) throw error;
    const damaged = await damagedSessions(store);
    console.error(`The sums of ${damaged.length} sessions cannot be read and are made anew from what was tapped.`);
    for (let at = 0; at < damaged.length; at += RENEWED_AT_ONCE) {
      const part = damaged.slice(at, at + RENEWED_AT_ONCE);
      await refreshCaches(store, part).catch(() => setDamaged(store, part));
    }
    return read();
  }
}
