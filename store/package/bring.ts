import { createReadStream } from "node:fs";
import { QueryTypes, type Transaction } from "sequelize";
import { v5 as named } from "uuid";
import type { SessionEvent } from "@/core/events";
import {
  type BroughtTrial,
  CsvPieces,
  type CsvRecord,
  delimiterOf,
  NotSuchAFileError,
  type RefusedRow,
  readEventsCsv,
  type TrialsMapping,
  TrialsReader,
} from "@/core/formats";
import { getHorse } from "../horses";
import type { Store } from "../store";
import { type BroughtHorse, Destinations, type Known, NOBODY, small, type WhoseRows } from "./destinations";
import { dropOnTheWay, newMark, reveal } from "./on-the-way";
import { CancelledError, EVENT_INSERT, type Reading } from "./read";

/** What bringing a file of trials or taps in came to. */
export interface Brought {
  /** By horse, where the file names any. */
  readonly horses: readonly BroughtHorse[];
  /** Rows of horses that are left out. */
  readonly leftOut: number;
  readonly sessions: number;
  /** New ones, and those that were here already. */
  readonly trials: number;
  readonly known: number;
  readonly refused: readonly RefusedRow[];
  readonly refusedCount: number;
  readonly unknownColumns: readonly string[];
}

/** What stands in for a device: sessions of a file come from here. */
const FILE_RECORDER = "from a file";
/** Ids made of a file's own names, so that the same file brought in twice is brought in once. */
const OF_FILES = "6b1d3a52-0d64-4c5e-9a53-6d3d3f0f7a10";
const MOST_REFUSED_LISTED = 100;
const SESSIONS_AT_ONCE = 40;

/** A row of a table is far shorter; one that goes on and on has a quote that nothing closes. */
const LONGEST_ROW = 1024 * 1024;

interface MadeSession {
  readonly id: string;
  readonly horse: string;
  readonly startedMs: number;
  readonly ladder: string | null;
  readonly person: string | null;
  readonly place: string | null;
  readonly events: readonly (readonly [id: string, seq: number, ms: number, type: string, payload: object])[];
  readonly trials: number;
  readonly source: number;
}

/** Rows of one session as the events a device would have sent. */
function madeSession(horseId: string, horseName: string, source: number, rows: readonly BroughtTrial[], known: Known): MadeSession {
  const [first] = rows as [BroughtTrial];
  const key = `${horseId} ${first.session}`;
  const id = named(key, OF_FILES);
  const events: [string, number, number, string, object][] = [];
  let seq = 0;
  const add = (name: string, ms: number, type: string, payload: object) =>
    events.push([named(`${key} ${name}`, OF_FILES), ++seq, ms, type, payload]);
  const sorted = [...rows].sort((a, b) => a.seconds - b.seconds || a.trial - b.trial);
  add("start", 0, "session.start", {
    horse: horseName,
    ...(first.handler === "" ? {} : { handler: first.handler }),
    ...(first.place === "" ? {} : { place: first.place }),
    method: "combined",
  });
  let block = 0;
  let before = "";
  let lastMs = 0;
  for (const row of sorted) {
    const ms = row.seconds * 1000;
    const ladder = known.ladders.get(small(row.behaviour));
    const rung = Number(row.rung);
    const on = ladder !== undefined && Number.isInteger(rung) && rung >= 1 && rung <= ladder.rungs ? ladder : undefined;
    const stretch = JSON.stringify([row.block, row.behaviour, row.rung, row.side, row.kind]);
    if (stretch !== before) {
      before = stretch;
      block++;
      add(`block ${block}`, block === 1 ? 0 : ms, "block.start", {
        block,
        behaviour: row.behaviour,
        ...(on === undefined ? {} : { ladder: on.id, version: on.version }),
        rung: on === undefined ? row.rung : rung,
        side: row.side,
        ...(row.kind === null ? {} : { kind: row.kind }),
      });
    }
    add(`trial ${row.trial}`, ms, "trial", row.payload);
    lastMs = Math.max(lastMs, ms + 1000 * Number(row.payload.waited_s ?? row.payload.latency_s ?? 0));
  }
  add("end", lastMs + 1000, "session.end", {});
  const ladder = known.ladders.get(small(first.behaviour));
  return {
    id,
    horse: horseId,
    startedMs: first.startedMs,
    ladder: ladder?.id ?? null,
    person: known.people.get(small(first.handler)) ?? null,
    place: known.places.get(small(first.place)) ?? null,
    events,
    trials: rows.length,
    source,
  };
}

async function sourceOf(store: Store, load: string): Promise<number> {
  const bind = { recorder: FILE_RECORDER, load };
  await store.writer.write((transaction) =>
    store.sequelize.query("INSERT OR IGNORE INTO source (recorder, load, part) VALUES ($recorder, $load, '')", { bind, transaction }),
  );
  const [row] = await store.sequelize.query<{ no: number }>(
    "SELECT no FROM source WHERE recorder = $recorder AND load = $load AND part = ''",
    {
      bind,
      type: QueryTypes.SELECT,
    },
  );
  return row?.no ?? 0;
}

/** How many of these events are here already. */
async function countKnown(store: Store, ids: readonly string[], transaction?: Transaction): Promise<number> {
  const [known] = await store.sequelize.query<{ n: number }>(
    "SELECT COUNT(*) AS n FROM json_each($ids) j CROSS JOIN event e ON e.id = unhex(j.value, '-')",
    { bind: { ids: JSON.stringify(ids) }, type: QueryTypes.SELECT, transaction },
  );
  return known?.n ?? 0;
}

/**
 * Puts sessions with their events out of sight.
 * @returns those that stand in sight already: what is new of them waits until everything else is here.
 */
async function putSessions(store: Store, mark: string, sessions: readonly MadeSession[]): Promise<readonly MadeSession[]> {
  return store.writer.write(async (transaction) => {
    const inSight = new Set(
      (
        await store.sequelize.query<{ id: string }>(
          "SELECT s.id FROM json_each($ids) j CROSS JOIN session s ON s.id = j.value WHERE s.binned_with IS NOT $mark",
          { bind: { ids: JSON.stringify(sessions.map(({ id }) => id)), mark }, type: QueryTypes.SELECT, transaction },
        )
      ).map(({ id }) => id),
    );
    const fresh = sessions.filter(({ id }) => !inSight.has(id));
    const [last] = await store.sequelize.query<{ no: number }>("SELECT COALESCE(MAX(no), 0) AS no FROM session", {
      type: QueryTypes.SELECT,
      transaction,
    });
    const rows = fresh.map(({ id, horse, startedMs, ladder, person, place }, i) => [
      id,
      horse,
      person,
      place,
      ladder,
      startedMs,
      store.now(),
      (last?.no ?? 0) + 1 + i,
    ]);
    await store.sequelize.query(
      `INSERT OR IGNORE INTO session (id, horse_id, person_id, place_id, kind, ladder_id, kit, sample, created_ms, binned_ms, binned_with, no)
       SELECT value->>0, value->>1, value->>2, value->>3, 'work', value->>4, '[]', 0, value->>5, value->>6, $mark, value->>7 FROM json_each($rows)`,
      { bind: { rows: JSON.stringify(rows), mark }, transaction },
    );
    await putEvents(store, fresh, transaction);
    return sessions.filter(({ id }) => inSight.has(id));
  }, "sums");
}

async function putEvents(store: Store, sessions: readonly MadeSession[], transaction: Transaction): Promise<void> {
  const packed = sessions.flatMap(({ id, source, startedMs, events }) =>
    events.map(([event, seq, ms, type, payload]) => [
      event,
      id,
      source,
      seq,
      ms,
      startedMs + ms,
      type,
      JSON.stringify(payload),
      store.now(),
    ]),
  );
  await store.sequelize.query(EVENT_INSERT.replace("INSERT INTO", "INSERT OR IGNORE INTO"), {
    bind: { rows: JSON.stringify(packed) },
    transaction,
  });
}

/** Brings it all into sight. */
async function show(store: Store, mark: string, ids: readonly string[]): Promise<void> {
  await store.writer.write((transaction) => reveal(store, mark, ids, transaction));
  store.caches.catchUp();
}

/** The text of a file in pieces, as UTF-8 and nothing else. */
async function* textOf(path: string): AsyncGenerator<{ text: string; bytes: number }> {
  const decoder = new TextDecoder("utf-8", { fatal: true });
  let bytes = 0;
  try {
    for await (const piece of createReadStream(path, { highWaterMark: 256 * 1024 })) {
      bytes += (piece as Buffer).length;
      yield { text: decoder.decode(piece as Buffer, { stream: true }), bytes };
    }
    yield { text: decoder.decode(), bytes };
  } catch (error) {
    if (error instanceof TypeError) throw new NotSuchAFileError("The file is not UTF-8. Save it as CSV UTF-8 and try again.");
    throw error;
  }
}

/**
 * Brings a file of trials into the log, with columns that were said to be ours.
 * Rows that name a horse go to the horse of that name, to one that was said, to
 * a new one, or are left out, and that is said. Behaviours go to the horse's
 * ladder of that name where it has the rung; others are kept under their name.
 * In parts, so that taps get in between; everything comes into sight at the
 * end, and where whoever asked gives up nothing stays. Brought in twice it is
 * there once.
 * @param dry reads and says what would come, and writes nothing.
 * @throws NotSuchAFileError where a needed column was given none. CancelledError where whoever asked gave up.
 */
export async function bringTrials(
  store: Store,
  path: string,
  whose: WhoseRows,
  mapping: TrialsMapping,
  { onBytes, cancelled, dry = false }: Reading & { readonly dry?: boolean } = {},
): Promise<Brought> {
  const to = await Destinations.of(store, whose);
  const mark = newMark();
  const source = dry ? 0 : await sourceOf(store, named(`${whose.horse} ${path}`, OF_FILES));
  const refused: RefusedRow[] = [];
  let refusedCount = 0;
  let leftOut = 0;
  let header: readonly string[] | null = null;
  let reader: TrialsReader | null = null;
  const waiting = new Map<string, BroughtTrial[]>();
  const done = new Set<string>();
  let trials = 0;
  let known = 0;
  const inSight: MadeSession[] = [];
  const take = (record: CsvRecord) => {
    if (reader === null) {
      header = record.cells.map((cell) => cell.trim());
      reader = new TrialsReader(header, mapping, store.timeZone);
      if (reader.missing.length > 0) throw new NotSuchAFileError(`Say which column is ${reader.missing.join(", ")}.`);
      return;
    }
    const row = reader.read(record);
    if ("reason" in row) {
      refusedCount++;
      if (refused.length < MOST_REFUSED_LISTED) refused.push(row);
      return;
    }
    const at = to.at(row.horse);
    at.trials++;
    if (at.to === "out") {
      leftOut++;
      return;
    }
    const key = JSON.stringify([small(row.horse), row.session]);
    const list = waiting.get(key);
    at.sessions.add(row.session);
    if (list === undefined) waiting.set(key, [row]);
    else list.push(row);
  };
  /** Sessions whose rows are whole: all but the last ones seen, which may go on. */
  const put = async (most: number) => {
    while (waiting.size > most) {
      const part = [...waiting].slice(0, Math.min(SESSIONS_AT_ONCE, waiting.size - most));
      for (const [key] of part) waiting.delete(key);
      await to.ready(
        part.map(([, rows]) => rows[0]?.horse ?? ""),
        dry ? null : mark,
      );
      const made = part.map(([, rows]) => {
        const { horse, known: names, name } = to.at(rows[0]?.horse ?? "");
        // Of a horse that is not made yet, by a dry run, nothing can be here already.
        return madeSession(horse?.id ?? `new ${small(name)}`, horse?.name ?? name, source, rows, names ?? NOBODY);
      });
      known += await countKnown(
        store,
        made.flatMap(({ events }) => events.flatMap(([id, , , type]) => (type === "trial" ? [id] : []))),
      );
      if (!dry) inSight.push(...(await putSessions(store, mark, made)));
      for (const one of made) {
        done.add(one.id);
        trials += one.trials;
      }
      if (cancelled?.() === true) throw new CancelledError("Given up.");
      await new Promise((resolve) => setImmediate(resolve));
    }
  };
  let pieces: CsvPieces | null = null;
  try {
    for await (const { text, bytes } of textOf(path)) {
      pieces ??= new CsvPieces(take, delimiterOf(text));
      pieces.push(text);
      if (pieces.waiting > LONGEST_ROW) throw new NotSuchAFileError(`Line ${pieces.linesTaken + 1} is too long: a quote may be open.`);
      onBytes?.(bytes);
      if (cancelled?.() === true) throw new CancelledError("Given up.");
      await put(SESSIONS_AT_ONCE);
    }
    pieces?.end();
    await put(0);
    if (header === null) throw new NotSuchAFileError("The file is empty.");
    if (!dry) {
      for (const one of inSight) await store.writer.write((transaction) => putEvents(store, [one], transaction), "sums");
      await show(store, mark, [...done]);
    }
  } catch (error) {
    if (!dry) await dropOnTheWay(store, mark);
    throw error;
  }
  const used = new Set(Object.values(mapping.columns));
  return {
    horses: to.said,
    leftOut,
    sessions: done.size,
    trials: trials - known,
    known,
    refused,
    refusedCount,
    unknownColumns: (header as readonly string[]).filter((name) => !used.has(name)),
  };
}

/**
 * Brings an events.csv of this product into a horse's log, session by session,
 * by the ids of its events. The file is read whole: it holds a few sessions, the
 * yard goes by package.
 */
export async function bringEvents(store: Store, path: string, horseId: string, { cancelled }: Reading = {}): Promise<Brought> {
  await getHorse(store, horseId);
  let text = "";
  for await (const piece of textOf(path)) text += piece.text;
  const { events, refused, unknownColumns } = readEventsCsv(text);
  const bySession = new Map<string, SessionEvent[]>();
  for (const event of events) bySession.set(event.session, [...(bySession.get(event.session) ?? []), event]);
  let trials = 0;
  let known = 0;
  if (cancelled?.() === true) throw new CancelledError("Given up.");
  const mark = newMark();
  try {
    for (const [id, list] of bySession) {
      const startedMs = Math.min(...list.map(({ wall_ms }) => wall_ms));
      await putSessions(store, mark, [
        { id, horse: horseId, startedMs, ladder: null, person: null, place: null, events: [], trials: 0, source: 0 },
      ]);
      const asks = list.filter(({ type }) => type === "trial" || type === "ask").map((event) => event.id);
      known += await countKnown(store, asks);
      trials += asks.length;
      for (let at = 0; at < list.length; at += 500)
        await store.events.append({ recorder: FILE_RECORDER, events: list.slice(at, at + 500), clocks: {} });
    }
    await show(store, mark, [...bySession.keys()]);
  } catch (error) {
    await dropOnTheWay(store, mark);
    throw error;
  }
  return {
    horses: [],
    leftOut: 0,
    sessions: bySession.size,
    trials: trials - known,
    known,
    refused: refused.slice(0, MOST_REFUSED_LISTED),
    refusedCount: refused.length,
    unknownColumns,
  };
}
