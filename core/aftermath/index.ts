export { type Aftermath, type AftermathEntry, aftermathOf, givesLine, type SessionAftermath } from "./aftermath";
export { type LastTime, type LastTimeInput, lastTimeOn } from "./last-time";
