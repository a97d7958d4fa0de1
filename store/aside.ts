import { QueryTypes } from "sequelize";
import * as z from "zod";
import { checkEvent, type SessionEvent } from "@/core/schemas";
import { keptJson } from "./kept-json";
import { UnreadError } from "./rows";
import type { Store } from "./store";

/** A tap of a helper that was not taken, as the keeper sees it. */
export interface AsideTap {
  readonly id: string;
  readonly sessionId: string;
  /** Who sent it; null where that is not known any more. */
  readonly person: string | null;
  readonly horse: string | null;
  readonly tappedMs: number;
  readonly what: "strikes" | "corrects" | "takes back" | "moves the session";
  readonly reason: string;
}

/** More than this of one person are kept on the device alone: nobody fills the file with them. */
const MOST_OF_ONE = 200;
const MOST_SHOWN = 200;

/** What moves a whole session: for full rights alone, whoever runs it. */
export const MOVES_A_SESSION: readonly string[] = ["horse", "shift_s"];
export const movesSession = (event: SessionEvent): boolean =>
  event.type === "correct" && MOVES_A_SESSION.some((key) => Object.hasOwn(event.payload.payload ?? {}, key));

/**
 * Keeps taps of a helper that were not taken where the keeper sees them. They
 * stay on the device as well; sent again they are kept once.
 */
export async function putAside(store: Store, personId: string | null, events: readonly SessionEvent[]): Promise<void> {
  const rows = JSON.stringify(events.map((event) => [event.id, event.session, JSON.stringify(event)]));
  await store.writer.write((transaction) =>
    store.sequelize.query(
      `INSERT OR IGNORE INTO tap_aside (id, session_id, person_id, event, aside_ms) SELECT value->>0, value->>1, $person, value->>2, $now
       FROM json_each($rows) WHERE (SELECT COUNT(*) FROM tap_aside WHERE person_id IS $person) + key < ${MOST_OF_ONE}`,
      { bind: { rows, person: personId, now: store.now() }, transaction },
    ),
  );
}

interface Row {
  readonly id: string;
  readonly session_id: string;
  readonly event: string;
  readonly person: string | null;
  readonly horse: string | null;
}

function whatOf(event: SessionEvent): AsideTap["what"] {
  if (event.type === "undo") return "takes back";
  if (movesSession(event)) return "moves the session";
  return event.type === "correct" && event.payload.strike === true ? "strikes" : "corrects";
}

const eventIn = (text: string): SessionEvent | null => {
  const event = keptJson(text, z.unknown());
  const checked = checkEvent(event);
  return checked.ok ? checked.value : null;
};

/** How many wait for somebody with full rights. */
export async function asideCount({ sequelize }: Pick<Store, "sequelize">): Promise<number> {
  const [row] = await sequelize.query<{ n: number }>("SELECT COUNT(*) AS n FROM tap_aside", { type: QueryTypes.SELECT });
  return row?.n ?? 0;
}

/** What waits, the oldest first. */
export async function asideTaps(store: Store): Promise<AsideTap[]> {
  const rows = await store.sequelize.query<Row>(
    `SELECT a.id, a.session_id, a.event, p.name AS person, h.name AS horse FROM tap_aside a LEFT JOIN person p ON p.id = a.person_id
     LEFT JOIN session s ON s.id = a.session_id LEFT JOIN horse h ON h.id = s.horse_id ORDER BY a.aside_ms, a.id LIMIT ${MOST_SHOWN}`,
    { type: QueryTypes.SELECT },
  );
  return rows.flatMap(({ id, session_id, event: text, person, horse }) => {
    const event = eventIn(text);
    if (event === null) return [];
    const reason = event.type === "correct" ? (event.payload.reason ?? "") : "";
    return [{ id, sessionId: session_id, person, horse, tappedMs: event.wall_ms, what: whatOf(event), reason }];
  });
}

/** Takes one in, as somebody with full rights may, or leaves it out; the device keeps it either way until it is taken. Done twice it is done once. */
export async function settleAside(store: Store, id: string, take: boolean): Promise<void> {
  const [row] = await store.sequelize.query<{ event: string }>("SELECT event FROM tap_aside WHERE id = $id", {
    bind: { id },
    type: QueryTypes.SELECT,
  });
  const event = row === undefined ? null : eventIn(row.event);
  if (row !== undefined && take && event === null) throw new UnreadError("this change");
  if (take && event !== null) await store.events.append({ recorder: event.recorder, events: [event], clocks: {} });
  await store.writer.write((transaction) => store.sequelize.query("DELETE FROM tap_aside WHERE id = $id", { bind: { id }, transaction }));
}
