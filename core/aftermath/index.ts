export {
  type Aftermath,
  type AftermathEntry,
  aftermathOf,
  givesLine,
  type PackedAftermath,
  packAftermath,
  type SessionAftermath,
  unpackAftermath,
} from "./aftermath";
export { type LastTime, type LastTimeInput, lastTimeOn } from "./last-time";
