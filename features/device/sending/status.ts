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

/** What is said of the sending: everybody who shows it hears each change. */
export class SendingStatus {
  private state = NOTHING_SENT;
  private readonly listeners = new Set<() => void>();

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  snapshot = () => this.state;

  /** Says a change. What waits is stuck since the first moment anything did, until something got through. */
  say(change: Partial<SendingState>): void {
    const next = { ...this.state, ...change };
    const left = next.unkept.size + (next.waiting?.size ?? 0);
    this.state = { ...next, stuckSinceMs: left === 0 ? null : (next.stuckSinceMs ?? Date.now()) };
    for (const listener of this.listeners) listener();
  }
}
