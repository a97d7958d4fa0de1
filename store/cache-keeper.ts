import { laggingSessions, refreshCaches } from "./caches";
import type { StoreParts } from "./store";

/** A session is summed up again once nothing was tapped in it for so long: taps never wait behind a sum. */
const QUIET_MS = 10_000;
/** After a failure (a full disk) the sums wait; the pages work without them. */
const AFTER_FAILURE_MS = 60_000;

/** Keeps the cached sums up with the events, in the one writer, after the taps and never for a page. */
export class CacheKeeper {
  private readonly lagging = new Set<string>();
  private timer: ReturnType<typeof setTimeout> | null = null;
  private running: Promise<void> | null = null;
  private stopped = false;

  constructor(
    private readonly store: StoreParts,
    private readonly quietMs = QUIET_MS,
  ) {}

  /** Says that these sessions have new events. */
  lag(sessions: readonly string[]): void {
    for (const session of sessions) this.lagging.add(session);
    this.wait(this.quietMs);
  }

  /** Sums up whatever lags behind, as after a kill or a migration. */
  async catchUp(): Promise<void> {
    for (const session of await laggingSessions(this.store)) this.lagging.add(session);
    this.wait(0);
  }

  /** Resolves when what was running has ended; nothing begins after. What lags is found again at the next start. */
  async stop(): Promise<void> {
    this.stopped = true;
    if (this.timer !== null) clearTimeout(this.timer);
    await this.running;
  }

  private wait(ms: number): void {
    if (this.stopped || this.running !== null || this.lagging.size === 0) return;
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = setTimeout(() => {
      this.timer = null;
      this.running = this.sumUp().then((wait) => {
        this.running = null;
        this.wait(wait);
      });
    }, ms);
    this.timer.unref();
  }

  /** @returns how long to wait before what lags meanwhile. */
  private async sumUp(): Promise<number> {
    for (const session of [...this.lagging]) {
      if (this.stopped) break;
      this.lagging.delete(session);
      try {
        await refreshCaches(this.store, [session]);
      } catch (error) {
        this.lagging.add(session);
        console.error("The sums of a session could not be kept; they are worked out each time until they can.", error);
        return AFTER_FAILURE_MS;
      }
    }
    return this.quietMs;
  }
}
