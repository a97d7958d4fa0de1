export { checkEvent, checkPayload, EVENT_TYPES, unknownKeys, wallClockPlausible, withIdsInOneCase } from "./event";
export { type EventType, eventOf, type Fact, type Payload, type SessionEvent } from "./fact";
export { HEAT_REASONS } from "./heat-reasons";
export { PART_WORDS, PARTS, type Part } from "./parts";
export { EVENT_SCHEMA_VERSION, payloadSchemas } from "./payloads";
export {
  isWatch,
  isWork,
  kindFacts,
  kindsWhere,
  SESSION_KIND_FACTS,
  SESSION_KINDS,
  type SessionKind,
  type SessionKindFacts,
  WORK_KINDS,
  worksLadders,
} from "./session-kind";
