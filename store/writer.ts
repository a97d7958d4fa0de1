import type { Sequelize, Transaction } from "sequelize";

interface Job<T> {
  readonly work: (transaction: Transaction) => Promise<T>;
  readonly done: (value: T) => void;
  readonly failed: (error: unknown) => void;
}

/**
 * The one writer of a store. Concurrent transactions on one SQLite file
 * mostly end in "busy", so every write of the process goes through this
 * queue, one transaction after another.
 */
export class Writer {
  private readonly queue: Job<unknown>[] = [];
  private running: Promise<void> | null = null;

  constructor(private readonly sequelize: Sequelize) {}

  /** Runs work in a transaction of its own, after what was asked before it. Resolves after the commit. */
  write<T>(work: (transaction: Transaction) => Promise<T>): Promise<T> {
    return new Promise<T>((resolve, reject) => {
      this.queue.push({ work, done: resolve as (value: unknown) => void, failed: reject });
      this.running ??= this.drain();
    });
  }

  /** Resolves when nothing is waiting. */
  async idle(): Promise<void> {
    while (this.running !== null) await this.running;
  }

  private async drain(): Promise<void> {
    // Let what is asked in the same turn of the loop join the queue first.
    await Promise.resolve();
    for (let job = this.queue.shift(); job !== undefined; job = this.queue.shift()) {
      const { work, done, failed } = job;
      try {
        done(await this.sequelize.transaction(work));
      } catch (error) {
        failed(error);
      }
    }
    this.running = null;
  }
}
