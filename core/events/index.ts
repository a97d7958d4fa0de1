export { checkEvent, checkPayload, EVENT_TYPES, unknownKeys, wallClockPlausible, withIdsInOneCase } from "./event";
export { type EventType, eventOf, type Fact, type Payload, type SessionEvent } from "./fact";
export { PART_WORDS, PARTS, type Part } from "./parts";
export { EVENT_SCHEMA_VERSION, HEAT_REASONS, payloadSchemas } from "./payloads";
export { isWatch, isWork, SESSION_KINDS, type SessionKind, WORK_KINDS } from "./session-kind";
