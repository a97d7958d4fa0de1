import type { SessionEvent } from "@/core/schemas";

const prefixOf = (storeId: string) => `deft-tap-${storeId}-`;

/**
 * Taps between the press and the moment the device's database has them. A
 * transaction of that database is dropped when its page goes in the middle of
 * it; the browser's small store takes a line before the press returns. Where
 * it takes nothing the tap goes the way of the database alone.
 */
export class AtOnce {
  private readonly prefix: string;

  constructor(storeId: string) {
    this.prefix = prefixOf(storeId);
  }

  put(events: readonly SessionEvent[]): void {
    try {
      for (const event of events) localStorage.setItem(this.prefix + event.id, JSON.stringify(event));
    } catch {
      // Full or not allowed.
    }
  }

  drop(ids: readonly string[]): void {
    try {
      for (const id of ids) localStorage.removeItem(this.prefix + id);
    } catch {
      // As above: what stays is offered again, and known by its id.
    }
  }

  /** What a page left behind, oldest first; a line that is no tap is thrown away. */
  left(): SessionEvent[] {
    const found: SessionEvent[] = [];
    try {
      const keys = Array.from({ length: localStorage.length }, (_, index) => localStorage.key(index) ?? "");
      for (const key of keys.filter((key) => key.startsWith(this.prefix))) {
        const event = this.read(key);
        if (event === null) localStorage.removeItem(key);
        else found.push(event);
      }
    } catch {
      return found;
    }
    return found.sort((a, b) => a.wall_ms - b.wall_ms || a.seq - b.seq);
  }

  private read(key: string): SessionEvent | null {
    try {
      const event = JSON.parse(localStorage.getItem(key) ?? "null") as SessionEvent | null;
      return event !== null && event.id === key.slice(this.prefix.length) && typeof event.session === "string" ? event : null;
    } catch {
      return null;
    }
  }
}
