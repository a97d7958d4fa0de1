import type { Column } from "./column";

/** The columns of trials.csv, in the order they are written. */
export const TRIALS_COLUMNS = [
  { name: "session", type: "text", required: true },
  { name: "started_at", type: "time", required: true },
  { name: "horse", type: "text" },
  { name: "behaviour", type: "text", required: true },
  { name: "rung", type: "text", required: true },
  { name: "place", type: "text" },
  { name: "block", type: "integer", least: 1 },
  { name: "trial", type: "integer", least: 1, required: true },
  { name: "block_s", type: "number", above: 0 },
  { name: "kind", type: "choice", choices: ["warm-up", "work", "probe", "sure"] },
  { name: "t_s", type: "number", least: 0, required: true },
  { name: "side", type: "choice", choices: ["L", "R"] },
  { name: "phase", type: "integer", least: 1 },
  { name: "outcome", type: "choice", choices: ["met", "try", "miss", "refused"], required: true },
  { name: "wrong_before", type: "integer", least: 0 },
  { name: "latency_s", type: "number", least: 0 },
  { name: "waited_s", type: "number", least: 0 },
  { name: "release_lag_s", type: "number" },
  { name: "mark_lag_s", type: "number" },
  { name: "feed_delay_s", type: "number" },
  { name: "released", type: "choice", choices: ["0", "1"] },
  { name: "marked", type: "choice", choices: ["0", "1"] },
  { name: "reinforced", type: "choice", choices: ["0", "1"] },
  { name: "reinforcers", type: "integer", least: 0 },
  { name: "value", type: "number" },
  { name: "unit", type: "text" },
  { name: "ended_by", type: "choice", choices: ["criterion", "left", "handler"] },
  { name: "ease", type: "integer", least: 0, most: 4 },
  { name: "faults", type: "text" },
  { name: "logged", type: "choice", choices: ["tally", "timed", "film", "late"] },
  { name: "zone", type: "text" },
  { name: "note", type: "text" },
  { name: "movement", type: "integer", least: 0, most: 4 },
  { name: "handler", type: "text" },
] as const satisfies readonly Column[];

export type TrialsColumn = (typeof TRIALS_COLUMNS)[number]["name"];

/** The columns of sessions.csv. */
export const SESSIONS_COLUMNS = [
  { name: "session", type: "text", required: true },
  { name: "started_at", type: "time" },
  { name: "ended_at", type: "time" },
  { name: "horse", type: "text" },
  { name: "handler", type: "text" },
  { name: "place", type: "text" },
  { name: "work_s", type: "number", least: 0 },
  { name: "food_other", type: "integer", least: 0 },
  { name: "temp_c", type: "number" },
  { name: "humidity_pct", type: "number", least: 0, most: 100 },
  { name: "wind", type: "text" },
  { name: "note", type: "text" },
] as const satisfies readonly Column[];

export type SessionsColumn = (typeof SESSIONS_COLUMNS)[number]["name"];

/** The columns of events.csv. */
export const EVENTS_COLUMNS = [
  { name: "id", type: "text", required: true },
  { name: "session", type: "text", required: true },
  { name: "recorder", type: "text", required: true },
  { name: "load", type: "text", required: true },
  { name: "seq", type: "integer", least: 0, required: true },
  { name: "mono_ms", type: "number", least: 0, required: true },
  { name: "wall_ms", type: "number", required: true },
  { name: "t_s", type: "number" },
  { name: "type", type: "text", required: true },
  { name: "payload", type: "text", required: true },
  { name: "part", type: "text" },
] as const satisfies readonly Column[];
