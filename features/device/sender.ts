import type { BegunSession } from "@/core/pack";
import type { SessionEvent } from "@/core/schemas";
import { type Mark, readMark, wentBack, writeMark } from "./mark";
import { DeviceQueue, type EventQueue, type KeptSession, type RefusedTap } from "./queue";
import { NO_ANSWER } from "./reach";
import { Clocks } from "./sending/clocks";
import { Delivery, MAY_BE_TAKEN_YET } from "./sending/delivery";
import { Keeping } from "./sending/keeping";
import { SendingStatus } from "./sending/status";
import { askOfJumps } from "./steady-clock";

export { NOTHING_SENT, type SendingState } from "./sending/status";

const FIRST_PAUSE_MS = 400;
const LONGEST_PAUSE_MS = 5000;
/** Devices that lost the server at one moment must not all come back at one moment: a pause is shortened by up to this share. */
const JITTER = 0.4;

/**
 * Sends what the device keeps, in order, until the server has confirmed it.
 * What the device cannot keep is held in memory and sent from there; opening
 * the device's store is tried again each time. One for each store and page.
 *
 * It is made of four machines: what is kept (`sending/keeping.ts`), the clocks
 * (`clocks.ts`), the way to the server (`delivery.ts`) and what is said of it
 * (`status.ts`). Here is when they run, and how a store that went back is noticed.
 */
export class Sender {
  private readonly status = new SendingStatus();
  private readonly keeping: Keeping;
  private readonly clocks: Clocks;
  private readonly delivery: Delivery;
  private running = false;
  private again = false;
  /** Whether clock and store were asked since the server was last out of reach. */
  private tied = false;
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
    const { status } = this;
    const keeping = new Keeping(storeId, open, patienceMs, status);
    const clocks = new Clocks(keeping);
    this.keeping = keeping;
    this.clocks = clocks;
    this.delivery = new Delivery(storeId, { keeping, clocks, status }, (before, now) => this.heardReach(before, now));
  }

  subscribe = (listener: () => void) => this.status.subscribe(listener);

  snapshot = () => this.status.snapshot();

  /**
   * Keeps taps on the device, then sends them. Resolves false where they are in
   * memory alone; they are sent all the same.
   */
  async keep(events: readonly SessionEvent[]): Promise<boolean> {
    for (const { load } of events) this.clocks.own(load);
    const kept = await this.keeping.keep(events);
    this.kick();
    return kept;
  }

  /**
   * A page that is going to log under this load: its clock is tied to the server's before the first tap.
   * @param told hears the offset whenever it is measured: until then the one measured last stands in, which a clock that was set since makes wrong.
   */
  tieLoad(load: string, told?: (offsetMs: number) => void): void {
    if (this.clocks.own(load, told)) this.reconnect();
  }

  /**
   * Keeps a session on this device: one begun here goes to the server before
   * its taps, once; one the server has is offered again only to a store that
   * has lost it. Resolves false where the device does not keep it.
   */
  async keepSession(begun: BegunSession, standing: "waiting" | "saved", startedMs: number | null = null): Promise<boolean> {
    const done = await this.keeping.keepSession(begun, standing, startedMs);
    if (done && standing === "waiting") this.kick();
    return done;
  }

  /** Every session this device keeps, oldest first. */
  sessions = (): Promise<KeptSession[]> => this.keeping.sessions();

  /** When the newest tap of each session was confirmed; null where some of it still waits. */
  savedThrough = (): Promise<Map<string, number | null>> => this.keeping.savedThrough();

  /** The offsets of page loads as far as this device knows them; of one it was never tied in, the one it was tied with last. */
  offsetsKept = (loads: readonly string[]): Promise<Map<string, number>> => this.clocks.kept(loads);

  /** Every tap of a session that this device has. */
  ofSession = (session: string): Promise<SessionEvent[]> => this.keeping.ofSession(session);

  /** The taps the server would not take, with its reasons. */
  refusedTaps = (): Promise<RefusedTap[]> => this.keeping.refusedTaps();

  /** Something done with what this device keeps, by what is not needed in the recorder. @throws where the device's store does not open. */
  withKept<T>(work: (queue: EventQueue) => Promise<T>): Promise<T> {
    return this.keeping.withKept(work);
  }

  /** Taps in this page's memory alone. */
  unkept = (): SessionEvent[] => this.keeping.unkept();

  /** Forgets what was confirmed long ago. */
  prune = (): Promise<void> => this.keeping.prune();

  /** Whether a jump ahead was this device's clock being set. */
  clockWasSet = (): Promise<boolean> => this.clocks.wasSet();

  /** Sends refused taps once more. */
  async tryAgain(ids: readonly string[]): Promise<void> {
    await this.keeping.putBack(ids);
    for (const { id, standing } of await this.sessions().catch((): KeptSession[] => []))
      if (standing === "refused") await this.keeping.settleSession(id, "waiting");
    // What the server's clock had to do with it may have been put right.
    this.reconnect();
  }

  /** Ends this page's sending: what it keeps is sent by the next page. */
  end(): void {
    this.ended = true;
    this.again = false;
    this.delivery.end();
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
  }

  /** Sends now; a call while sending makes it look once more. */
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
    const done = () => {
      const { waiting, sessionsWaiting } = this.snapshot();
      return !this.running && this.keeping.allKept && waiting?.size === 0 && sessionsWaiting.size === 0;
    };
    while (Date.now() < until) {
      if (done()) return true;
      await new Promise((resolve) => setTimeout(resolve, 60));
    }
    return done();
  }

  /** A live line has told of a store under another restore than the one known here: it is asked at once. */
  heardRestore(epoch: string): void {
    const known = this.epochHeard ?? readMark(this.storeId)?.epoch ?? epoch;
    this.epochHeard = epoch;
    if (known !== epoch) this.reconnect();
  }

  private async run(): Promise<void> {
    const { keeping, delivery, status } = this;
    this.running = true;
    try {
      do {
        this.again = false;
        delivery.begin();
        await this.tie();
        await keeping.markSettled();
        await delivery.sendSessions();
        await delivery.sendAll();
        this.pauseMs = FIRST_PAUSE_MS;
        status.say({ held: null });
        await keeping.count();
        // Looked at last, with nothing awaited after it: a tap kept during the counting would otherwise wait for the next one.
      } while (this.again);
    } catch (error) {
      this.tied = false;
      await keeping.count();
      status.say({ held: error instanceof Error ? error.message : NO_ANSWER });
      if (!this.ended) this.timer = setTimeout(this.kick, this.pauseMs * (1 - JITTER * Math.random()));
      this.pauseMs = Math.min(LONGEST_PAUSE_MS, this.pauseMs * 2);
    } finally {
      this.running = false;
    }
  }

  /** Ties this device's clock to the server's, and notices a store that went back behind what it had confirmed. */
  private async tie(): Promise<void> {
    if (this.tied) return;
    const before = readMark(this.storeId);
    const clock = await this.clocks.ask();
    if (clock.store !== this.storeId) throw new Error("Other data is open on the server now.");
    await this.clocks.tieOwn(clock);
    await this.heardReach(before, clock);
    this.tied = true;
    const again = (await this.keeping.refusedTaps()).filter(({ code }) => MAY_BE_TAKEN_YET.has(code));
    await this.keeping.putBack(again.map(({ event }) => event.id));
  }

  /**
   * Holds how far the store reaches against what it had confirmed before it was asked: only then is the new mark
   * written. Asked for and answered in another order, two answers tell nothing.
   */
  private async heardReach(before: Mark | null, { epoch, position }: Mark): Promise<void> {
    this.toOffer ||= wentBack(before, { epoch, position });
    if (this.toOffer)
      try {
        await this.keeping.offerAgain();
        this.toOffer = false;
        this.delivery.giveAnew();
        // Sessions that wait again go with the next turn.
        this.again = true;
        await this.keeping.count();
      } catch {
        // The device's store does not open now; the mark stays as it is, so that the next page notices it too.
      }
    if (!this.toOffer) writeMark(this.storeId, { epoch, position });
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
