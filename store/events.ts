import { QueryTypes, type Transaction } from "sequelize";
import type { SessionEvent } from "@/core/schemas";
import { unpackId } from "./ids";
import { plain } from "./rows";
import type { StoreParts } from "./store";

interface FoundEvent {
  readonly position: number;
  readonly id: Buffer | string;
  readonly recorder: string;
  readonly load: string;
  readonly part: string;
  readonly seq: number;
  readonly mono_ms: number;
  readonly wall_ms: number;
  readonly type: string;
  readonly payload: string;
}

/** Events of a session after a position, in the order they were saved, with the last position. */
export async function eventsOfSession(
  store: StoreParts,
  sessionId: string,
  after = 0,
  transaction?: Transaction,
): Promise<{ events: SessionEvent[]; position: number }> {
  const rows = await store.sequelize.query<FoundEvent>(
    `SELECT e.position, e.id, o.recorder, o.load, o.part, e.seq, e.mono_ms, e.wall_ms, e.type, e.payload
     FROM event e JOIN source o ON o.no = e.source_no
     WHERE e.session_no = (SELECT no FROM session WHERE id = :session) AND e.position > :after ORDER BY e.position`,
    { replacements: { session: sessionId, after }, type: QueryTypes.SELECT, transaction },
  );
  // A row was checked at the door, so it is the event it was saved from.
  const events = rows.map(
    ({ position: _, id, payload, part, ...row }) =>
      ({
        ...row,
        id: unpackId(id),
        session: sessionId,
        payload: JSON.parse(payload),
        ...(part === "" ? {} : { part }),
      }) as unknown as SessionEvent,
  );
  return { events, position: rows.at(-1)?.position ?? after };
}

/** A session by its number and its id, with whose it is. */
export interface NumberedSession {
  readonly no: number;
  readonly id: string;
  readonly person_id: string | null;
}

type PackedEvent = [id: string, source: number, seq: number, mono: number, wall: number, type: string, payload: object];

const withDashes = (hex: string) => `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`;

/** The events of many sessions, and the clock offsets of the page loads that recorded them. */
export interface EventsRead {
  readonly bySession: ReadonlyMap<number, SessionEvent[]>;
  /** The position of the newest of them, 0 where there is none. */
  readonly position: number;
  readonly offsetMsByLoad: ReadonlyMap<string, number>;
}

/**
 * The events of many sessions, by number. Each session comes out of the file
 * as one text: rows that are taken over one by one cost more than all that is
 * derived from them.
 */
export async function eventsOfSessions(
  store: StoreParts,
  sessions: readonly NumberedSession[],
  transaction?: Transaction,
): Promise<EventsRead> {
  const nos = sessions.map(({ no }) => no);
  const found = await store.sequelize.query<{ no: number; position: number; events: string }>(
    `SELECT session_no AS no, MAX(position) AS position, '[' || group_concat('[' || CASE typeof(id) WHEN 'blob' THEN '"' || lower(hex(id)) || '"' ELSE json_quote(id || '!') END
       || ',' || source_no || ',' || seq || ',' || printf('%!.17g', mono_ms) || ',' || printf('%!.17g', wall_ms) || ',"' || type || '",' || payload || ']') || ']' AS events
     FROM event WHERE session_no IN (:nos) GROUP BY session_no`,
    { replacements: { nos: nos.length === 0 ? [-1] : nos }, type: QueryTypes.SELECT, transaction },
  );
  const packed = found.map(({ no, events }) => [no, JSON.parse(events) as PackedEvent[]] as const);
  const used = new Set<number>();
  for (const [, events] of packed) for (const event of events) used.add(event[1]);
  const rows = await store.sequelize.query<{ no: number; recorder: string; load: string; part: string; offset_ms: number | null }>(
    `SELECT o.no, o.recorder, o.load, o.part, c.offset_ms FROM json_each($used) j CROSS JOIN source o ON o.no = j.value
     LEFT JOIN recorder_clock c ON c.load = o.load`,
    { bind: { used: JSON.stringify([...used]) }, type: QueryTypes.SELECT, transaction },
  );
  const sources = new Map(rows.map((row) => [row.no, row]));
  const ids = new Map(sessions.map(({ no, id }) => [no, id]));
  const bySession = new Map<number, SessionEvent[]>();
  for (const [no, events] of packed) {
    const session = ids.get(no) ?? "";
    bySession.set(
      no,
      events.map(([id, source, seq, mono_ms, wall_ms, type, payload]) => {
        const from = sources.get(source);
        return {
          id: id.endsWith("!") ? id.slice(0, -1) : withDashes(id),
          session,
          recorder: from?.recorder ?? "",
          load: from?.load ?? "",
          ...(from === undefined || from.part === "" ? {} : { part: from.part }),
          seq,
          mono_ms,
          wall_ms,
          type,
          payload,
        } as SessionEvent;
      }),
    );
  }
  return {
    bySession,
    position: found.reduce((newest, { position }) => Math.max(newest, position), 0),
    offsetMsByLoad: new Map(rows.flatMap(({ load, offset_ms }) => (offset_ms === null ? [] : [[load, offset_ms] as const]))),
  };
}

/** The clock offsets of the page loads that recorded a session's events. */
export async function clockOffsets(
  store: StoreParts,
  events: readonly SessionEvent[],
  transaction?: Transaction,
): Promise<Map<string, number>> {
  const loads = [...new Set(events.map((event) => event.load))];
  const rows = (await store.models.recorderClock.findAll({ where: { load: loads }, transaction })).map(plain);
  return new Map(rows.map((row) => [row.load, row.offset_ms]));
}

/** Where stored events came from: their recorder, and who runs their session. Ids the store does not have are left out. */
export async function originsOf(
  { sequelize }: StoreParts,
  ids: readonly string[],
): Promise<ReadonlyMap<string, { readonly recorder: string; readonly personId: string | null }>> {
  if (ids.length === 0) return new Map();
  const rows = await sequelize.query<{ id: string; recorder: string; personId: string | null }>(
    `SELECT j.value AS id, s.recorder, n.person_id AS personId FROM json_each($ids) j
     CROSS JOIN event e ON e.id = IIF(LENGTH(j.value) = 36, COALESCE(unhex(j.value, '-'), j.value), j.value)
     CROSS JOIN source s ON s.no = e.source_no CROSS JOIN session n ON n.no = e.session_no`,
    { bind: { ids: JSON.stringify(ids) }, type: QueryTypes.SELECT },
  );
  return new Map(rows.map(({ id, ...origin }) => [id, origin]));
}

/** Under which names page loads were tapped so far; loads the store does not know are left out. */
export async function recordersOfLoads({ sequelize }: StoreParts, loads: readonly string[]): Promise<readonly string[]> {
  if (loads.length === 0) return [];
  const rows = await sequelize.query<{ recorder: string }>(
    "SELECT DISTINCT s.recorder FROM json_each($loads) j CROSS JOIN source s ON s.load = j.value",
    { bind: { loads: JSON.stringify(loads) }, type: QueryTypes.SELECT },
  );
  return rows.map(({ recorder }) => recorder);
}
