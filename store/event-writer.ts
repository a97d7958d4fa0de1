import { isDeepStrictEqual } from "node:util";
import { Op, QueryTypes, type Sequelize, type Transaction } from "sequelize";
import type { SessionEvent } from "@/core/schemas";
import { markStale } from "./caches";
import { storeFailure } from "./failure";
import { packId, unpackId } from "./ids";
import type { EventRow, Models } from "./models";
import { plain } from "./rows";
import type { Writer } from "./writer";

/** A batch as a recorder posts it: events already checked, and the device's clock offsets by page load. */
export interface EventBatch {
  readonly recorder: string;
  readonly events: readonly SessionEvent[];
  readonly clocks: Readonly<Record<string, number>>;
}

/** What was saved. `known` counts events the store already had; `position` is how far the store's events now reach. */
export interface BatchReceipt {
  readonly saved: number;
  readonly known: number;
  readonly position: number;
}

/** Thrown where a batch names a session the store does not have. */
export class UnknownSessionError extends Error {
  readonly code = "unknown-session";
  constructor(readonly sessions: readonly string[]) {
    super("The store has no such session.");
  }
}

/** Thrown where an event comes again under its id but says something else: neither may silently win. */
export class EventConflictError extends Error {
  readonly code = "event-conflict";
  constructor(readonly events: readonly string[]) {
    super("A tap under this id is saved already and says something else.");
  }
}

type Outcome = { readonly receipt: BatchReceipt } | { readonly error: Error };

interface Waiting {
  readonly batch: EventBatch;
  readonly done: (receipt: BatchReceipt) => void;
  readonly failed: (error: unknown) => void;
}

/** Page loads whose offsets are remembered; those in use are a handful. */
const MOST_OFFSETS = 1000;

/** SQLite takes at most 32 766 values in a statement; an event needs ten. */
const ROWS_AT_ONCE = 2000;

/** Half of a character pair, as a name cut short may end in, would come back from the disk as another one. */
const wellFormed = (text: string) => (/[\ud800-\udfff]/.test(text) ? Buffer.from(text, "utf8").toString("utf8") : text);

/** What tells one source from another. */
const sourceKey = ({ recorder, load, part }: { readonly recorder: string; readonly load: string; readonly part?: string }) =>
  `${load} ${part ?? ""} ${wellFormed(recorder)}`;

const rowOf = (event: SessionEvent, sessionNo: number, sourceNo: number, receivedMs: number): EventRow => ({
  id: packId(event.id),
  session_no: sessionNo,
  source_no: sourceNo,
  seq: event.seq,
  mono_ms: event.mono_ms,
  wall_ms: event.wall_ms,
  type: event.type,
  payload: JSON.stringify(event.payload),
  received_ms: receivedMs,
});

/** Whether two rows under one id are the same event. When it was received is no part of it. */
function sameEvent(a: EventRow, b: EventRow): boolean {
  const facts = ({ session_no, source_no, seq, mono_ms, wall_ms, type }: EventRow) => [session_no, source_no, seq, mono_ms, wall_ms, type];
  return (
    isDeepStrictEqual(facts(a), facts(b)) &&
    (a.payload === b.payload || isDeepStrictEqual(JSON.parse(a.payload) as unknown, JSON.parse(b.payload) as unknown))
  );
}

/**
 * The highest position an event of this store ever had. It never falls, whatever is removed, but it is lower in a
 * store brought back from a backup: so a device can tell that what it had confirmed may be gone.
 */
export async function eventReach({ event }: Models, transaction?: Transaction): Promise<number> {
  const sequelize = event.sequelize;
  if (sequelize === undefined) throw new Error("The model has no store.");
  const rows = await sequelize.query<{ seq: number }>("SELECT seq FROM sqlite_sequence WHERE name = 'event'", {
    type: QueryTypes.SELECT,
    transaction,
  });
  return rows[0]?.seq ?? 0;
}

/**
 * Appends events. Batches that wait while a transaction runs are merged into
 * the next one, so the cost of a commit is shared. A batch is acknowledged
 * from what the committed write resolves with and from nothing else; where a
 * merged write fails, its batches are tried one by one, so that one bad batch
 * takes no good one with it.
 */
export class EventWriter {
  private waiting: Waiting[] = [];
  private scheduled = false;
  /** How far the events reach after the last commit, and the offsets it left; null and empty where that is not known. */
  private reach: number | null = null;
  private readonly offsets = new Map<string, number>();
  /** Numbers of sources this process has seen; they are never changed. */
  private readonly sources = new Map<string, number>();
  private readonly listeners: ((sessions: ReadonlySet<string>) => void)[] = [];

  constructor(
    private readonly sequelize: Sequelize,
    private readonly models: Models,
    private readonly writer: Writer,
    private readonly now: () => number,
  ) {}

  /** Tells which sessions have new events, each time after their commit. */
  onSaved(listener: (sessions: ReadonlySet<string>) => void): void {
    this.listeners.push(listener);
  }

  /**
   * Resolves after the commit that holds the batch.
   * @throws UnknownSessionError where the batch names a session the store does not have,
   * EventConflictError where an id comes with another event; nothing of the batch is then saved.
   */
  append(batch: EventBatch): Promise<BatchReceipt> {
    return new Promise((resolve, reject) => {
      this.waiting.push({ batch, done: resolve, failed: reject });
      if (this.scheduled) return;
      this.scheduled = true;
      void this.writeWaiting();
    });
  }

  private take(): Waiting[] {
    const group = this.waiting;
    this.waiting = [];
    this.scheduled = false;
    return group;
  }

  private async writeWaiting(): Promise<void> {
    let group: readonly Waiting[] | null = null;
    try {
      const outcomes = await this.writer.write((transaction) => {
        // Taken only here: what arrives while the transaction before still runs belongs to this one.
        group = this.take();
        return this.appendAll(group, transaction);
      }, "taps");
      this.settle(group ?? [], outcomes);
    } catch (error) {
      this.forget();
      // Where BEGIN failed the work never ran, and what waits must be answered all the same.
      const began = group as readonly Waiting[] | null;
      if (began !== null && began.length > 1 && storeFailure(error) !== "held") await this.writeOneByOne(began);
      else for (const { failed } of began ?? this.take()) failed(error);
    }
  }

  private async writeOneByOne(group: readonly Waiting[]): Promise<void> {
    for (const one of group) {
      try {
        this.settle([one], await this.writer.write((transaction) => this.appendAll([one], transaction), "taps"));
      } catch (error) {
        this.forget();
        one.failed(error);
      }
    }
  }

  /** What was remembered of a write that did not come to its commit is not so. */
  private forget(): void {
    this.reach = null;
    this.offsets.clear();
    this.sources.clear();
  }

  private settle(group: readonly Waiting[], outcomes: readonly Outcome[]): void {
    const saved = new Set<string>();
    for (const [i, { batch, done, failed }] of group.entries()) {
      const outcome = outcomes[i];
      if (outcome === undefined) failed(new Error("The batch was not answered."));
      else if ("error" in outcome) failed(outcome.error);
      else {
        done(outcome.receipt);
        for (const { session } of batch.events) saved.add(session);
      }
    }
    if (saved.size > 0) for (const listener of this.listeners) listener(saved);
  }

  /** Which of these sessions exist, with their numbers. */
  private async knownSessions(ids: readonly string[], transaction: Transaction): Promise<Map<string, number>> {
    // Taps of a session in the bin are kept too: it may come back.
    const found = await this.models.session
      .unscoped()
      .findAll({ attributes: ["id", "no"], where: { id: [...new Set(ids)] }, raw: true, transaction });
    return new Map(found.map((row) => row as unknown as { id: string; no: number }).map(({ id, no }) => [id, no]));
  }

  /**
   * The numbers of the recorders and page loads these events come from. Those
   * that have none yet get one below 0 for now: it is made when something of
   * theirs is saved, since what is refused writes nothing.
   */
  private async sourcesOf(events: readonly SessionEvent[], transaction: Transaction) {
    const wanted = new Map(
      events.map((event) => [sourceKey(event), { recorder: wellFormed(event.recorder), load: event.load, part: event.part ?? "" }]),
    );
    if (this.sources.size > MOST_OFFSETS) this.sources.clear();
    await this.lookUpSources(
      [...wanted].flatMap(([key, { load }]) => (this.sources.has(key) ? [] : [load])),
      transaction,
    );
    const unnamed = new Map([...wanted].filter(([key]) => !this.sources.has(key)).map(([key, source], i) => [key, { source, no: -1 - i }]));
    const numberOf = (event: SessionEvent) => this.sources.get(sourceKey(event)) ?? unnamed.get(sourceKey(event))?.no ?? 0;
    /** Gives these rows the numbers of their sources, making those there are not yet. */
    const name = async (rows: readonly EventRow[]) => {
      const used = new Set(rows.map(({ source_no }) => source_no));
      const fresh = [...unnamed].filter(([, { no }]) => used.has(no));
      if (fresh.length === 0) return;
      await this.models.source.bulkCreate(
        fresh.map(([, { source }]) => source),
        { transaction },
      );
      await this.lookUpSources(
        fresh.map(([, { source }]) => source.load),
        transaction,
      );
      const named = new Map(fresh.map(([key, { no }]) => [no, this.sources.get(key)]));
      for (const row of rows) row.source_no = named.get(row.source_no) ?? row.source_no;
    };
    return { numberOf, name };
  }

  private async lookUpSources(loads: readonly string[], transaction: Transaction): Promise<void> {
    if (loads.length === 0) return;
    for (const row of (await this.models.source.findAll({ where: { load: [...new Set(loads)] }, transaction })).map(plain))
      if (row.no !== undefined) this.sources.set(sourceKey(row), row.no);
  }

  /** The events among these ids that the store has, by id. */
  private async storedEvents(ids: readonly string[], transaction: Transaction): Promise<Map<string, EventRow>> {
    const stored = new Map<string, EventRow>();
    for (let at = 0; at < ids.length; at += ROWS_AT_ONCE) {
      const rows = await this.models.event.findAll({
        where: { id: { [Op.in]: ids.slice(at, at + ROWS_AT_ONCE).map(packId) } },
        transaction,
      });
      for (const row of rows.map(plain)) stored.set(unpackId(row.id), row);
    }
    return stored;
  }

  private async appendAll(group: readonly Waiting[], transaction: Transaction): Promise<Outcome[]> {
    const { event } = this.models;
    const all = group.flatMap(({ batch }) => batch.events);
    const known = await this.knownSessions(
      all.map(({ session }) => session),
      transaction,
    );
    const rows = await this.storedEvents([...new Set(all.map(({ id }) => id))], transaction);
    const sources = await this.sourcesOf(all, transaction);
    const receivedMs = this.now();
    const fresh: EventRow[] = [];
    const taken: EventBatch[] = [];
    const outcomes = group.map(({ batch }): { saved: number } | { error: Error } => {
      const missing = [...new Set(batch.events.map(({ session }) => session).filter((id) => !known.has(id)))];
      if (missing.length > 0) return { error: new UnknownSessionError(missing) };
      const own = new Map<string, EventRow>();
      const conflicts: string[] = [];
      for (const one of batch.events) {
        const row = rowOf(one, known.get(one.session) ?? -1, sources.numberOf(one), receivedMs);
        const there = rows.get(one.id) ?? own.get(one.id);
        if (there === undefined) own.set(one.id, row);
        else if (!sameEvent(there, row)) conflicts.push(one.id);
      }
      if (conflicts.length > 0) return { error: new EventConflictError(conflicts) };
      for (const [id, row] of own) rows.set(id, row);
      fresh.push(...own.values());
      taken.push(batch);
      return { saved: own.size };
    });
    await sources.name(fresh);
    for (let at = 0; at < fresh.length; at += ROWS_AT_ONCE) await event.bulkCreate(fresh.slice(at, at + ROWS_AT_ONCE), { transaction });
    const moved = await this.keepClocks(taken, transaction);
    const touched = new Set([...fresh.map(({ session_no }) => session_no), ...moved]);
    await markStale({ sequelize: this.sequelize }, [...touched], transaction);
    // Positions are given in turn and by this writer alone: they need be asked for once.
    const position = this.reach === null ? await eventReach(this.models, transaction) : this.reach + fresh.length;
    this.reach = position;
    return outcomes.map((outcome, i) => {
      if ("error" in outcome) return outcome;
      const count = group[i]?.batch.events.length ?? 0;
      return { receipt: { saved: outcome.saved, known: count - outcome.saved, position } };
    });
  }

  /**
   * Keeps each page load's clock offset, the newest one measured: a server
   * clock that was wrong for a while must not bend times for good.
   * @returns the numbers of every session with an event of a load whose offset moved: they are to be summed up again.
   */
  private async keepClocks(batches: readonly EventBatch[], transaction: Transaction): Promise<number[]> {
    const { recorderClock } = this.models;
    const offsets = new Map(
      batches.flatMap(({ recorder, clocks }) => Object.entries(clocks).map(([load, offset]) => [load, { recorder, offset }] as const)),
    );
    if ([...offsets].every(([load, { offset }]) => this.offsets.get(load) === offset)) return [];
    const had = (await recorderClock.findAll({ where: { load: [...offsets.keys()] }, transaction })).map(plain);
    const before = new Map(had.map(({ load, offset_ms }) => [load, offset_ms]));
    const changed = [...offsets].filter(([load, { offset }]) => before.get(load) !== offset);
    if (this.offsets.size > MOST_OFFSETS) this.offsets.clear();
    for (const [load, { offset }] of offsets) this.offsets.set(load, offset);
    if (changed.length === 0) return [];
    await recorderClock.bulkCreate(
      changed.map(([load, { recorder, offset }]) => ({ load, recorder, offset_ms: offset })),
      { updateOnDuplicate: ["offset_ms"], transaction },
    );
    // Also of a load whose clock was not known before: its taps stood by their own clock until now.
    const rows = await this.sequelize.query<{ no: number }>(
      `SELECT DISTINCT e.session_no AS no FROM json_each($loads) j CROSS JOIN source s ON s.load = j.value
       CROSS JOIN event e ON e.source_no = s.no`,
      { bind: { loads: JSON.stringify(changed.map(([load]) => load)) }, type: QueryTypes.SELECT, transaction },
    );
    return rows.map(({ no }) => no);
  }
}
