export { checkEvent, checkPayload, EVENT_TYPES, unknownKeys, wallClockPlausible, withIdsInOneCase } from "./event";
export { type EventType, eventOf, type Fact, PART_WORDS, PARTS, type Part, type Payload, type SessionEvent } from "./fact";
export { EVENT_SCHEMA_VERSION, payloadSchemas } from "./payloads";
