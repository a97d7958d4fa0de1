import type { EventType, Payload, SessionEvent } from "@/core/schemas";

/** What the events of a type carry, in order. */
export const payloadsOf = <Type extends EventType>(events: readonly SessionEvent[], type: Type): Payload<Type>[] =>
  events.filter((event) => event.type === type).map(({ payload }) => payload as Payload<Type>);
