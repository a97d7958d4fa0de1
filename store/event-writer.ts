import { Op, type Transaction } from "sequelize";
import type { SessionEvent } from "@/core/schemas";
import type { EventRow, Models } from "./models";
import type { Writer } from "./writer";

/** A batch as a recorder posts it: events already checked, and the device's clock offsets by page load. */
export interface EventBatch {
  readonly recorder: string;
  readonly events: readonly SessionEvent[];
  readonly clocks: Readonly<Record<string, number>>;
}

/** What was saved. `known` counts events the store already had. */
export interface BatchReceipt {
  readonly saved: number;
  readonly known: number;
}

/** Thrown where a batch names a session the store does not have. */
export class UnknownSessionError extends Error {
  override readonly name = "UnknownSessionError";
  constructor(readonly sessions: readonly string[]) {
    super("The store has no such session.");
  }
}

interface Waiting {
  readonly batch: EventBatch;
  readonly done: (receipt: BatchReceipt) => void;
  readonly failed: (error: unknown) => void;
}

/** SQLite takes at most 32 766 values in a statement; an event needs ten. */
const ROWS_AT_ONCE = 2000;

const rowOf = (event: SessionEvent, receivedMs: number): EventRow => ({
  id: event.id,
  session_id: event.session,
  recorder: event.recorder,
  load: event.load,
  seq: event.seq,
  mono_ms: event.mono_ms,
  wall_ms: event.wall_ms,
  type: event.type,
  payload: JSON.stringify(event.payload),
  received_ms: receivedMs,
});

/**
 * Appends events. Batches that wait while a transaction runs are merged into
 * the next one, so the cost of a commit is shared; each is acknowledged only
 * after that commit.
 */
export class EventWriter {
  private waiting: Waiting[] = [];
  private scheduled = false;

  constructor(
    private readonly models: Models,
    private readonly writer: Writer,
    private readonly now: () => number,
  ) {}

  /** @throws UnknownSessionError where the batch names a session the store does not have; nothing of it is then saved. */
  append(batch: EventBatch): Promise<BatchReceipt> {
    return new Promise((resolve, reject) => {
      this.waiting.push({ batch, done: resolve, failed: reject });
      if (this.scheduled) return;
      this.scheduled = true;
      let settle = () => {};
      this.writer
        .write(async (transaction) => {
          const group = this.waiting;
          this.waiting = [];
          this.scheduled = false;
          try {
            const receipts = await this.appendAll(group, transaction);
            settle = () => {
              for (const [i, w] of group.entries()) this.settle(w, receipts[i]);
            };
          } catch (error) {
            settle = () => {
              for (const w of group) w.failed(error);
            };
            throw error;
          }
        })
        .then(
          () => settle(),
          () => settle(),
        );
    });
  }

  /** Which of these sessions exist. */
  private async knownSessions(ids: readonly string[], transaction: Transaction): Promise<Set<string>> {
    const found = await this.models.session.findAll({ attributes: ["id"], where: { id: [...new Set(ids)] }, raw: true, transaction });
    return new Set(found.map((row) => (row as unknown as { id: string }).id));
  }

  private settle(waiting: Waiting, receipt: BatchReceipt | UnknownSessionError | undefined): void {
    if (receipt === undefined || receipt instanceof UnknownSessionError) waiting.failed(receipt);
    else waiting.done(receipt);
  }

  private async appendAll(group: readonly Waiting[], transaction: Transaction): Promise<(BatchReceipt | UnknownSessionError)[]> {
    const { event, recorderClock } = this.models;
    const known = await this.knownSessions(
      group.flatMap((w) => w.batch.events.map((e) => e.session)),
      transaction,
    );
    const receivedMs = this.now();
    const fresh = new Map<string, EventRow>();
    const receipts: (BatchReceipt | UnknownSessionError)[] = [];
    const good = group.filter((w, i) => {
      const missing = [...new Set(w.batch.events.map((e) => e.session).filter((id) => !known.has(id)))];
      if (missing.length > 0) receipts[i] = new UnknownSessionError(missing);
      return missing.length === 0;
    });
    const ids = [...new Set(good.flatMap((w) => w.batch.events.map((e) => e.id)))];
    const had = new Set<string>();
    for (let at = 0; at < ids.length; at += ROWS_AT_ONCE) {
      const rows = await event.findAll({
        attributes: ["id"],
        where: { id: { [Op.in]: ids.slice(at, at + ROWS_AT_ONCE) } },
        raw: true,
        transaction,
      });
      for (const row of rows) had.add((row as unknown as { id: string }).id);
    }
    group.forEach((w, i) => {
      if (receipts[i] !== undefined) return;
      let saved = 0;
      for (const e of w.batch.events) {
        if (had.has(e.id) || fresh.has(e.id)) continue;
        fresh.set(e.id, rowOf(e, receivedMs));
        saved++;
      }
      receipts[i] = { saved, known: w.batch.events.length - saved };
    });
    const rows = [...fresh.values()];
    for (let at = 0; at < rows.length; at += ROWS_AT_ONCE) await event.bulkCreate(rows.slice(at, at + ROWS_AT_ONCE), { transaction });
    const clocks = good.flatMap((w) =>
      Object.entries(w.batch.clocks).map(([load, offset_ms]) => ({ load, recorder: w.batch.recorder, offset_ms })),
    );
    if (clocks.length > 0) await recorderClock.bulkCreate(clocks, { ignoreDuplicates: true, transaction });
    return receipts;
  }
}
