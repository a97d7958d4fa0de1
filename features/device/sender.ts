import { isWrittenLoad } from "@/core/entry/written";
import type { BegunSession } from "@/core/pack";
import type { SessionEvent } from "@/core/schemas";
import { AtOnce } from "./at-once";
import { type Mark, readMark, wentBack, writeMark } from "./mark";
import { DeviceQueue, type EventQueue, type KeptSession, type RefusedTap } from "./queue";
import { bodyOf, NO_ANSWER, reach } from "./reach";
import { ReopeningQueue } from "./reopening";
import { type ServerClock, serverClock } from "./server-clock";
import { askOfJumps } from "./steady-clock";

/** What the sender knows of the way to the server. */
export interface SendingState {
  /** Taps that are in this page's memory alone: on their way to the device's disk, or not taken by it. */
  readonly unkept: ReadonlySet<string>;
  /** Taps on the device that the server has not confirmed; null until they have been counted. */
  readonly waiting: ReadonlySet<string> | null;
  readonly refused: ReadonlySet<string>;
  /** Whether the device takes taps. */
  readonly keeps: boolean;
  /** Sessions made on this device that the server does not have yet. */
  readonly sessionsWaiting: ReadonlySet<string>;
  /** Why nothing goes through at the moment, in words, or null. */
  readonly held: string | null;
  /** Since when taps have been waiting without one getting through, on this device's clock; null where none waits. */
  readonly stuckSinceMs: number | null;
}

export const NOTHING_SENT: SendingState = {
  unkept: new Set(),
  waiting: null,
  refused: new Set(),
  sessionsWaiting: new Set(),
  keeps: true,
  held: null,
  stuckSinceMs: null,
};

const BATCH = 200;
const FIRST_PAUSE_MS = 400;
const LONGEST_PAUSE_MS = 5000;
/** Devices that lost the server at one moment must not all come back at one moment: a pause is shortened by up to this share. */
const JITTER = 0.4;
/** Reading a session, and going through all that was kept in thirty days, take longer on a slow phone. */
const READ_PATIENCE_MS = 6000;
const WHOLE_PATIENCE_MS = 60_000;
const CLOCK_ASKINGS = 5;

interface Settled {
  readonly standing: "saved" | "refused";
  readonly reason?: string;
}

/** Why a tap is kept aside whose time alone was refused: it is sent again with each new connection, since a clock may be put right. */
const CLOCK_REASON = "The server's clock says otherwise.";
/** The same of one whose session the store does not have: the device that began it may give it yet. */
const SESSION_REASON = "The server does not have this session.";
const MAY_BE_TAKEN_YET: readonly string[] = [CLOCK_REASON, SESSION_REASON];

/** What the server answers a batch with, as far as the sender acts on it. */
interface Answer {
  readonly detail?: string;
  readonly code?: string;
  readonly position?: number;
  readonly epoch?: string;
  readonly store?: string;
  readonly saved?: number;
  readonly known?: number;
  readonly id?: string;
}

/** Refusals of what is in a batch; any other is the server's own trouble, and the batch is sent again. */
const OF_THE_BATCH = [400, 404, 409, 413, 422];

/**
 * Sends what the device keeps, in order, until the server has confirmed it.
 * What the device cannot keep is held in memory and sent from there; opening
 * the device's store is tried again each time. One for each store and page.
 */
export class Sender {
  private state = NOTHING_SENT;
  private readonly listeners = new Set<() => void>();
  private readonly memory = new Map<string, SessionEvent>();
  private readonly refusedInMemory = new Map<string, RefusedTap>();
  /** Memory taps whose keeping is still under way: they are not sent yet, so that a tap is written before it travels. */
  private readonly beingKept = new Set<string>();
  /** Taps the server has answered for that the device could not mark so yet: sent no more, and marked when it can. */
  private readonly unmarked = new Map<string, Settled>();
  private readonly ownLoads = new Set<string>();
  private readonly offsets = new Map<string, number>();
  private readonly tellOffset = new Map<string, (offsetMs: number) => void>();
  private readonly device: ReopeningQueue;
  private readonly atOnce: AtOnce;
  private newestClock: ServerClock | null = null;
  private running = false;
  private again = false;
  /** Whether clock and store were asked since the server was last out of reach. */
  private tied = false;
  /** Page loads for which the clock was asked in this run because the server disliked a time: once each is enough. */
  private readonly clockAsked = new Set<string>();
  /** Sessions given again in this run: once is enough. */
  private readonly given = new Set<string>();
  /** Whether confirmed taps are still to be offered again to a store that went back. */
  private toOffer = false;
  /** The restore a live line told of last; null before the first. */
  private epochHeard: string | null = null;
  private pauseMs = FIRST_PAUSE_MS;
  private ended = false;
  private timer: ReturnType<typeof setTimeout> | null = null;

  constructor(
    readonly storeId: string,
    open: (onLost: () => void) => Promise<EventQueue>,
    patienceMs?: number,
  ) {
    this.device = new ReopeningQueue(open, patienceMs);
    this.atOnce = new AtOnce(storeId);
    // What a page that went away had not brought to the database any more.
    const left = this.atOnce.left();
    for (const event of left) this.memory.set(event.id, event);
    if (left.length > 0) void this.write(left);
  }

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  snapshot = () => this.state;

  private say(change: Partial<SendingState>): void {
    const next = { ...this.state, ...change };
    const left = next.unkept.size + (next.waiting?.size ?? 0);
    this.state = { ...next, stuckSinceMs: left === 0 ? null : (next.stuckSinceMs ?? Date.now()) };
    for (const listener of this.listeners) listener();
  }

  /** Writes taps to the device. @returns whether they are on its disk. */
  private async write(events: readonly SessionEvent[]): Promise<boolean> {
    try {
      await this.device.use((queue) => queue.keep(events));
      const waiting = this.state.waiting === null ? null : new Set(this.state.waiting);
      for (const { id } of events) if (this.memory.delete(id)) waiting?.add(id);
      this.atOnce.drop(events.map(({ id }) => id));
      this.say({ unkept: new Set(this.memory.keys()), waiting, keeps: true });
      return true;
    } catch {
      this.say({ keeps: false });
      return false;
    }
  }

  /**
   * Keeps taps on the device, then sends them. Counted from the first moment,
   * so that the status never runs ahead. Resolves false where they are in
   * memory alone; they are sent all the same.
   */
  async keep(events: readonly SessionEvent[]): Promise<boolean> {
    for (const event of events) {
      this.memory.set(event.id, event);
      this.beingKept.add(event.id);
      this.ownLoads.add(event.load);
    }
    this.atOnce.put(events);
    this.say({ unkept: new Set(this.memory.keys()) });
    const kept = await this.write(events);
    for (const { id } of events) this.beingKept.delete(id);
    this.kick();
    return kept;
  }

  /**
   * A page that is going to log under this load: its clock is tied to the server's before the first tap.
   * @param told hears the offset whenever it is measured: until then the one measured last stands in, which a clock that was set since makes wrong.
   */
  tieLoad(load: string, told?: (offsetMs: number) => void): void {
    if (told !== undefined) this.tellOffset.set(load, told);
    if (this.ownLoads.has(load)) return;
    this.ownLoads.add(load);
    this.tied = false;
    this.kick();
  }

  /**
   * Keeps a session on this device: one begun here goes to the server before
   * its taps, once; one the server has is offered again only to a store that
   * has lost it. Resolves false where the device does not keep it.
   */
  async keepSession(begun: BegunSession, standing: "waiting" | "saved", startedMs: number | null = null): Promise<boolean> {
    const kept: KeptSession = {
      id: begun.id,
      begun,
      madeMs: Date.now(),
      startedMs,
      standing,
      savedAt: standing === "saved" ? Date.now() : null,
    };
    const done = await this.device
      .use((queue) => queue.keepSession(kept))
      .then(
        () => true,
        () => false,
      );
    if (done && standing === "waiting") this.kick();
    return done;
  }

  /** Every session this device keeps, oldest first. */
  sessions(): Promise<KeptSession[]> {
    return this.device.use((queue) => queue.sessions(), READ_PATIENCE_MS);
  }

  /** When the newest tap of each session was confirmed; null where some of it still waits. */
  savedThrough(): Promise<Map<string, number | null>> {
    return this.device.use((queue) => queue.savedThrough(), READ_PATIENCE_MS);
  }

  /** The offsets of page loads as far as this device knows them; of one it was never tied in, the one it was tied with last. */
  async offsetsKept(loads: readonly string[]): Promise<Map<string, number>> {
    const last = await this.device.use((queue) => queue.lastOffset()).catch(() => null);
    const found = new Map<string, number>();
    for (const load of loads) {
      const offset = (await this.knownOffset(load)) ?? last;
      if (offset !== null) found.set(load, offset);
    }
    return found;
  }

  /** Every tap of a session that this device has. */
  async ofSession(session: string): Promise<SessionEvent[]> {
    // Taken before the reading: a tap that reaches the database meanwhile is in both, and none is in neither.
    const held = [...this.memory.values()].filter((event) => event.session === session);
    const kept = await this.device
      .use((queue) => queue.ofSession(session), READ_PATIENCE_MS)
      .catch(() => {
        this.say({ keeps: false });
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

  /** Sends refused taps once more. */
  async tryAgain(ids: readonly string[]): Promise<void> {
    await this.putBack(ids);
    for (const { id, standing } of await this.sessions().catch((): KeptSession[] => []))
      if (standing === "refused") await this.device.use((queue) => queue.settleSession(id, "waiting")).catch(() => undefined);
    // What the server's clock had to do with it may have been put right.
    this.reconnect();
  }

  /** Lets refused taps wait again. */
  private async putBack(ids: readonly string[]): Promise<void> {
    if (ids.length === 0) return;
    for (const id of ids) {
      const tap = this.refusedInMemory.get(id);
      if (tap === undefined) continue;
      this.refusedInMemory.delete(id);
      this.memory.set(id, tap.event);
    }
    for (const id of ids) this.unmarked.delete(id);
    this.say({ refused: new Set([...this.state.refused].filter((id) => !ids.includes(id))) });
    await this.device.use((queue) => queue.settle(ids, "waiting")).catch(() => undefined);
  }

  /** Forgets what was confirmed long ago. */
  async prune(): Promise<void> {
    await this.device.use((queue) => queue.prune(), WHOLE_PATIENCE_MS).catch(() => undefined);
  }

  /** Sends now; a call while sending makes it look once more. */
  /** Ends this page's sending: what it keeps is sent by the next page. */
  end(): void {
    this.ended = true;
    this.again = false;
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
  }

  kick = (): void => {
    if (this.ended) return;
    this.again = true;
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
    if (!this.running) void this.run();
  };

  /** The way to the server may have changed: clock and store are asked again. */
  reconnect = (): void => {
    this.tied = false;
    this.kick();
  };

  /** Resolves true when nothing waits any more and the state says so, false when the time is up. */
  async flush(withinMs: number): Promise<boolean> {
    const until = Date.now() + withinMs;
    this.kick();
    const done = () => !this.running && this.memory.size === 0 && this.state.waiting?.size === 0 && this.state.sessionsWaiting.size === 0;
    while (Date.now() < until) {
      if (done()) return true;
      await new Promise((resolve) => setTimeout(resolve, 60));
    }
    return done();
  }

  private async run(): Promise<void> {
    this.running = true;
    try {
      do {
        this.again = false;
        this.clockAsked.clear();
        this.given.clear();
        await this.tie();
        await this.markSettled();
        await this.sendSessions();
        await this.sendAll();
        this.pauseMs = FIRST_PAUSE_MS;
        this.say({ held: null });
        await this.count();
        // Looked at last, with nothing awaited after it: a tap kept during the counting would otherwise wait for the next one.
      } while (this.again);
    } catch (error) {
      this.tied = false;
      await this.count();
      this.say({ held: error instanceof Error ? error.message : NO_ANSWER });
      if (!this.ended) this.timer = setTimeout(this.kick, this.pauseMs * (1 - JITTER * Math.random()));
      this.pauseMs = Math.min(LONGEST_PAUSE_MS, this.pauseMs * 2);
    } finally {
      this.running = false;
    }
  }

  private async count(): Promise<void> {
    try {
      const [waiting, refused, sessions] = await this.device.use((queue) =>
        Promise.all([queue.idsOf("waiting"), queue.idsOf("refused"), queue.sessions()]),
      );
      this.say({
        sessionsWaiting: new Set(sessions.flatMap(({ id, standing }) => (standing === "waiting" ? [id] : []))),
        unkept: new Set(this.memory.keys()),
        waiting: new Set(waiting.filter((id) => !this.unmarked.has(id))),
        refused: new Set([...refused, ...this.refusedInMemory.keys()]),
      });
    } catch {
      const { waiting, refused } = this.state;
      this.say({
        unkept: new Set(this.memory.keys()),
        waiting: waiting ?? new Set(),
        refused: new Set([...refused, ...this.refusedInMemory.keys()]),
        keeps: false,
      });
    }
  }

  /** Ties this device's clock to the server's, and notices a store that went back behind what it had confirmed. */
  private async tie(): Promise<void> {
    if (this.tied) return;
    const before = readMark(this.storeId);
    const clock = await serverClock(this.ownLoads.size > 0 ? CLOCK_ASKINGS : 1);
    this.newestClock = clock;
    if (clock.store !== this.storeId) throw new Error("Other data is open on the server now.");
    for (const load of this.ownLoads) await this.keepOffset(load, clock);
    await this.heardReach(before, clock);
    this.tied = true;
    const again = (await this.refusedTaps()).filter(({ reason }) => MAY_BE_TAKEN_YET.includes(reason));
    await this.putBack(again.map(({ event }) => event.id));
  }

  /**
   * Holds how far the store reaches against what it had confirmed before it was asked: only then is the new mark
   * written. Asked for and answered in another order, two answers tell nothing.
   */
  private async heardReach(before: Mark | null, now: Mark): Promise<void> {
    this.toOffer ||= wentBack(before, now);
    if (this.toOffer)
      try {
        // What was confirmed and could not be marked yet is not to be left out.
        for (const [id, { standing }] of this.unmarked) if (standing === "saved") this.unmarked.delete(id);
        await this.device.use((queue) => queue.offerAgain(), WHOLE_PATIENCE_MS);
        this.toOffer = false;
        this.given.clear();
        // Sessions that wait again go with the next turn.
        this.again = true;
        await this.count();
      } catch {
        // The device's store does not open now; the mark stays as it is, so that the next page notices it too.
      }
    this.mark(now);
  }

  /** A live line has told of a store under another restore than the one known here: it is asked at once. */
  heardRestore(epoch: string): void {
    const known = this.epochHeard ?? readMark(this.storeId)?.epoch ?? epoch;
    this.epochHeard = epoch;
    if (known !== epoch) this.reconnect();
  }

  private mark({ epoch, position }: { epoch: string; position: number }): void {
    if (!this.toOffer) writeMark(this.storeId, { epoch, position });
  }

  /** Keeps a load's offset; one that the asking cannot tell from the old one changes nothing. */
  private async keepOffset(load: string, { offsetMs, roundTripMs }: ServerClock): Promise<void> {
    const known = await this.knownOffset(load);
    if (known !== null && Math.abs(known - offsetMs) <= roundTripMs) return;
    this.offsets.set(load, offsetMs);
    this.tellOffset.get(load)?.(offsetMs);
    // Not waited for: without it the next page measures anew.
    void this.device.use((queue) => queue.keepOffset(load, offsetMs)).catch(() => undefined);
  }

  private async knownOffset(load: string): Promise<number | null> {
    return this.offsets.get(load) ?? (await this.device.use((queue) => queue.offset(load)).catch(() => null));
  }

  /** Whether a jump ahead was this device's clock being set: held as it is meanwhile, it then still stands to the server's as before. */
  async clockWasSet(): Promise<boolean> {
    const before = this.newestClock?.offsetMs;
    if (before === undefined) return false;
    const { offsetMs, roundTripMs } = await serverClock(1);
    return Math.abs(before - offsetMs) <= 1500 + roundTripMs;
  }

  /** The server's clock as it was asked last. */
  private async clock(): Promise<ServerClock> {
    this.newestClock ??= await serverClock(1);
    return this.newestClock;
  }

  /** The server's clock minus the device's under a page load. */
  private async offsetOf(load: string): Promise<number> {
    if (isWrittenLoad(load)) return 0;
    const known = await this.knownOffset(load);
    if (known !== null) return known;
    const clock = await serverClock(CLOCK_ASKINGS);
    await this.keepOffset(load, clock);
    return clock.offsetMs;
  }

  /** What goes next: first what this page alone holds, then what the device keeps. */
  private async nextBatch(): Promise<SessionEvent[]> {
    const held = [...this.memory.values()].filter(({ id }) => !this.beingKept.has(id));
    if (held.length > 0 && !(await this.write(held))) return held.filter(({ recorder }) => recorder === held[0]?.recorder).slice(0, BATCH);
    try {
      const waiting = await this.device.use((queue) => queue.waiting(BATCH + this.unmarked.size));
      return waiting.filter(({ id }) => !this.unmarked.has(id)).slice(0, BATCH);
    } catch {
      return [];
    }
  }

  private async sendAll(): Promise<void> {
    for (let batch = await this.nextBatch(); batch.length > 0; batch = await this.nextBatch()) {
      await this.sendBatch(batch);
      this.say({ held: null, stuckSinceMs: null });
      await this.count();
    }
  }

  /** Gives the server the sessions made here that it does not have, oldest first; sent again, each is still one. */
  private async sendSessions(): Promise<void> {
    const sessions = await this.device.use((queue) => queue.sessions()).catch((): KeptSession[] => []);
    for (const session of sessions) if (session.standing === "waiting") await this.sendSession(session);
  }

  private async sendSession({ id, begun, madeMs, startedMs }: KeptSession): Promise<void> {
    const { offsetMs } = await this.clock();
    const response = await reach("/api/sessions", {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ ...begun, made_ms: Math.round(madeMs + offsetMs), ...(startedMs === null ? {} : { started_ms: startedMs }) }),
    });
    const answer = await bodyOf<Answer>(response);
    const settle = (standing: "saved" | "refused", reason?: string) =>
      this.device.use((queue) => queue.settleSession(id, standing, reason)).catch(() => undefined);
    if (response.ok && answer?.id === id) return void (await settle("saved"));
    if (response.ok) throw new Error(NO_ANSWER);
    const detail = answer?.detail ?? "The server does not take it.";
    if (!OF_THE_BATCH.includes(response.status) || answer === null) throw new Error(detail);
    await settle("refused", detail);
  }

  /** Sessions of a batch the store does not have, where this device can give them: to be sent before it is tried again. */
  private async giveSessions(batch: readonly SessionEvent[]): Promise<boolean> {
    const wanted = new Set(batch.map(({ session }) => session));
    const kept = await this.device.use((queue) => queue.sessions()).catch((): KeptSession[] => []);
    const fresh = kept.filter(({ id, standing }) => wanted.has(id) && standing !== "refused" && !this.given.has(id));
    for (const session of fresh) {
      this.given.add(session.id);
      await this.sendSession(session);
    }
    return fresh.length > 0;
  }

  private async settle(batch: readonly SessionEvent[], standing: "saved" | "refused", reason?: string): Promise<void> {
    const held = batch.filter(({ id }) => this.memory.delete(id));
    if (standing === "saved") this.atOnce.drop(held.map(({ id }) => id));
    const kept = batch.filter((event) => !held.includes(event)).map(({ id }) => id);
    for (const id of kept) this.unmarked.set(id, { standing, reason });
    await this.markSettled();
    if (held.length === 0) return;
    // What was sent from memory is kept for thirty days like the rest, if the device takes it now.
    try {
      await this.device.use((queue) => queue.keep(held, standing, reason));
      this.atOnce.drop(held.map(({ id }) => id));
    } catch {
      if (standing === "refused") for (const event of held) this.refusedInMemory.set(event.id, { event, reason: reason ?? "" });
    }
  }

  private async markSettled(): Promise<void> {
    const mark = (ids: readonly string[], { standing, reason }: Settled) =>
      this.device
        .use((queue) => queue.settle(ids, standing, reason))
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

  /** Whether an answer is of this store and counts what was sent: a page in between may answer anything with 200. */
  private confirms({ store, saved, known, position }: Answer, sent: number): boolean {
    return (
      store === this.storeId && typeof saved === "number" && typeof known === "number" && saved + known === sent && position !== undefined
    );
  }

  private async sendBatch(batch: readonly SessionEvent[]): Promise<void> {
    const clocks: Record<string, number> = {};
    for (const load of new Set(batch.map((event) => event.load))) clocks[load] = await this.offsetOf(load);
    const before = readMark(this.storeId);
    const response = await reach("/api/events", {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ store: this.storeId, recorder: batch[0]?.recorder, clocks, events: batch }),
    });
    const answer = await bodyOf<Answer>(response);
    if (response.ok) {
      // A confirmation that did not come through whole, or is not this store's and of these taps, is none: they are sent again.
      if (answer === null || !this.confirms(answer, batch.length)) throw new Error(NO_ANSWER);
      await this.settle(batch, "saved");
      await this.heardReach(before, { epoch: answer.epoch ?? "", position: answer.position ?? 0 });
      return;
    }
    const detail = answer?.detail ?? "The server does not take them.";
    if (!OF_THE_BATCH.includes(response.status) || answer === null || answer.code === "another-store") throw new Error(detail);
    const toAsk = Object.keys(clocks).filter((load) => !isWrittenLoad(load) && !this.clockAsked.has(load));
    if (answer.code === "clock" && toAsk.length > 0) {
      // The server's clock was wrong when the offset was taken, or one of the two has been set since.
      const clock = await serverClock(CLOCK_ASKINGS);
      this.newestClock = clock;
      for (const load of toAsk) {
        this.clockAsked.add(load);
        await this.keepOffset(load, clock);
      }
      return this.sendBatch(batch);
    }
    // A store put back to before this session has it again from here.
    if (answer.code === "unknown-session" && (await this.giveSessions(batch))) return this.sendBatch(batch);
    // One bad event must not hold up the rest: find it, keep it aside, say so.
    const reason = answer.code === "clock" ? CLOCK_REASON : answer.code === "unknown-session" ? SESSION_REASON : detail;
    if (batch.length === 1) return this.settle(batch, "refused", reason);
    const middle = batch.length >> 1;
    await this.sendBatch(batch.slice(0, middle));
    await this.sendBatch(batch.slice(middle));
  }
}

const senders = new Map<string, Sender>();

/** The sender of a store on this page. */
export function senderFor(storeId: string): Sender {
  let sender = senders.get(storeId);
  if (sender === undefined) {
    sender = new Sender(storeId, (onLost) => DeviceQueue.open(storeId, onLost));
    const asked = sender;
    askOfJumps(() => asked.clockWasSet());
    senders.set(storeId, sender);
  }
  return sender;
}
