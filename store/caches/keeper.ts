import { storeFailure } from "../failure";
import type { StoreParts } from "../store";
import { refreshCaches } from "./rebuild";
import { staleSessions } from "./stale";

/** A session is summed up again once nothing was tapped for so long: taps never wait behind a sum. */
const QUIET_MS = 2000;
/** And at the latest so long after its first tap that is not summed up. */
const LATEST_MS = 15_000;
/** After a failure (a full disk) the sums wait; the pages work without them. */
const AFTER_FAILURE_MS = 60_000;
/** Sessions summed up in one write. Taps that wait get in between two of them. */
const AT_ONCE = 5;
/** Sessions looked for at a time. */
const MOST_AT_A_TIME = 200;

/** Keeps the caches up with the events, in the one writer, after the taps and never for a page. */
export class CacheKeeper {
  private timer: ReturnType<typeof setTimeout> | null = null;
  private running: Promise<void> | null = null;
  private stopped = false;
  private behindSinceMs: number | null = null;
  private failed = false;

  constructor(
    private readonly store: StoreParts,
    private readonly quietMs = QUIET_MS,
    private readonly latestMs = LATEST_MS,
  ) {}

  /** Says that sessions have new events. */
  lag(): void {
    const now = this.store.now();
    this.behindSinceMs ??= now;
    this.wait(Math.max(0, Math.min(this.quietMs, this.behindSinceMs + this.latestMs - now)));
  }

  /** Sums up whatever is stale, as after a kill or a migration. */
  catchUp(): void {
    this.wait(0);
  }

  /** Resolves when what was running has ended; nothing begins after. What is stale is found again at the next start. */
  async stop(): Promise<void> {
    this.stopped = true;
    if (this.timer !== null) clearTimeout(this.timer);
    await this.running;
  }

  private wait(ms: number): void {
    if (this.stopped || this.running !== null || this.failed) return;
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = setTimeout(() => {
      this.timer = null;
      this.behindSinceMs = null;
      this.running = this.sumUp().then((again) => {
        this.running = null;
        if (again !== null) this.wait(again);
      });
    }, ms);
    this.timer.unref();
  }

  /** @returns how long to wait before what is stale then, null where nothing is. */
  private async sumUp(): Promise<number | null> {
    try {
      // Those that are stale now, and no others: in a yard that is tapped without a pause there would be no end.
      const stale = await staleSessions(this.store, null, MOST_AT_A_TIME);
      for (let at = 0; at < stale.length; at += AT_ONCE) {
        if (this.stopped) return null;
        await refreshCaches(this.store, stale.slice(at, at + AT_ONCE));
      }
      if (stale.length === MOST_AT_A_TIME) return 0;
      if (this.behindSinceMs === null) return null;
      return Math.max(this.quietMs, Math.min(this.latestMs, this.behindSinceMs + this.latestMs - this.store.now()));
    } catch (error) {
      const failure = storeFailure(error);
      const words = "The sums of a session could not be kept; they are worked out each time until they can.";
      // What is known of a disk needs no trace.
      if (failure === null) console.error(words, error);
      else console.error(`${words} The disk: ${failure}.`);
      this.failed = true;
      const retry = setTimeout(() => {
        this.failed = false;
        this.wait(0);
      }, AFTER_FAILURE_MS);
      retry.unref();
      return null;
    }
  }
}
