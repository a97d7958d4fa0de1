import type { EventQueue } from "./queue";

/** A device that has not taken a tap after this time is not waited for: the tap is sent from memory. */
const KEEP_PATIENCE_MS = 3000;

/** Gives a promise so long; its own outcome later counts for nothing. */
const inTime = <T>(promise: Promise<T>, ms: number): Promise<T> =>
  new Promise((resolve, reject) => {
    const timer = setTimeout(() => reject(new Error("late")), ms);
    promise.then(resolve, reject).finally(() => clearTimeout(timer));
  });

/** The device's store, used for so long and no longer each time, and opened anew after it failed: it may have been full, closed or taken away. */
export class ReopeningQueue {
  private queue: EventQueue | null = null;
  private opening: Promise<EventQueue> | null = null;

  constructor(
    private readonly open: (onLost: () => void) => Promise<EventQueue>,
    private readonly patienceMs = KEEP_PATIENCE_MS,
  ) {
    void this.opened().catch(() => undefined);
  }

  private opened(): Promise<EventQueue> {
    if (this.queue !== null) return Promise.resolve(this.queue);
    this.opening ??= this.open(() => {
      this.queue = null;
    })
      .then((queue) => {
        this.queue = queue;
        return queue;
      })
      .finally(() => {
        this.opening = null;
      });
    return inTime(this.opening, this.patienceMs);
  }

  /** @throws where the store does not open, fails, or has not answered in time. */
  async use<T>(work: (queue: EventQueue) => Promise<T>, patienceMs = this.patienceMs): Promise<T> {
    try {
      return await inTime(work(await this.opened()), patienceMs);
    } catch (error) {
      this.queue?.close();
      this.queue = null;
      throw error;
    }
  }
}
