import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { SessionEvent } from "@/core/schemas";

/** Where an event stands: waiting to be sent, on the server, or refused by it (kept, and said so). */
export type Standing = "waiting" | "saved" | "refused";

/** A tap the server would not take, with its reason. */
export interface RefusedTap {
  readonly event: SessionEvent;
  readonly reason: string;
}

interface Kept {
  readonly id: string;
  readonly session: string;
  readonly order: number;
  readonly standing: Standing;
  readonly savedAt: number | null;
  /** Why the server refused it. */
  readonly reason?: string;
  readonly event: SessionEvent;
}

interface Shape extends DBSchema {
  events: { key: string; value: Kept; indexes: { standing: Standing; session: string } };
  loads: { key: string; value: { load: string; offsetMs: number } };
}

/** What the sender and the recorder need of a queue. */
export interface EventQueue {
  keep(events: readonly SessionEvent[], standing?: Standing, reason?: string): Promise<void>;
  waiting(most: number): Promise<SessionEvent[]>;
  idsOf(standing: "waiting" | "refused"): Promise<string[]>;
  refused(): Promise<RefusedTap[]>;
  settle(ids: readonly string[], standing: Standing, reason?: string): Promise<void>;
  /** Lets everything the server once confirmed be sent again. @returns how many taps. */
  offerAgain(): Promise<number>;
  ofSession(session: string): Promise<SessionEvent[]>;
  offset(load: string): Promise<number | null>;
  keepOffset(load: string, offsetMs: number): Promise<void>;
  prune(): Promise<void>;
  close(): void;
}

const KEEP_SAVED_MS = 30 * 86_400_000;

/**
 * The taps kept on this device until the server has confirmed them, and for
 * thirty days after. One database for each store: taps never reach another.
 */
export class DeviceQueue implements EventQueue {
  private order = 0;

  private constructor(private readonly database: IDBPDatabase<Shape>) {}

  /** @param onLost called where the browser closes the database under us. */
  static async open(storeId: string, onLost: () => void = () => undefined): Promise<DeviceQueue> {
    const database = await openDB<Shape>(`deft-${storeId}`, 1, {
      upgrade(db) {
        const events = db.createObjectStore("events", { keyPath: "id" });
        events.createIndex("standing", "standing");
        events.createIndex("session", "session");
        db.createObjectStore("loads", { keyPath: "load" });
      },
      terminated: onLost,
    });
    return new DeviceQueue(database);
  }

  /** Keeps events; resolves only when they are on the disk of the device. */
  async keep(events: readonly SessionEvent[], standing: Standing = "waiting", reason?: string): Promise<void> {
    const transaction = this.database.transaction("events", "readwrite", { durability: "strict" });
    const puts = events.map((event) =>
      transaction.store.put({
        id: event.id,
        session: event.session,
        order: Date.now() * 1000 + this.order++,
        standing,
        savedAt: standing === "waiting" ? null : Date.now(),
        ...(reason === undefined ? {} : { reason }),
        event,
      }),
    );
    await Promise.all([...puts, transaction.done]);
  }

  /** Waiting events, oldest first, a batch of one recorder. */
  async waiting(most: number): Promise<SessionEvent[]> {
    const all = (await this.database.getAllFromIndex("events", "standing", "waiting")).sort((a, b) => a.order - b.order);
    const recorder = all[0]?.event.recorder;
    return all
      .filter((kept) => kept.event.recorder === recorder)
      .slice(0, most)
      .map((kept) => kept.event);
  }

  idsOf(standing: "waiting" | "refused"): Promise<string[]> {
    return this.database.getAllKeysFromIndex("events", "standing", standing);
  }

  async refused(): Promise<RefusedTap[]> {
    const all = await this.database.getAllFromIndex("events", "standing", "refused");
    return all.sort((a, b) => a.order - b.order).map(({ event, reason }) => ({ event, reason: reason ?? "" }));
  }

  private async restand(ids: readonly string[], change: (kept: Kept) => Kept | null): Promise<number> {
    const transaction = this.database.transaction("events", "readwrite", { durability: "strict" });
    let changed = 0;
    for (const id of ids) {
      const kept = await transaction.store.get(id);
      const next = kept === undefined ? null : change(kept);
      if (next === null) continue;
      void transaction.store.put(next);
      changed++;
    }
    await transaction.done;
    return changed;
  }

  async settle(ids: readonly string[], standing: Standing, reason?: string): Promise<void> {
    await this.restand(ids, ({ reason: _old, ...kept }) => ({
      ...kept,
      standing,
      savedAt: standing === "waiting" ? null : Date.now(),
      ...(reason === undefined ? {} : { reason }),
    }));
  }

  async offerAgain(): Promise<number> {
    const ids = await this.database.getAllKeysFromIndex("events", "standing", "saved");
    return this.restand(ids, (kept) => (kept.standing === "saved" ? { ...kept, standing: "waiting", savedAt: null } : null));
  }

  async ofSession(session: string): Promise<SessionEvent[]> {
    return (await this.database.getAllFromIndex("events", "session", session)).map((kept) => kept.event);
  }

  async offset(load: string): Promise<number | null> {
    return (await this.database.get("loads", load))?.offsetMs ?? null;
  }

  async keepOffset(load: string, offsetMs: number): Promise<void> {
    await this.database.put("loads", { load, offsetMs });
  }

  /** Forgets events the server confirmed more than thirty days ago. */
  async prune(): Promise<void> {
    const old = (await this.database.getAllFromIndex("events", "standing", "saved")).filter(
      (kept) => kept.savedAt !== null && kept.savedAt < Date.now() - KEEP_SAVED_MS,
    );
    const transaction = this.database.transaction("events", "readwrite");
    for (const kept of old) void transaction.store.delete(kept.id);
    await transaction.done;
  }

  close(): void {
    this.database.close();
  }
}
