import { wrongChoiceCaution, wrongsAtWork } from "../conversation";
import { meetsPressure } from "../ladder";
import { type SessionRecord, signsWithin, workSeconds } from "../record";
import { DEFAULT_SETTINGS, type YardSettings } from "../settings";
import { dangerOfChoice, stopsWork } from "../signs";

/** What a session leaves behind on one rung of a ladder. */
export interface AftermathEntry {
  /** Null where it happened on no ladder. */
  readonly ladder: string | null;
  readonly version: number | null;
  readonly rung: number;
  /** `safety`: the line was given at once; `danger`: another sign of danger; `pain`: a sign of it; `wrong`: wrong choices that met pressure. */
  readonly kind: "safety" | "danger" | "pain" | "wrong";
  /** What it was, as it was tapped; of wrong choices how many. */
  readonly what: string;
}

/** What a session of work leaves for the next one, beside its trials. */
export interface Aftermath {
  /** Server wall clock of the start of work. */
  readonly startedMs: number;
  readonly minutes: number;
  /** Signs of tension at work. */
  readonly tension: number;
  readonly entries: readonly AftermathEntry[];
  /** Somebody fell or was hurt; left out where nobody was. */
  readonly hurt?: true;
}

/** The same with its session. */
export interface SessionAftermath extends Aftermath {
  readonly session: string;
}

type Packed = readonly [startedMs: number, minutes: number, tension: number, entries?: Aftermath["entries"], hurt?: 1];

/** As a short text, to be kept beside a session. @example readAftermath(packAftermath(aftermath)) // the same, minutes to a hundredth */
export function packAftermath({ startedMs, minutes, tension, entries, hurt }: Aftermath): string {
  const packed: Packed = [
    startedMs,
    Math.round(minutes * 100) / 100,
    tension,
    ...(entries.length > 0 || hurt ? [entries] : []),
    ...(hurt ? [1] : []),
  ] as unknown as Packed;
  return JSON.stringify(packed);
}

/** And back. @example unpackAftermath([1769422957811, 7, 0]) // { startedMs: 1769422957811, minutes: 7, tension: 0, … } */
export const unpackAftermath = ([startedMs, minutes, tension, entries = [], hurt]: Packed): Aftermath => ({
  startedMs,
  minutes,
  tension,
  entries,
  ...(hurt === 1 ? { hurt: true } : {}),
});
export type PackedAftermath = Packed;

/** Signs after which the line is given at once: never a reinforcement, and never the handler's fault. */
const GIVE_LINE: ReadonlySet<string> = new Set(["rears", "runs back", "pulls back", "falls", "leg in the line", "frantic"]);

/** Whether a sign means: give line at once. @example givesLine("rears") // true */
export const givesLine = (name: string): boolean => GIVE_LINE.has(name.trim().toLowerCase());

/**
 * What a session leaves for the next one: danger, pain and safety releases by
 * the rung they came on, wrong choices that met pressure, tension, and
 * whether somebody was hurt. A sign counts whenever it was tapped, also before
 * the first ask, on a break and after the last block.
 * @returns null before any work.
 * @example aftermathOf(record)?.entries // [{ ladder: "…", version: 1, rung: 3, kind: "safety", what: "pulls back" }]
 */
export function aftermathOf(record: SessionRecord, settings: YardSettings = DEFAULT_SETTINGS): Aftermath | null {
  const { startWallMs, facts, blocks } = record;
  if (startWallMs === null) return null;
  const blockAt = (ms: number) => blocks.findLast(({ startMs }) => startMs <= ms) ?? blocks[0];
  const entries: AftermathEntry[] = [];
  const add = (ms: number, kind: AftermathEntry["kind"], what: string) => {
    const block = blockAt(ms);
    const rung = Number(block?.rung);
    const on = block?.ladder != null && Number.isInteger(rung);
    const entry = { ladder: on ? block.ladder : null, version: on ? block.version : null, rung: on ? rung : 0, kind, what };
    const same = (one: AftermathEntry) => one.ladder === entry.ladder && one.rung === entry.rung && one.kind === kind && one.what === what;
    if (!entries.some(same)) entries.push(entry);
  };
  /** Asks that a danger sign ended: the line was given. */
  const given = new Set(record.trials.filter(({ safety }) => safety).map(({ endMs }) => endMs));
  let hurt = false;
  let last: { readonly ms: number; readonly name: string } | null = null;
  for (const fact of facts) {
    if (fact.type === "signal" && stopsWork(fact.payload.class)) {
      const { name, class: kind } = fact.payload;
      last = { ms: fact.ms, name };
      add(fact.ms, kind === "pain" ? "pain" : givesLine(name) || given.has(fact.ms) ? "safety" : "danger", name);
    }
    if (fact.type === "safety") {
      if (fact.payload.hurt !== undefined) hurt = true;
      if (fact.payload.release === true && last !== null) add(last.ms, "safety", last.name);
    }
  }
  const endMs = record.lastMs;
  const pressed = wrongsAtWork(record, null).filter(({ met, did }) => meetsPressure(met) && dangerOfChoice(did) === null);
  const caution = wrongChoiceCaution(record, null, settings);
  const lastWrong = pressed.at(-1);
  if (lastWrong !== undefined && (caution !== null || pressed.length >= settings.wrongRarerFrom))
    add(lastWrong.startMs, "wrong", String(pressed.length));
  return {
    startedMs: startWallMs,
    minutes: workSeconds(record) / 60,
    tension: signsWithin(record, "tension", endMs, (endMs + 1) / 1000),
    entries,
    ...(hurt ? { hurt } : {}),
  };
}
