import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { SessionEvent } from "@/core/schemas";

/** Where an event stands: waiting to be sent, on the server, or refused by it (kept, and said so). */
export type Standing = "waiting" | "saved" | "refused";

interface Kept {
  readonly id: string;
  readonly session: string;
  readonly order: number;
  readonly standing: Standing;
  readonly savedAt: number | null;
  readonly event: SessionEvent;
}

interface Shape extends DBSchema {
  events: { key: string; value: Kept; indexes: { standing: Standing; session: string } };
  loads: { key: string; value: { load: string; offsetMs: number } };
}

/** What the sender and the recorder need of a queue. */
export interface EventQueue {
  /** Whether what is kept outlives the page. */
  readonly durable: boolean;
  keep(events: readonly SessionEvent[]): Promise<void>;
  waiting(most: number): Promise<SessionEvent[]>;
  countWaiting(): Promise<number>;
  countRefused(): Promise<number>;
  settle(ids: readonly string[], standing: "saved" | "refused"): Promise<void>;
  ofSession(session: string): Promise<SessionEvent[]>;
  offset(load: string): Promise<number | null>;
  keepOffset(load: string, offsetMs: number): Promise<void>;
  prune(): Promise<void>;
}

const KEEP_SAVED_MS = 30 * 86_400_000;

/**
 * The taps kept on this device until the server has confirmed them, and for
 * thirty days after. One database for each store: taps never reach another.
 */
export class DeviceQueue implements EventQueue {
  readonly durable = true;
  private order = 0;

  private constructor(private readonly database: IDBPDatabase<Shape>) {}

  static async open(storeId: string): Promise<DeviceQueue> {
    const database = await openDB<Shape>(`deft-${storeId}`, 1, {
      upgrade(db) {
        const events = db.createObjectStore("events", { keyPath: "id" });
        events.createIndex("standing", "standing");
        events.createIndex("session", "session");
        db.createObjectStore("loads", { keyPath: "load" });
      },
    });
    return new DeviceQueue(database);
  }

  /** Keeps events; resolves only when they are on the disk of the device. */
  async keep(events: readonly SessionEvent[]): Promise<void> {
    const transaction = this.database.transaction("events", "readwrite", { durability: "strict" });
    for (const event of events) {
      void transaction.store.put({
        id: event.id,
        session: event.session,
        order: Date.now() * 1000 + this.order++,
        standing: "waiting",
        savedAt: null,
        event,
      });
    }
    await transaction.done;
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

  async countWaiting(): Promise<number> {
    return this.database.countFromIndex("events", "standing", "waiting");
  }

  async countRefused(): Promise<number> {
    return this.database.countFromIndex("events", "standing", "refused");
  }

  async settle(ids: readonly string[], standing: "saved" | "refused"): Promise<void> {
    const transaction = this.database.transaction("events", "readwrite", { durability: "strict" });
    for (const id of ids) {
      const kept = await transaction.store.get(id);
      if (kept !== undefined) void transaction.store.put({ ...kept, standing, savedAt: Date.now() });
    }
    await transaction.done;
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
}
