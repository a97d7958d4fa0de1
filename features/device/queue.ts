import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { BegunSession } from "@/core/pack";
import type { SessionEvent } from "@/core/schemas";

/** Where an event stands: waiting to be sent, on the server, or refused by it (kept, and said so). */
export type Standing = "waiting" | "saved" | "refused";

/** Why the server would not take something: in words for whoever reads it, and by its code for the program. */
export interface Refusal {
  readonly reason: string;
  /** Null where the server gave none. */
  readonly code: string | null;
}

/** A tap the server would not take. */
export interface RefusedTap extends Refusal {
  readonly event: SessionEvent;
}

/** What programs up to 0.14.0 kept of a refusal was its sentence alone: these two are the ones they acted on. */
const CODE_OF_OLD: ReadonlyMap<string, string> = new Map([
  ["The server's clock says otherwise.", "clock"],
  ["The server does not have this session.", "unknown-session"],
]);

interface KeptTap {
  readonly id: string;
  readonly session: string;
  readonly order: number;
  readonly standing: Standing;
  readonly savedAt: number | null;
  /** Why the server refused it; the code left out where there is none. */
  readonly reason?: string;
  readonly code?: string;
  readonly event: SessionEvent;
}

/** A refusal as it lies on the device. */
const laid = (refusal: Refusal | undefined) =>
  refusal === undefined ? {} : { reason: refusal.reason, ...(refusal.code === null ? {} : { code: refusal.code }) };

/** A session this device has begun or opened, so that it can be given to a store that does not have it. */
export interface KeptSession {
  readonly id: string;
  readonly begun: BegunSession;
  /** When it was made, on this device's clock. */
  readonly madeMs: number;
  /** Where it was written down later: when it began. */
  readonly startedMs: number | null;
  readonly standing: Standing;
  readonly savedAt: number | null;
  readonly reason?: string;
}

interface Shape extends DBSchema {
  sessions: { key: string; value: KeptSession };
  events: { key: string; value: KeptTap; indexes: { standing: Standing; session: string } };
  loads: { key: string; value: { load: string; offsetMs: number; atMs?: number } };
}

/** What the sender and the recorder need of a queue. */
export interface EventQueue {
  keep(events: readonly SessionEvent[], standing?: Standing, refusal?: Refusal): Promise<void>;
  waiting(most: number): Promise<SessionEvent[]>;
  idsOf(standing: "waiting" | "refused"): Promise<string[]>;
  refused(): Promise<RefusedTap[]>;
  settle(ids: readonly string[], standing: Standing, refusal?: Refusal): Promise<void>;
  /** Every event the server does not have: those that wait and those it refused. */
  notSaved(): Promise<SessionEvent[]>;
  /** Keeps events that are not here yet; those that are stay as they stand. */
  keepNew(events: readonly SessionEvent[]): Promise<void>;
  /** Lets everything the server once confirmed be sent again. @returns how many taps. */
  offerAgain(): Promise<number>;
  ofSession(session: string): Promise<SessionEvent[]>;
  /** Keeps a session; one that is kept already stays as it is. */
  keepSession(session: KeptSession): Promise<void>;
  sessions(): Promise<KeptSession[]>;
  settleSession(id: string, standing: Standing, reason?: string): Promise<void>;
  /** When the newest event of each session was confirmed; null where some of it still waits. */
  savedThrough(): Promise<Map<string, number | null>>;
  offset(load: string): Promise<number | null>;
  /** The offset measured last, whatever the page load; null where none was. */
  lastOffset(): Promise<number | null>;
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
    const database: IDBPDatabase<Shape> = await openDB<Shape>(`deft-${storeId}`, 2, {
      upgrade(db, before) {
        if (before < 2) db.createObjectStore("sessions", { keyPath: "id" });
        if (before >= 1) return;
        const events = db.createObjectStore("events", { keyPath: "id" });
        events.createIndex("standing", "standing");
        events.createIndex("session", "session");
        db.createObjectStore("loads", { keyPath: "load" });
      },
      // Another tab has a newer version of the program: it goes first, this one opens again.
      blocking: () => {
        database.close();
        onLost();
      },
      terminated: onLost,
    });
    return new DeviceQueue(database);
  }

  /** Keeps events; resolves only when they are on the disk of the device. */
  async keep(events: readonly SessionEvent[], standing: Standing = "waiting", refusal?: Refusal): Promise<void> {
    const transaction = this.database.transaction("events", "readwrite", { durability: "strict" });
    const puts = events.map((event) =>
      transaction.store.put({
        id: event.id,
        session: event.session,
        order: Date.now() * 1000 + this.order++,
        standing,
        savedAt: standing === "waiting" ? null : Date.now(),
        ...laid(refusal),
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
    return all
      .sort((a, b) => a.order - b.order)
      .map(({ event, reason = "", code }) => ({ event, reason, code: code ?? CODE_OF_OLD.get(reason) ?? null }));
  }

  private async restand(ids: readonly string[], change: (kept: KeptTap) => KeptTap | null): Promise<number> {
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

  async settle(ids: readonly string[], standing: Standing, refusal?: Refusal): Promise<void> {
    await this.restand(ids, ({ reason: _reason, code: _code, ...kept }) => ({
      ...kept,
      standing,
      savedAt: standing === "waiting" ? null : Date.now(),
      ...laid(refusal),
    }));
  }

  async notSaved(): Promise<SessionEvent[]> {
    const all = await Promise.all(
      (["waiting", "refused"] as const).map((standing) => this.database.getAllFromIndex("events", "standing", standing)),
    );
    return all
      .flat()
      .sort((a, b) => a.order - b.order)
      .map(({ event }) => event);
  }

  async keepNew(events: readonly SessionEvent[]): Promise<void> {
    const known = new Set(await this.database.getAllKeys("events"));
    await this.keep(events.filter(({ id }) => !known.has(id)));
  }

  async offerAgain(): Promise<number> {
    const ids = await this.database.getAllKeysFromIndex("events", "standing", "saved");
    // Sessions first: another device may have taps in one that only this one can give.
    const transaction = this.database.transaction("sessions", "readwrite", { durability: "strict" });
    for (const session of await transaction.store.getAll())
      if (session.standing === "saved") void transaction.store.put({ ...session, standing: "waiting", savedAt: null });
    await transaction.done;
    return this.restand(ids, (kept) => (kept.standing === "saved" ? { ...kept, standing: "waiting", savedAt: null } : null));
  }

  async ofSession(session: string): Promise<SessionEvent[]> {
    return (await this.database.getAllFromIndex("events", "session", session)).map((kept) => kept.event);
  }

  async keepSession(session: KeptSession): Promise<void> {
    const transaction = this.database.transaction("sessions", "readwrite", { durability: "strict" });
    if ((await transaction.store.get(session.id)) === undefined) void transaction.store.put(session);
    await transaction.done;
  }

  async sessions(): Promise<KeptSession[]> {
    return (await this.database.getAll("sessions")).sort((a, b) => a.madeMs - b.madeMs);
  }

  async settleSession(id: string, standing: Standing, reason?: string): Promise<void> {
    const transaction = this.database.transaction("sessions", "readwrite", { durability: "strict" });
    const kept = await transaction.store.get(id);
    if (kept !== undefined) {
      const { reason: _old, ...rest } = kept;
      const savedAt = standing === "saved" ? Date.now() : null;
      void transaction.store.put({ ...rest, standing, savedAt, ...(reason === undefined ? {} : { reason }) });
    }
    await transaction.done;
  }

  async savedThrough(): Promise<Map<string, number | null>> {
    const through = new Map<string, number | null>();
    for (const { session, savedAt, standing } of await this.database.getAll("events")) {
      const before = through.get(session);
      if (before === null) continue;
      through.set(session, standing === "waiting" ? null : Math.max(before ?? 0, savedAt ?? 0));
    }
    return through;
  }

  async offset(load: string): Promise<number | null> {
    return (await this.database.get("loads", load))?.offsetMs ?? null;
  }

  async lastOffset(): Promise<number | null> {
    const all = await this.database.getAll("loads");
    return all.sort((a, b) => (a.atMs ?? 0) - (b.atMs ?? 0)).at(-1)?.offsetMs ?? null;
  }

  async keepOffset(load: string, offsetMs: number): Promise<void> {
    await this.database.put("loads", { load, offsetMs, atMs: Date.now() });
  }

  /** Forgets events the server confirmed more than thirty days ago. */
  async prune(): Promise<void> {
    const old = (await this.database.getAllFromIndex("events", "standing", "saved")).filter(
      (kept) => kept.savedAt !== null && kept.savedAt < Date.now() - KEEP_SAVED_MS,
    );
    const transaction = this.database.transaction(["events", "sessions"], "readwrite");
    const events = transaction.objectStore("events");
    for (const kept of old) void events.delete(kept.id);
    const sessions = transaction.objectStore("sessions");
    for (const { id, standing, savedAt } of await sessions.getAll()) {
      if (standing !== "saved" || (savedAt ?? 0) >= Date.now() - KEEP_SAVED_MS) continue;
      if ((await events.index("session").count(id)) === 0) void sessions.delete(id);
    }
    await transaction.done;
  }

  close(): void {
    this.database.close();
  }
}
