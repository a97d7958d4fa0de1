import { Op, type Transaction } from "sequelize";
import type { SessionEvent } from "@/core/schemas";
import type { EventRow } from "./models";
import { plain } from "./rows";
import type { StoreParts } from "./store";

const eventOf = (row: EventRow): SessionEvent => ({
  id: row.id,
  session: row.session_id,
  recorder: row.recorder,
  load: row.load,
  seq: row.seq,
  mono_ms: row.mono_ms,
  wall_ms: row.wall_ms,
  type: row.type as SessionEvent["type"],
  payload: JSON.parse(row.payload) as Record<string, unknown>,
});

/** Events of a session after a position, in the order they were saved, with the last position. */
export async function eventsOfSession(
  store: StoreParts,
  sessionId: string,
  after = 0,
  transaction?: Transaction,
): Promise<{ events: SessionEvent[]; position: number }> {
  const rows = (
    await store.models.event.findAll({
      where: { session_id: sessionId, position: { [Op.gt]: after } },
      order: [["position", "ASC"]],
      transaction,
    })
  ).map(plain);
  return { events: rows.map(eventOf), position: rows.at(-1)?.position ?? after };
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
