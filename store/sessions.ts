import { QueryTypes, type Transaction } from "sequelize";
import type { LoggedBegunCircle } from "@/core/events/circle-log";
import { placeEvents, reduceSession, type SessionRecord } from "@/core/record";
import type { SessionEvent, SessionKind } from "@/core/schemas";
import { eventsOfSessions } from "./events";
import { getHorse } from "./horses";
import { getLadder } from "./ladders";
import type { SessionRow } from "./models";
import { personNamed } from "./people";
import { placeNamed } from "./places";
import { ConflictError, GoneError, isOfCode, NotFoundError, plain, rowsOf } from "./rows";
import { getSettings } from "./settings";
import type { Store } from "./store";

/** What a new session is: one horse, one handler, one place, and for work one ladder to begin with. */
export interface NewSession {
  readonly id: string;
  readonly horseId: string;
  readonly kind?: SessionKind;
  /** Null where the session is not work on a ladder. */
  readonly ladderId: string | null;
  readonly personId: string | null;
  readonly placeId: string | null;
  readonly startRung: number | null;
  readonly kitIds?: readonly string[];
  /** Of a session on the circle: its plan; of a ladder worked against a used-up cap, why. */
  readonly circle?: LoggedBegunCircle | { readonly against: string } | null;
}

/** Where a session comes from and when it was made. */
export interface SessionOptions {
  readonly sample?: boolean;
  readonly createdMs?: number;
  /** Begun on a device and worked already: what it names that is gone meanwhile is left out rather than the session. */
  readonly worked?: boolean;
  /** Who and where by name, where there was no id: found, or made with the session if that is allowed. */
  readonly named?: { readonly person: string; readonly place: string; readonly make: boolean };
}

/** The number the next session gets. */
async function nextNumber({ sequelize }: Store, transaction: Transaction): Promise<number> {
  const [row] = await sequelize.query<{ no: number }>("SELECT COALESCE(MAX(no), 0) + 1 AS no FROM session", {
    type: QueryTypes.SELECT,
    transaction,
  });
  return row?.no ?? 1;
}

async function sessionRow(store: Store, input: NewSession, options: SessionOptions): Promise<Omit<SessionRow, "no">> {
  await getHorse(store, input.horseId);
  const ladder = input.ladderId === null ? null : await getLadder(store, input.ladderId);
  if (ladder !== null && ladder.horseId !== input.horseId) throw new NotFoundError("This ladder belongs to another horse.");
  if (ladder !== null && input.startRung !== null && input.startRung > ladder.plan.rungs.length)
    throw new GoneError(`This ladder has no rung ${input.startRung}; its last is ${ladder.plan.rungs.length}.`);
  return {
    id: input.id,
    horse_id: input.horseId,
    person_id: input.personId,
    place_id: input.placeId,
    kind: input.kind ?? "work",
    ladder_id: input.ladderId,
    ladder_version: ladder?.version ?? null,
    start_rung: input.startRung,
    kit: JSON.stringify(input.kitIds ?? []),
    circle: input.circle == null ? null : JSON.stringify(input.circle),
    sample: options.sample ?? false,
    created_ms: options.createdMs ?? store.now(),
  };
}

/** A table of which rows are counted by their id. */
interface Counted {
  count(options: { where: { id: string | string[] }; transaction: Transaction }): Promise<number>;
}

/** @throws GoneError where what a session names has been removed. */
async function thingsThere({ models }: Store, { personId, placeId, kitIds = [] }: NewSession, transaction: Transaction): Promise<void> {
  const missing = async (table: Counted, ids: readonly string[]) =>
    (await table.count({ where: { id: [...new Set(ids)] }, transaction })) < new Set(ids).size;
  if (personId !== null && (await missing(models.person, [personId])))
    throw new GoneError("This person is no longer there. Choose another, or none.");
  if (placeId !== null && (await missing(models.place, [placeId])))
    throw new GoneError("This place has been removed. Choose another, or none.");
  if (await missing(models.kit, kitIds)) throw new GoneError("Some of this kit has been removed. Choose it again.");
}

/** The same session without what it names that is no longer there. */
async function withoutGone(store: Store, input: NewSession, transaction: Transaction): Promise<NewSession> {
  const { models } = store;
  const there = async (table: Counted, id: string | null) =>
    id !== null && (await table.count({ where: { id }, transaction })) > 0 ? id : null;
  const kitIds: string[] = [];
  for (const id of input.kitIds ?? []) if ((await there(models.kit, id)) !== null) kitIds.push(id);
  const ladder =
    input.ladderId === null
      ? null
      : await getLadder(store, input.ladderId).catch((error: unknown) => {
          if (isOfCode(error, "not-found")) return null;
          throw error;
        });
  const fits = ladder !== null && ladder.horseId === input.horseId;
  return {
    ...input,
    personId: await there(models.person, input.personId),
    placeId: await there(models.place, input.placeId),
    ladderId: fits ? input.ladderId : null,
    startRung: fits && input.startRung !== null && input.startRung <= ladder.plan.rungs.length ? input.startRung : null,
    kitIds,
  };
}

/** What a session asked for twice must say both times. Its ladder's version may have moved on meanwhile. */
const asked = ({ horse_id, person_id, place_id, kind, ladder_id, start_rung, kit, circle }: Omit<SessionRow, "no">) =>
  JSON.stringify([horse_id, person_id, place_id, kind, ladder_id, start_rung, kit, circle]);

/**
 * Adds a session; asking again for the same changes nothing.
 * @throws ConflictError where the id is another session's, GoneError where what it names has been removed.
 */
export async function addSession(store: Store, input: NewSession, options: SessionOptions = {}): Promise<void> {
  await store.writer.write(async (transaction) => {
    // One that has been worked is there once, whatever was put right in it or done with it since.
    if (options.worked === true && (await store.models.session.unscoped().count({ where: { id: input.id }, transaction })) > 0) return;
    const { person = "", place = "", make = false } = options.named ?? {};
    const named = options.worked === true ? await withoutGone(store, input, transaction) : input;
    const row = await sessionRow(store, named, options);
    const there = await store.models.session.findByPk(row.id, { transaction });
    if (there !== null) {
      // Asked for again, what was named on the spot has its id by now.
      const again = {
        ...row,
        person_id: row.person_id ?? (await personNamed(store, person, false, transaction)),
        place_id: row.place_id ?? (await placeNamed(store, place, false, transaction)),
      };
      if (asked(plain(there)) !== asked(again)) throw new ConflictError("There is another session under this id.");
      return;
    }
    await thingsThere(store, named, transaction);
    // Last, so that a session that is refused makes nobody.
    const who = row.person_id ?? (await personNamed(store, person, make, transaction));
    const where = row.place_id ?? (await placeNamed(store, place, make, transaction));
    const no = await nextNumber(store, transaction);
    await store.models.session.create({ ...row, person_id: who, place_id: where, no }, { transaction });
  });
}

/** Adds many sessions in one transaction: all of them or none. */
export async function addSessions(store: Store, inputs: readonly (NewSession & SessionOptions)[]): Promise<void> {
  const rows: Omit<SessionRow, "no">[] = [];
  for (const input of inputs) rows.push(await sessionRow(store, input, input));
  await store.writer.write(async (transaction) => {
    const first = await nextNumber(store, transaction);
    await store.models.session.bulkCreate(
      rows.map((row, i) => ({ ...row, no: first + i })),
      { transaction },
    );
  });
}

/** @throws NotFoundError where there is no such session. */
export async function getSession(store: Store, id: string): Promise<SessionRow> {
  const [row] = await rowsOf(store.models.session, "id = :id", { id: id.toLowerCase() });
  if (row === undefined) throw new NotFoundError("There is no such session.");
  return row;
}

/** The same where it lies in the bin too, with when it was put there. @throws NotFoundError where there is no such session. */
export async function getSessionOrBinned(store: Store, id: string): Promise<SessionRow & { readonly binned_ms: number | null }> {
  const found = await store.models.session.unscoped().findByPk(id.toLowerCase());
  if (found === null) throw new NotFoundError("There is no such session.");
  return { binned_ms: null, ...plain(found) };
}

/** A session's events, its clocks and what they come to. */
export interface LoadedSession {
  readonly session: SessionRow;
  readonly events: readonly SessionEvent[];
  readonly position: number;
  readonly offsets: ReadonlyMap<string, number>;
  readonly record: SessionRecord;
}

/** @throws NotFoundError where there is no such session. */
export async function loadSession(store: Store, id: string): Promise<LoadedSession> {
  const session = await getSession(store, id);
  const [read, { silenceMinutes }] = await Promise.all([eventsOfSessions(store, [session]), getSettings(store)]);
  const { position, offsetMsByLoad: offsets } = read;
  const events = read.bySession.get(session.no) ?? [];
  return { session, events, position, offsets, record: reduceSession(events, { offsetMsByLoad: offsets, silenceMinutes }) };
}

/** How many taps a session holds, and what they came to, by what is kept of it: a page asks before it reads them all. */
export async function sizeOfSession(
  store: Store,
  id: string,
): Promise<{ readonly taps: number; readonly n: number; readonly met: number }> {
  const { no } = await getSession(store, id);
  const [row] = await store.sequelize.query<{ taps: number; n: number | null; met: number | null }>(
    `SELECT (SELECT COUNT(*) FROM event WHERE session_no = $no) AS taps, c.n, c.met
     FROM (SELECT 1) LEFT JOIN session_summary c ON c.session_no = $no`,
    { bind: { no }, type: QueryTypes.SELECT },
  );
  return { taps: row?.taps ?? 0, n: row?.n ?? 0, met: row?.met ?? 0 };
}

/** Seconds from the start of work for every event, undone ones too, for events.csv. */
export function derivedSeconds({ events, offsets, record }: LoadedSession): Map<string, number> {
  const start = (record.startWallMs ?? 0) - record.shiftMs;
  return new Map(placeEvents(events, { offsetMsByLoad: offsets }).map(({ event, ms }) => [event.id, (ms - start) / 1000]));
}
