import { v4 as newId } from "uuid";
import { reduceSession } from "@/core/record";
import { eventOf, type Fact, type SessionEvent } from "@/core/schemas";
import { withRaw } from "@/store/file/raw";

/** What came of sending a batch. */
export interface Answered {
  /** 0 where no answer came. */
  readonly status: number;
  readonly events: readonly SessionEvent[];
}

/**
 * A recorder without a browser: taps, sends batches, and sends again whatever
 * was not confirmed. It knows all it ever tapped and all that was confirmed.
 */
export class Driver {
  readonly log: SessionEvent[] = [];
  readonly confirmed: SessionEvent[] = [];
  unconfirmed: SessionEvent[] = [];
  private readonly load = newId();

  constructor(
    private readonly url: string,
    private readonly store: string,
    private readonly session: string,
    readonly recorder: string,
  ) {}

  private keep(fact: Fact): void {
    const seq = this.log.length;
    const { session, recorder, load } = this;
    const event = eventOf({ id: newId(), session, recorder, load, seq, mono_ms: seq * 10 + 0.5, wall_ms: Date.now() }, fact);
    this.log.push(event);
    this.unconfirmed.push(event);
  }

  /** Makes taps; `text` makes each one as heavy as is wanted. */
  tap(count: number, text = ""): void {
    for (let i = 0; i < count; i++) this.keep({ type: "note", payload: { text: `tap ${this.log.length} of ${this.recorder} ${text}` } });
  }

  /** Makes taps of trials, so that something follows from them. */
  trial(count: number): void {
    const outcomes = ["met", "met", "try", "miss", "refused"] as const;
    for (let i = 0; i < count; i++) {
      const seq = this.log.length;
      this.keep({ type: "trial", payload: { outcome: outcomes[seq % outcomes.length] ?? "met", phase: 1 + (seq % 3) } });
    }
  }

  async send(most = 150, giveUpMs = 20_000): Promise<Answered> {
    const events = this.unconfirmed.slice(0, most);
    if (events.length === 0) return { status: 200, events };
    try {
      const response = await fetch(`${this.url}/api/events`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ store: this.store, recorder: this.recorder, clocks: {}, events }),
        signal: AbortSignal.timeout(giveUpMs),
      });
      await response.json();
      if (response.ok) {
        this.confirmed.push(...events);
        this.unconfirmed = this.unconfirmed.slice(events.length);
      }
      return { status: response.status, events };
    } catch {
      return { status: 0, events };
    }
  }

  /** Sends until nothing is left. */
  async sendAll(): Promise<void> {
    for (let tries = 0; this.unconfirmed.length > 0; tries++) {
      if (tries > 500) throw new Error(`${this.unconfirmed.length} taps are never taken.`);
      if ((await this.send()).status !== 200) await new Promise((resolve) => setTimeout(resolve, 50));
    }
  }
}

/** The events of a session as they stand in the file, whole. */
export const eventsOnDisk = (file: string, session: string): Promise<SessionEvent[]> =>
  withRaw(file, "read", async (database) => {
    const rows = await database.all<
      Omit<SessionEvent, "session" | "payload" | "part"> & { session_id: string; payload: string; part: string }
    >("SELECT id, session_id, recorder, load, seq, mono_ms, wall_ms, type, payload, part FROM event_log WHERE session_id = ?", [session]);
    return rows.map(
      ({ session_id, payload, part, ...row }) =>
        ({ ...row, session: session_id, payload: JSON.parse(payload), ...(part === "" ? {} : { part }) }) as SessionEvent,
    );
  });

/** What follows from events: their trials, as every screen and sum has them. */
const trialsOf = (events: readonly SessionEvent[]) => JSON.parse(JSON.stringify(reduceSession(events).trials)) as unknown[];

/**
 * Whether a store is sound after what was done to it: every page and index of
 * the file, and the trials that follow from what it holds against those that
 * follow from the drivers' own log.
 */
export async function soundAfter(file: string, session: string, log: readonly SessionEvent[]) {
  const [row] = await withRaw(file, "read", (database) => database.all<{ integrity_check: string }>("PRAGMA integrity_check"));
  const stored = trialsOf(await eventsOnDisk(file, session));
  const clean = trialsOf(log);
  return { integrity: row?.integrity_check, trials: clean.length, sameTrials: JSON.stringify(stored) === JSON.stringify(clean) };
}

/** What a comparison of what was tapped with what is stored finds: each event whole, not its id alone. */
export function compare(tapped: readonly SessionEvent[], stored: readonly SessionEvent[]) {
  const keyOf = ({ recorder, seq, load }: SessionEvent) => `${recorder} ${load} ${seq}`;
  const byKey = new Map<string, SessionEvent[]>();
  for (const event of stored) byKey.set(keyOf(event), [...(byKey.get(keyOf(event)) ?? []), event]);
  const whole = (event: SessionEvent) => JSON.stringify(Object.entries(event).sort(([a], [b]) => (a < b ? -1 : 1)));
  const found = { lost: 0, doubled: 0, altered: 0 };
  for (const event of tapped) {
    const there = byKey.get(keyOf(event)) ?? [];
    if (there.length === 0) found.lost++;
    else if (there.length > 1) found.doubled++;
    else if (whole(there[0] as SessionEvent) !== whole(event)) found.altered++;
  }
  return found;
}

export const NOTHING_FOUND = { lost: 0, doubled: 0, altered: 0 };
