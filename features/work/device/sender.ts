import type { SessionEvent } from "@/core/schemas";
import { MemoryQueue } from "./memory-queue";
import { DeviceQueue, type EventQueue } from "./queue";

/** What the sender knows of the way to the server. */
export interface SendingState {
  /** Taps on their way to the device's disk. */
  readonly unkept: number;
  /** Taps on the device that the server has not confirmed; null until they have been counted. */
  readonly waiting: number | null;
  readonly refused: number;
  /** Why nothing goes through at the moment, in words, or null. */
  readonly held: string | null;
}

const BATCH = 200;
const FIRST_PAUSE_MS = 400;
const LONGEST_PAUSE_MS = 5000;

/** Sends what the device keeps, in order, until the server has confirmed it. One for each store and page. */
export class Sender {
  private state: SendingState = { unkept: 0, waiting: null, refused: 0, held: null };
  private readonly listeners = new Set<() => void>();
  private running = false;
  private again = false;
  private pauseMs = FIRST_PAUSE_MS;
  private timer: ReturnType<typeof setTimeout> | null = null;

  constructor(
    private readonly storeId: string,
    readonly queue: Promise<EventQueue>,
  ) {}

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  snapshot = () => this.state;

  private say(change: Partial<SendingState>): void {
    this.state = { ...this.state, ...change };
    for (const listener of this.listeners) listener();
  }

  /** Keeps taps on the device, then sends them. Counted from the first moment, so that the status never runs ahead. */
  async keep(events: readonly SessionEvent[]): Promise<void> {
    this.say({ unkept: this.state.unkept + events.length });
    const queue = await this.queue;
    try {
      await queue.keep(events);
      this.say({ unkept: this.state.unkept - events.length, waiting: (this.state.waiting ?? 0) + events.length });
    } catch (error) {
      this.say({ unkept: this.state.unkept - events.length });
      throw error;
    } finally {
      this.kick();
    }
  }

  /** Sends now; a call while sending makes it look once more. */
  kick = (): void => {
    this.again = true;
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
    if (!this.running) void this.run();
  };

  /** Resolves true when nothing waits any more and the state says so, false when the time is up. */
  async flush(withinMs: number): Promise<boolean> {
    const until = Date.now() + withinMs;
    const queue = await this.queue;
    this.kick();
    while (Date.now() < until) {
      if ((await queue.countWaiting()) === 0 && !this.running) return true;
      await new Promise((resolve) => setTimeout(resolve, 60));
    }
    return (await queue.countWaiting()) === 0;
  }

  private async run(): Promise<void> {
    this.running = true;
    try {
      const queue = await this.queue;
      do {
        this.again = false;
        await this.sendAll(queue);
        this.pauseMs = FIRST_PAUSE_MS;
        this.say({ waiting: await queue.countWaiting(), refused: await queue.countRefused() });
        // Looked at last, with nothing awaited after it: a tap kept during the counting would otherwise wait for the next one.
      } while (this.again);
    } catch (error) {
      this.say({ waiting: await this.countSafely(), held: error instanceof Error ? error.message : "The server does not answer." });
      this.timer = setTimeout(this.kick, this.pauseMs);
      this.pauseMs = Math.min(LONGEST_PAUSE_MS, this.pauseMs * 2);
    } finally {
      this.running = false;
    }
  }

  private async countSafely(): Promise<number | null> {
    return this.queue.then((queue) => queue.countWaiting()).catch(() => this.state.waiting);
  }

  private async sendAll(queue: EventQueue): Promise<void> {
    for (let batch = await queue.waiting(BATCH); batch.length > 0; batch = await queue.waiting(BATCH)) {
      await this.sendBatch(queue, batch);
      this.say({ waiting: await queue.countWaiting(), held: null });
    }
  }

  private async sendBatch(queue: EventQueue, batch: readonly SessionEvent[]): Promise<void> {
    const clocks: Record<string, number> = {};
    for (const load of new Set(batch.map((event) => event.load))) clocks[load] = await this.offsetOf(queue, load);
    const response = await reach("/api/events", {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ store: this.storeId, recorder: batch[0]?.recorder, clocks, events: batch }),
    });
    if (response.ok) {
      await queue.settle(
        batch.map((event) => event.id),
        "saved",
      );
      return;
    }
    const detail = ((await response.json().catch(() => null)) as { detail?: string } | null)?.detail;
    if (response.status === 422 || response.status === 404 || response.status === 413) {
      // One bad event must not hold up the rest: find it, keep it aside, say so.
      if (batch.length === 1) {
        await queue.settle([batch[0]?.id ?? ""], "refused");
        this.say({ refused: await queue.countRefused() });
        return;
      }
      const middle = batch.length >> 1;
      await this.sendBatch(queue, batch.slice(0, middle));
      await this.sendBatch(queue, batch.slice(middle));
      return;
    }
    throw new Error(detail ?? "The server does not take them.");
  }

  /** The server's clock minus this device's, measured once for each page load. */
  private async offsetOf(queue: EventQueue, load: string): Promise<number> {
    const known = await queue.offset(load);
    if (known !== null) return known;
    const before = Date.now();
    const response = await reach("/api/clock");
    if (!response.ok) throw new Error("The server does not answer.");
    const { now_ms } = (await response.json()) as { now_ms: number };
    const offset = Math.round(now_ms - (before + Date.now()) / 2);
    await queue.keepOffset(load, offset);
    return offset;
  }
}

async function reach(url: string, init?: RequestInit): Promise<Response> {
  try {
    return await fetch(url, { ...init, cache: "no-store" });
  } catch {
    throw new Error("The server does not answer.");
  }
}

const senders = new Map<string, Sender>();

/** The sender of a store on this page. */
export function senderFor(storeId: string): Sender {
  let sender = senders.get(storeId);
  if (sender === undefined) {
    sender = new Sender(
      storeId,
      DeviceQueue.open(storeId).catch(() => new MemoryQueue()),
    );
    senders.set(storeId, sender);
  }
  return sender;
}
