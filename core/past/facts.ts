import { type BlockTries, blockSeconds, endOfWorkMs, type SessionRecord, until } from "../record";

/** What happened at a moment: a sign by its class, a departure, a wrong choice, a zone entered, an ask made clearer. */
export type MomentKind = "ease" | "tension" | "danger" | "pain" | "count" | "left" | "wrong" | "zone" | "raised";

/** A moment of the work, milliseconds from its start. */
export type Moment = readonly [ms: number, kind: MomentKind, name: string];

/** A word that was said, and whether it was taken. */
export interface SaidWord {
  readonly ms: number;
  readonly word: string;
  readonly taken: boolean;
}

/** A block: its own working time in seconds, how many repetitions were planned, and which experiment it was worked for. */
export interface PastBlock {
  readonly seconds: number;
  readonly planned: number | null;
  readonly startMs: number;
  readonly endMs: number;
  readonly tries?: BlockTries;
}

/** What the views over weeks need of a session beside its trials: kept with it. Milliseconds from the start of work. */
export interface PastFacts {
  readonly method: string | null;
  readonly airC: number | null;
  readonly humidity: number | null;
  readonly wind: string | null;
  /** The side of the first trial that has one. */
  readonly firstSide: "L" | "R" | null;
  readonly blocks: readonly PastBlock[];
  readonly breaks: readonly (readonly [startMs: number, endMs: number])[];
  /** From each departure to its return, cut off at the end of work. */
  readonly away: readonly (readonly [startMs: number, endMs: number])[];
  readonly endMs: number;
  readonly moments: readonly Moment[];
  readonly words: readonly SaidWord[];
  /** What each wrong choice met, where that was said. */
  readonly wrongMet: readonly string[];
}

/** In order of time; by kind and name where two are at once. @example byTime([2000, "left", ""], [2000, "left", ""]) // 0 */
export const byTime = (a: Moment, b: Moment): number => a[0] - b[0] || compared(a[1], b[1]) || compared(a[2], b[2]);

const compared = (a: string, b: string) => (a < b ? -1 : Number(a > b));

/** A session that holds nothing. */
export const NO_FACTS: PastFacts = {
  method: null,
  airC: null,
  humidity: null,
  wind: null,
  firstSide: null,
  blocks: [],
  breaks: [],
  away: [],
  endMs: 0,
  moments: [],
  words: [],
  wrongMet: [],
};

/**
 * What the views over weeks need of a session beside its trials. Cost grows as n·log n with its facts.
 * @example pastFactsOf(record) // { method: "combined", airC: 3, humidity: 74, … }
 */
export function pastFactsOf(record: SessionRecord): PastFacts {
  const { timeLine, header } = record;
  const endMs = endOfWorkMs(record);
  const breaks = until(timeLine.breaks, endMs).map(({ startMs, endMs: to }) => [startMs, to] as const);
  const atWork = (ms: number) => ms >= 0 && ms <= endMs && !breaks.some(([from, to]) => from <= ms && ms < to);
  const moments: Moment[] = [];
  const words: SaidWord[] = [];
  let air: Pick<PastFacts, "airC" | "humidity" | "wind"> = { airC: null, humidity: null, wind: null };
  for (const fact of record.facts) {
    if (fact.type === "signal" && atWork(fact.ms)) moments.push([fact.ms, fact.payload.class, fact.payload.name]);
    if (fact.type === "word") {
      const { word, taken } = fact.payload;
      words.push({ ms: fact.ms, word, taken: taken === true });
    }
    if (fact.type === "preflight") {
      const { air_c, humidity, wind } = fact.payload;
      air = {
        airC: air_c ?? air.airC,
        humidity: humidity ?? air.humidity,
        wind: wind === undefined || wind === null || wind === "" ? air.wind : wind,
      };
    }
  }
  const away = until(timeLine.departures, endMs).filter(({ endMs: to }) => to >= 0);
  for (const { startMs, from } of away) if (atWork(startMs)) moments.push([startMs, "left", from ?? ""]);
  for (const { startMs, did } of timeLine.wrongs) if (atWork(startMs)) moments.push([startMs, "wrong", did ?? ""]);
  for (const { startMs, zone } of timeLine.zones) if (zone !== null && atWork(startMs)) moments.push([startMs, "zone", zone]);
  for (const { phaseSteps } of record.trials) for (const { ms } of phaseSteps.slice(1)) if (atWork(ms)) moments.push([ms, "raised", ""]);
  moments.sort(byTime);
  return {
    method: header?.method ?? null,
    ...air,
    firstSide: record.trials.find(({ side }) => side !== null)?.side ?? null,
    blocks: record.blocks.map(({ planned, startMs, endMs: to, tries }, i) => ({
      seconds: blockSeconds(record, i),
      planned,
      startMs,
      endMs: to ?? endMs,
      ...(tries === null ? {} : { tries }),
    })),
    breaks,
    away: away.map(({ startMs, endMs: to }) => [Math.max(0, startMs), to] as const),
    endMs,
    moments,
    words,
    wrongMet: timeLine.wrongs.flatMap(({ startMs, met }) => (met === null || !atWork(startMs) ? [] : [met])),
  };
}
