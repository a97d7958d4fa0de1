import type { Transaction } from "sequelize";
import type { Connected } from "./connect";
import { storeFailure } from "./failure";

/** What a write is of: facts of the yard, taps, or sums that follow from them. */
export type Written = "facts" | "taps" | "sums";

interface Job<T> {
  readonly of: Written;
  readonly work: (transaction: Transaction) => Promise<T>;
  readonly done: (value: T) => void;
  readonly failed: (error: unknown) => void;
}

/**
 * The one writer of a store. Concurrent transactions on one SQLite file
 * mostly end in "busy", so every write of the process goes through this
 * queue, one transaction after another. What fails, at BEGIN, inside or at
 * COMMIT, is told to the one who asked; its connection is closed and the next
 * write begins on a new one.
 */
export class Writer {
  private readonly queue: Job<unknown>[] = [];
  private running: Promise<void> | null = null;
  private readonly listeners: (() => void)[] = [];

  constructor(private readonly connected: Connected) {}

  /** Runs work in a transaction of its own, after what was asked before it. Resolves after the commit, and only then. */
  write<T>(work: (transaction: Transaction) => Promise<T>, of: Written = "facts"): Promise<T> {
    return new Promise<T>((resolve, reject) => {
      this.queue.push({ of, work, done: resolve as (value: unknown) => void, failed: reject });
      this.running ??= this.drain();
    });
  }

  /** Tells each time facts of the yard were written, after the commit; taps and sums are told of elsewhere. */
  onFacts(listener: () => void): void {
    this.listeners.push(listener);
  }

  /** Resolves when nothing is waiting. */
  async idle(): Promise<void> {
    while (this.running !== null) await this.running;
  }

  private async drain(): Promise<void> {
    // Let what is asked in the same turn of the loop join the queue first.
    await Promise.resolve();
    for (let job = this.queue.shift(); job !== undefined; job = this.queue.shift()) {
      const { of, work, done, failed } = job;
      let began = false;
      try {
        const value = await this.connected.sequelize.transaction((transaction) => {
          began = true;
          return work(transaction);
        });
        done(value);
        if (of === "facts") for (const listener of this.listeners) listener();
      } catch (error) {
        await this.connected.startAfresh();
        failed(error);
        // Who waited behind a lock that would not come waits no second time for it.
        if (!began && storeFailure(error) === "held") for (const waiting of this.queue.splice(0)) waiting.failed(error);
      }
    }
    this.running = null;
  }
}
