import type { Chance } from "@/core/chance";
import type { EventType, Payload, SessionEvent } from "@/core/schemas";

/** A UUID drawn from seeded chance, so that the same seed makes the same yard. */
export function drawUuid(chance: Chance): string {
  const hex = Array.from({ length: 32 }, () => Math.floor(chance() * 16).toString(16));
  hex[12] = "4";
  hex[16] = (8 + Math.floor(chance() * 4)).toString(16);
  const text = hex.join("");
  return `${text.slice(0, 8)}-${text.slice(8, 12)}-${text.slice(12, 16)}-${text.slice(16, 20)}-${text.slice(20)}`;
}

/** Writes the events of one session as a recorder would, with a clock that is moved by hand. */
export class EventLog {
  readonly events: SessionEvent[] = [];
  private readonly load: string;
  private ms = 0;

  constructor(
    readonly session: string,
    private readonly recorder: string,
    private readonly startWallMs: number,
    private readonly chance: Chance,
  ) {
    this.load = drawUuid(chance);
  }

  wait(seconds: number): void {
    this.ms += Math.max(0, Math.round(seconds * 1000));
  }

  get seconds(): number {
    return this.ms / 1000;
  }

  get wallMs(): number {
    return this.startWallMs + this.ms;
  }

  add<Type extends EventType>(type: Type, payload = {} as Payload<Type>): string {
    const id = drawUuid(this.chance);
    this.events.push({
      id,
      session: this.session,
      recorder: this.recorder,
      load: this.load,
      seq: this.events.length,
      mono_ms: 1000 + this.ms,
      wall_ms: this.startWallMs + this.ms,
      type,
      payload,
    } as SessionEvent);
    return id;
  }
}
