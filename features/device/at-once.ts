import type { SessionEvent } from "@/core/schemas";

/** Where the small store is full or not allowed, nothing is held in it. */
function quietly(work: () => void): void {
  try {
    work();
  } catch {
    // The tap goes the way of the database alone.
  }
}

/**
 * Taps between the press and the moment the device's database has them. A
 * transaction of that database is dropped when its page goes in the middle of
 * it; the browser's small store takes a line before the press returns.
 */
export class AtOnce {
  private readonly prefix: string;

  constructor(storeId: string) {
    this.prefix = `deft-tap-${storeId}-`;
  }

  put(events: readonly SessionEvent[]): void {
    quietly(() => {
      for (const event of events) localStorage.setItem(this.prefix + event.id, JSON.stringify(event));
    });
  }

  drop(ids: readonly string[]): void {
    quietly(() => {
      for (const id of ids) localStorage.removeItem(this.prefix + id);
    });
  }

  /** What a page left behind, oldest first; a line that is no tap is thrown away. */
  left(): SessionEvent[] {
    const found: SessionEvent[] = [];
    quietly(() => {
      for (const key of Array.from({ length: localStorage.length }, (_, index) => localStorage.key(index) ?? "").filter((one) =>
        one.startsWith(this.prefix),
      ))
        try {
          const event = JSON.parse(localStorage.getItem(key) ?? "") as SessionEvent;
          if (event.id !== key.slice(this.prefix.length)) throw new Error(key);
          found.push(event);
        } catch {
          localStorage.removeItem(key);
        }
    });
    return found.sort((a, b) => a.wall_ms - b.wall_ms || a.seq - b.seq);
  }
}
