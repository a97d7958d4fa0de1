import { isDeepStrictEqual } from "node:util";
import { Op, QueryTypes, type Transaction } from "sequelize";
import type { SessionEvent } from "@/core/schemas";
import { storeFailure } from "./failure";
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
  override readonly name = "UnknownSessionError";
  constructor(readonly sessions: readonly string[]) {
    super("The store has no such session.");
  }
}

/** Thrown where an event comes again under its id but says something else: neither may silently win. */
export class EventConflictError extends Error {
  override readonly name = "EventConflictError";
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

const rowOf = (event: SessionEvent, receivedMs: number): EventRow => ({
  id: event.id,
  session_id: event.session,
  recorder: wellFormed(event.recorder),
  load: event.load,
  seq: event.seq,
  mono_ms: event.mono_ms,
  wall_ms: event.wall_ms,
  type: event.type,
  payload: JSON.stringify(event.payload),
  received_ms: receivedMs,
});

/** Whether two rows under one id are the same event. When it was received is no part of it. */
function sameEvent(a: EventRow, b: EventRow): boolean {
  const facts = ({ session_id, recorder, load, seq, mono_ms, wall_ms, type }: EventRow) => [
    session_id,
    recorder,
    load,
    seq,
    mono_ms,
    wall_ms,
    type,
  ];
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
  private readonly listeners: ((sessions: readonly string[]) => void)[] = [];

  constructor(
    private readonly models: Models,
    private readonly writer: Writer,
    private readonly now: () => number,
  ) {}

  /** Tells which sessions have new events, each time after their commit. */
  onSaved(listener: (sessions: readonly string[]) => void): void {
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
      });
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
        this.settle([one], await this.writer.write((transaction) => this.appendAll([one], transaction)));
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
  }

  private settle(group: readonly Waiting[], outcomes: readonly Outcome[]): void {
    const touched = new Set<string>();
    for (const [i, { batch, done, failed }] of group.entries()) {
      const outcome = outcomes[i];
      if (outcome === undefined) failed(new Error("The batch was not answered."));
      else if ("error" in outcome) failed(outcome.error);
      else {
        done(outcome.receipt);
        for (const { session } of batch.events) touched.add(session);
      }
    }
    if (touched.size > 0) for (const listener of this.listeners) listener([...touched]);
  }

  /** Which of these sessions exist. */
  private async knownSessions(ids: readonly string[], transaction: Transaction): Promise<Set<string>> {
    // Taps of a session in the bin are kept too: it may come back.
    const found = await this.models.session
      .unscoped()
      .findAll({ attributes: ["id"], where: { id: [...new Set(ids)] }, raw: true, transaction });
    return new Set(found.map((row) => (row as unknown as { id: string }).id));
  }

  /** The events among these ids that the store has, by id. */
  private async storedEvents(ids: readonly string[], transaction: Transaction): Promise<Map<string, EventRow>> {
    const stored = new Map<string, EventRow>();
    for (let at = 0; at < ids.length; at += ROWS_AT_ONCE) {
      const rows = await this.models.event.findAll({ where: { id: { [Op.in]: ids.slice(at, at + ROWS_AT_ONCE) } }, transaction });
      for (const row of rows.map(plain)) stored.set(row.id, row);
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
    const receivedMs = this.now();
    const fresh: EventRow[] = [];
    const taken: EventBatch[] = [];
    const outcomes = group.map(({ batch }): { saved: number } | { error: Error } => {
      const missing = [...new Set(batch.events.map(({ session }) => session).filter((id) => !known.has(id)))];
      if (missing.length > 0) return { error: new UnknownSessionError(missing) };
      const own = new Map<string, EventRow>();
      const conflicts: string[] = [];
      for (const one of batch.events) {
        const row = rowOf(one, receivedMs);
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
    for (let at = 0; at < fresh.length; at += ROWS_AT_ONCE) await event.bulkCreate(fresh.slice(at, at + ROWS_AT_ONCE), { transaction });
    await this.keepClocks(taken, transaction);
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
   * clock that was wrong for a while must not bend times for good. Sessions
   * whose offset moved are summed up again.
   */
  private async keepClocks(batches: readonly EventBatch[], transaction: Transaction): Promise<void> {
    const { recorderClock, sessionSummary } = this.models;
    const offsets = new Map(
      batches.flatMap(({ recorder, clocks }) => Object.entries(clocks).map(([load, offset]) => [load, { recorder, offset }] as const)),
    );
    if ([...offsets].every(([load, { offset }]) => this.offsets.get(load) === offset)) return;
    const had = (await recorderClock.findAll({ where: { load: [...offsets.keys()] }, transaction })).map(plain);
    const before = new Map(had.map(({ load, offset_ms }) => [load, offset_ms]));
    const changed = [...offsets].filter(([load, { offset }]) => before.get(load) !== offset);
    if (this.offsets.size > MOST_OFFSETS) this.offsets.clear();
    for (const [load, { offset }] of offsets) this.offsets.set(load, offset);
    if (changed.length === 0) return;
    await recorderClock.bulkCreate(
      changed.map(([load, { recorder, offset }]) => ({ load, recorder, offset_ms: offset })),
      { updateOnDuplicate: ["offset_ms"], transaction },
    );
    const moved = new Set(changed.filter(([load]) => before.has(load)).map(([load]) => load));
    if (moved.size === 0) return;
    const sessions = batches.flatMap(({ events }) => events.filter(({ load }) => moved.has(load)).map(({ session }) => session));
    await sessionSummary.update({ last_position: -1 }, { where: { session_id: [...new Set(sessions)] }, transaction });
  }
}
