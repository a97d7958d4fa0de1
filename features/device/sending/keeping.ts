import type { BegunSession } from "@/core/pack";
import type { SessionEvent } from "@/core/schemas";
import { AtOnce } from "../at-once";
import type { EventQueue, KeptSession, Refusal, RefusedTap } from "../queue";
import { ReopeningQueue } from "../reopening";
import type { SendingStatus } from "./status";

/** The most taps that are sent at once. */
const BATCH = 200;
/** Reading a session, and going through all that was kept in thirty days, take longer on a slow phone. */
const READ_PATIENCE_MS = 6000;
const WHOLE_PATIENCE_MS = 60_000;

interface Settled {
  readonly standing: "saved" | "refused";
  readonly refusal?: Refusal;
}

/**
 * What this page and its device hold: taps in memory, at once in the small
 * store, then in the database; what was answered for and could not be marked;
 * sessions begun here. It sends nothing.
 */
export class Keeping {
  private readonly memory = new Map<string, SessionEvent>();
  private readonly refusedInMemory = new Map<string, RefusedTap>();
  /** Memory taps whose keeping is still under way: they are not sent yet, so that a tap is written before it travels. */
  private readonly beingKept = new Set<string>();
  /** Taps the server has answered for that the device could not mark so yet: sent no more, and marked when it can. */
  private readonly unmarked = new Map<string, Settled>();
  private readonly device: ReopeningQueue;
  private readonly atOnce: AtOnce;

  constructor(
    storeId: string,
    open: (onLost: () => void) => Promise<EventQueue>,
    patienceMs: number | undefined,
    private readonly status: SendingStatus,
  ) {
    this.device = new ReopeningQueue(open, patienceMs);
    this.atOnce = new AtOnce(storeId);
    // What a page that went away had not brought to the database any more.
    const left = this.atOnce.left();
    for (const event of left) this.memory.set(event.id, event);
    if (left.length > 0) void this.write(left);
  }

  /** Whether nothing is in this page's memory alone. */
  get allKept(): boolean {
    return this.memory.size === 0;
  }

  /** Writes taps to the device. @returns whether they are on its disk. */
  private async write(events: readonly SessionEvent[]): Promise<boolean> {
    try {
      await this.device.use((queue) => queue.keep(events));
      const waiting = this.status.snapshot().waiting === null ? null : new Set(this.status.snapshot().waiting);
      for (const { id } of events) if (this.memory.delete(id)) waiting?.add(id);
      this.atOnce.drop(events.map(({ id }) => id));
      this.status.say({ unkept: new Set(this.memory.keys()), waiting, keeps: true });
      return true;
    } catch {
      this.status.say({ keeps: false });
      return false;
    }
  }

  /** Keeps taps on the device; counted from the first moment, so that the status never runs ahead. @returns false where they are in memory alone. */
  async keep(events: readonly SessionEvent[]): Promise<boolean> {
    for (const event of events) {
      this.memory.set(event.id, event);
      this.beingKept.add(event.id);
    }
    this.atOnce.put(events);
    this.status.say({ unkept: new Set(this.memory.keys()) });
    const kept = await this.write(events);
    for (const { id } of events) this.beingKept.delete(id);
    return kept;
  }

  /** Keeps a session. @returns false where the device does not keep it. */
  keepSession(begun: BegunSession, standing: "waiting" | "saved", startedMs: number | null): Promise<boolean> {
    const kept: KeptSession = {
      id: begun.id,
      begun,
      madeMs: Date.now(),
      startedMs,
      standing,
      savedAt: standing === "saved" ? Date.now() : null,
    };
    return this.device
      .use((queue) => queue.keepSession(kept))
      .then(
        () => true,
        () => false,
      );
  }

  /** Every session this device keeps, oldest first. */
  sessions(): Promise<KeptSession[]> {
    return this.device.use((queue) => queue.sessions(), READ_PATIENCE_MS);
  }

  /** When the newest tap of each session was confirmed; null where some of it still waits. */
  savedThrough(): Promise<Map<string, number | null>> {
    return this.device.use((queue) => queue.savedThrough(), READ_PATIENCE_MS);
  }

  /** The same, where none of them can be read: none. */
  readableSessions(): Promise<KeptSession[]> {
    return this.device.use((queue) => queue.sessions()).catch((): KeptSession[] => []);
  }

  /** Says of a session how it stands; where the device cannot take it, it stands as before. */
  settleSession(id: string, standing: "waiting" | "saved" | "refused", reason?: string): Promise<void> {
    return this.device.use((queue) => queue.settleSession(id, standing, reason)).catch(() => undefined);
  }

  /** Offsets of page loads, as the device has them. */
  readonly offsets = {
    last: (): Promise<number | null> => this.device.use((queue) => queue.lastOffset()).catch(() => null),
    of: (load: string): Promise<number | null> => this.device.use((queue) => queue.offset(load)).catch(() => null),
    /** Not waited for: without it the next page measures anew. */
    keep: (load: string, offsetMs: number): void => {
      void this.device.use((queue) => queue.keepOffset(load, offsetMs)).catch(() => undefined);
    },
  };

  /** Every tap of a session that this device has. */
  async ofSession(session: string): Promise<SessionEvent[]> {
    // Taken before the reading: a tap that reaches the database meanwhile is in both, and none is in neither.
    const held = [...this.memory.values()].filter((event) => event.session === session);
    const kept = await this.device
      .use((queue) => queue.ofSession(session), READ_PATIENCE_MS)
      .catch(() => {
        this.status.say({ keeps: false });
        return [];
      });
    const known = new Set(kept.map(({ id }) => id));
    return [...kept, ...held.filter(({ id }) => !known.has(id))];
  }

  /** The taps the server would not take, with its reasons. */
  async refusedTaps(): Promise<RefusedTap[]> {
    const kept = await this.device.use((queue) => queue.refused(), READ_PATIENCE_MS).catch(() => []);
    return [...kept, ...this.refusedInMemory.values()];
  }

  /** Something done with what this device keeps, by what is not needed in the recorder. @throws where the device's store does not open. */
  withKept<T>(work: (queue: EventQueue) => Promise<T>): Promise<T> {
    return this.device.use(work, WHOLE_PATIENCE_MS);
  }

  /** Taps in this page's memory alone. */
  unkept(): SessionEvent[] {
    return [...this.memory.values()];
  }

  /** Lets refused taps wait again. */
  async putBack(ids: readonly string[]): Promise<void> {
    if (ids.length === 0) return;
    for (const id of ids) {
      const tap = this.refusedInMemory.get(id);
      if (tap === undefined) continue;
      this.refusedInMemory.delete(id);
      this.memory.set(id, tap.event);
    }
    for (const id of ids) this.unmarked.delete(id);
    this.status.say({ refused: new Set([...this.status.snapshot().refused].filter((id) => !ids.includes(id))) });
    await this.device.use((queue) => queue.settle(ids, "waiting")).catch(() => undefined);
  }

  /** Forgets what was confirmed long ago. */
  async prune(): Promise<void> {
    await this.device.use((queue) => queue.prune(), WHOLE_PATIENCE_MS).catch(() => undefined);
  }

  /** Lets all that was confirmed in the last thirty days wait again. @throws where the device's store does not open. */
  async offerAgain(): Promise<void> {
    // What was confirmed and could not be marked yet is not to be left out.
    for (const [id, { standing }] of this.unmarked) if (standing === "saved") this.unmarked.delete(id);
    await this.device.use((queue) => queue.offerAgain(), WHOLE_PATIENCE_MS);
  }

  /** Counts what is held and says it. */
  async count(): Promise<void> {
    try {
      const [waiting, refused, sessions] = await this.device.use((queue) =>
        Promise.all([queue.idsOf("waiting"), queue.idsOf("refused"), queue.sessions()]),
      );
      this.status.say({
        sessionsWaiting: new Set(sessions.flatMap(({ id, standing }) => (standing === "waiting" ? [id] : []))),
        unkept: new Set(this.memory.keys()),
        waiting: new Set(waiting.filter((id) => !this.unmarked.has(id))),
        refused: new Set([...refused, ...this.refusedInMemory.keys()]),
      });
    } catch {
      const { waiting, refused } = this.status.snapshot();
      this.status.say({
        unkept: new Set(this.memory.keys()),
        waiting: waiting ?? new Set(),
        refused: new Set([...refused, ...this.refusedInMemory.keys()]),
        keeps: false,
      });
    }
  }

  /** What goes next: first what this page alone holds, then what the device keeps. */
  async nextBatch(): Promise<SessionEvent[]> {
    const held = [...this.memory.values()].filter(({ id }) => !this.beingKept.has(id));
    if (held.length > 0 && !(await this.write(held))) return held.filter(({ recorder }) => recorder === held[0]?.recorder).slice(0, BATCH);
    try {
      const waiting = await this.device.use((queue) => queue.waiting(BATCH + this.unmarked.size));
      return waiting.filter(({ id }) => !this.unmarked.has(id)).slice(0, BATCH);
    } catch {
      return [];
    }
  }

  /** Takes what the server has answered for out of what waits. */
  async settle(batch: readonly SessionEvent[], standing: "saved" | "refused", refusal?: Refusal): Promise<void> {
    const held = batch.filter(({ id }) => this.memory.delete(id));
    if (standing === "saved") this.atOnce.drop(held.map(({ id }) => id));
    const kept = batch.filter((event) => !held.includes(event)).map(({ id }) => id);
    for (const id of kept) this.unmarked.set(id, { standing, refusal });
    await this.markSettled();
    if (held.length === 0) return;
    // What was sent from memory is kept for thirty days like the rest, if the device takes it now.
    try {
      await this.device.use((queue) => queue.keep(held, standing, refusal));
      this.atOnce.drop(held.map(({ id }) => id));
    } catch {
      if (standing === "refused")
        for (const event of held) this.refusedInMemory.set(event.id, { event, reason: "", code: null, ...refusal });
    }
  }

  /** Marks on the device what was answered for and could not be marked yet. */
  async markSettled(): Promise<void> {
    const mark = (ids: readonly string[], { standing, refusal }: Settled) =>
      this.device
        .use((queue) => queue.settle(ids, standing, refusal))
        .then(() => {
          for (const id of ids) this.unmarked.delete(id);
        });
    const all = [...this.unmarked];
    const saved = all.filter(([, { standing }]) => standing === "saved").map(([id]) => id);
    try {
      if (saved.length > 0) await mark(saved, { standing: "saved" });
      for (const [id, settled] of all) if (settled.standing === "refused") await mark([id], settled);
    } catch {
      // The device is full or away: tried again with the next run.
    }
  }
}
