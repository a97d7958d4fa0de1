import type { SessionEvent } from "@/core/schemas";
import type { EventQueue } from "./queue";

/** Stands in where the browser keeps nothing: taps last as long as the page, and the page says so. */
export class MemoryQueue implements EventQueue {
  readonly durable = false;
  private readonly kept = new Map<string, { event: SessionEvent; standing: "waiting" | "saved" | "refused" }>();
  private readonly offsets = new Map<string, number>();

  async keep(events: readonly SessionEvent[]): Promise<void> {
    for (const event of events) this.kept.set(event.id, { event, standing: "waiting" });
  }

  private all(standing: string): SessionEvent[] {
    return [...this.kept.values()].filter((k) => k.standing === standing).map((k) => k.event);
  }

  async waiting(most: number): Promise<SessionEvent[]> {
    const waiting = this.all("waiting");
    return waiting.filter((event) => event.recorder === waiting[0]?.recorder).slice(0, most);
  }

  async countWaiting(): Promise<number> {
    return this.all("waiting").length;
  }

  async countRefused(): Promise<number> {
    return this.all("refused").length;
  }

  async settle(ids: readonly string[], standing: "saved" | "refused"): Promise<void> {
    for (const id of ids) {
      const kept = this.kept.get(id);
      if (kept !== undefined) kept.standing = standing;
    }
  }

  async ofSession(session: string): Promise<SessionEvent[]> {
    return [...this.kept.values()].map((k) => k.event).filter((event) => event.session === session);
  }

  async offset(load: string): Promise<number | null> {
    return this.offsets.get(load) ?? null;
  }

  async keepOffset(load: string, offsetMs: number): Promise<void> {
    this.offsets.set(load, offsetMs);
  }

  async prune(): Promise<void> {}
}
