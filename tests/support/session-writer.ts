import type { EventType, SessionEvent } from "@/core/schemas";

/** Makes v4-shaped UUIDs that are easy to read in a failing test. */
export const testId = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, "0")}`;

let counter = 0;

/** Writes events for tests: `at` is seconds on a shared clock. */
export class SessionWriter {
  readonly events: SessionEvent[] = [];
  private readonly seqs = new Map<string, number>();

  constructor(
    readonly session = testId(900_000),
    private readonly startWallMs = Date.UTC(2026, 4, 4, 9, 0, 0),
  ) {}

  /** Adds an event at `at` seconds; recorder and load may be chosen. Returns its id. */
  add(at: number, type: EventType, payload: Record<string, unknown> = {}, recorder = "phone:a", load = testId(1)): string {
    const id = testId(1_000_000 + counter++);
    const seq = this.seqs.get(load) ?? 0;
    this.seqs.set(load, seq + 1);
    const ms = Math.round(at * 1000);
    // A test may write what no schema would let through: what comes of it is what is asked.
    const envelope = { id, session: this.session, recorder, load, seq, mono_ms: 5000 + ms, wall_ms: this.startWallMs + ms };
    this.events.push({ ...envelope, type, payload } as SessionEvent);
    return id;
  }

  /** Opens a block with a criterion. */
  block(at: number, payload: Record<string, unknown> = {}): string {
    return this.add(at, "block.start", {
      block: 1,
      behaviour: "plate",
      ladder: "ladder-1",
      version: 1,
      rung: 1,
      criterion: { sentence: "Any answer." },
      side: "L",
      kind: "work",
      ...payload,
    });
  }
}
