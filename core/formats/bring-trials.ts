import { dayBeginsIn, dayIn, isDay } from "../day";
import { checkPayload } from "../events";
import type { Outcome } from "../evidence";
import { type Column, cellProblem, parseIsoTime, type RefusedRow } from "./column";
import type { CsvRecord } from "./csv";
import { unguardText } from "./text-cell";
import { TRIALS_COLUMNS, type TrialsColumn } from "./trials-columns";

/** Which column of a file is which of ours, and what its words for an answer mean. */
export interface TrialsMapping {
  readonly columns: Readonly<Partial<Record<TrialsColumn, string>>>;
  /** Words of the file for an answer, in small letters, where they are not our own. */
  readonly outcomes: Readonly<Record<string, Outcome>>;
}

/** Columns a file must have in one way or another; the others can be done without. */
export const NEEDED_COLUMNS: readonly TrialsColumn[] = ["started_at", "behaviour", "outcome"];

/** Other names by which a spreadsheet may call a column, in small letters. */
const ALSO: Readonly<Partial<Record<TrialsColumn, readonly string[]>>> = {
  session: ["session id", "visit"],
  started_at: ["date", "day", "started", "start", "date and time", "datetime"],
  behaviour: ["behavior", "exercise", "task", "skill"],
  rung: ["step", "level", "criterion", "stage"],
  trial: ["trial number", "ask", "no", "nr", "#"],
  t_s: ["time", "seconds", "t"],
  side: ["left/right", "hand", "rein"],
  phase: ["cue", "pressure", "ask level"],
  outcome: ["result", "answer", "response", "correct", "success"],
  latency_s: ["latency", "reaction time", "seconds to answer"],
  ease: ["calm", "relaxation"],
  handler: ["trainer", "person", "who"],
  place: ["where", "arena", "location"],
  note: ["notes", "comment", "remarks"],
  horse: ["animal", "name"],
};

const OUTCOME_WORDS: Readonly<Record<string, Outcome>> = {
  met: "met",
  yes: "met",
  y: "met",
  "1": "met",
  true: "met",
  correct: "met",
  good: "met",
  try: "try",
  partly: "try",
  miss: "miss",
  no: "miss",
  n: "miss",
  "0": "miss",
  false: "miss",
  wrong: "miss",
  incorrect: "miss",
  refused: "refused",
  none: "refused",
  "no answer": "refused",
};

/** A cell as it stands, for a message. */
const shownCell = (cell: string): string => `“${cell.slice(0, 40)}”`;

const plain = (name: string) =>
  name
    .trim()
    .toLowerCase()
    .replaceAll(/[_\s]+/g, " ");

/**
 * What the columns of a file most likely are: our own names first, then what spreadsheets call them.
 * @example guessMapping(["horse", "outcome"]).columns // { horse: "horse", outcome: "outcome" }
 */
export function guessMapping(header: readonly string[], remembered?: TrialsMapping): TrialsMapping {
  const columns: Partial<Record<TrialsColumn, string>> = {};
  const taken = new Set<string>();
  for (const { name } of TRIALS_COLUMNS) {
    const kept = remembered?.columns[name];
    const found =
      (kept !== undefined && header.includes(kept) ? kept : undefined) ??
      header.find((cell) => plain(cell) === plain(name)) ??
      header.find((cell) => ALSO[name]?.includes(plain(cell)) === true && !taken.has(cell));
    if (found === undefined || taken.has(found)) continue;
    columns[name] = found;
    taken.add(found);
  }
  return { columns, outcomes: remembered?.outcomes ?? {} };
}

/**
 * What a word for an answer means; undefined where nobody said.
 * @example outcomeOf("Ja", { columns: {}, outcomes: { ja: "met" } }) // "met"
 */
export function outcomeOf(word: string, mapping: TrialsMapping): Outcome | undefined {
  const said = word.trim().toLowerCase();
  // By own keys alone: every object has a constructor.
  return [mapping.outcomes, OUTCOME_WORDS].find((words) => Object.hasOwn(words, said))?.[said];
}

/** A trial as it is brought into a store. */
export interface BroughtTrial {
  readonly session: string;
  readonly startedMs: number;
  readonly horse: string;
  readonly behaviour: string;
  readonly rung: string;
  readonly place: string;
  readonly handler: string;
  readonly block: number | null;
  readonly kind: "warm-up" | "work" | "probe" | "sure" | null;
  readonly side: "L" | "R" | "";
  readonly trial: number;
  readonly seconds: number;
  /** What its event carries. */
  readonly payload: Readonly<Record<string, string | number>>;
}

const SIDES: Readonly<Record<string, "L" | "R">> = { l: "L", left: "L", r: "R", right: "R" };
const NUMBERS: readonly TrialsColumn[] = [
  "phase",
  "wrong_before",
  "latency_s",
  "waited_s",
  "release_lag_s",
  "mark_lag_s",
  "feed_delay_s",
  "released",
  "marked",
  "reinforced",
  "reinforcers",
  "value",
  "ease",
  "movement",
];
const NUMBER_COLUMNS: readonly (readonly [TrialsColumn, Column])[] = NUMBERS.map((name) => [
  name,
  TRIALS_COLUMNS.find((column) => column.name === name) as Column,
]);
const TEXTS: readonly TrialsColumn[] = ["unit", "ended_by", "faults", "zone", "note"];
const LONGEST: Readonly<Partial<Record<TrialsColumn, number>>> = { note: 4000, faults: 4000 };
const SECONDS_APART = 10;
/** Rows with times of their own are of one visit while no more than this lies between two of them. */
const SAME_VISIT_MS = 60 * 60_000;

/** Rows that belong together, as far as they were read. */
interface Visit {
  readonly key: string;
  readonly firstMs: number;
  lastMs: number;
  lastSeconds: number;
  counted: number;
  /** Trials with numbers of their own: all up to the first, and those beyond it. */
  upTo: number;
  readonly beyond: Set<number>;
}

/** Whether a number stood in this visit already; it does from now on. */
function stoodBefore(visit: Visit, trial: number): boolean {
  if (trial <= visit.upTo || visit.beyond.has(trial)) return true;
  visit.beyond.add(trial);
  while (visit.beyond.delete(visit.upTo + 1)) visit.upTo++;
  return false;
}

const hasTime = (cell: string): boolean => /\d:\d\d/.test(cell);

/** A day or a time, in the yard's own zone where it does not say. */
function momentOf(cell: string, timeZone: string): number | null {
  const text = cell.trim();
  const own = parseIsoTime(text);
  if (own !== null) return own;
  if (isDay(text)) return dayBeginsIn(text, timeZone) + 12 * 3_600_000;
  const [, day, hours, minutes, seconds] = /^(\d{4}-\d{2}-\d{2})[ T](\d{1,2}):(\d{2})(?::(\d{2}(?:\.\d+)?))?$/.exec(text) ?? [];
  if (day === undefined || !isDay(day)) return null;
  return dayBeginsIn(day, timeZone) + (Number(hours) * 3600 + Number(minutes) * 60 + Number(seconds ?? 0)) * 1000;
}

/**
 * Reads trials of a file whose columns were said to be ours. What a file lacks
 * is made up where that says nothing false: trials counted, times ten seconds
 * apart and marked as from memory. Sessions are cut by their own times: rows
 * of one horse with another start are another session; where each row has a
 * time of its own, an hour without a row ends a visit; where there is no time
 * at all, the day is the session.
 */
export class TrialsReader {
  private readonly at: Readonly<Partial<Record<TrialsColumn, number>>>;
  /** By horse and what stands for their session, the visits so far; the newest last. */
  private readonly visits = new Map<string, Visit[]>();
  /** What of numbers and texts the file has. */
  private readonly numbers: typeof NUMBER_COLUMNS;
  private readonly texts: readonly TrialsColumn[];
  /** Rows of one session mostly say the same time. */
  private lastVisit: { session: string; horse: string; startedMs: number; visit: Visit } | null = null;
  private lastMoment: readonly [cell: string, ms: number | null] = ["", null];

  constructor(
    header: readonly string[],
    private readonly mapping: TrialsMapping,
    private readonly timeZone: string,
  ) {
    this.at = Object.fromEntries(
      TRIALS_COLUMNS.flatMap(({ name }) => {
        const of = mapping.columns[name];
        const place = of === undefined ? -1 : header.indexOf(of);
        return place < 0 ? [] : [[name, place]];
      }),
    );
    this.numbers = NUMBER_COLUMNS.filter(([name]) => this.at[name] !== undefined);
    this.texts = TEXTS.filter((name) => this.at[name] !== undefined);
  }

  /** Columns that are needed and were given none. */
  get missing(): readonly TrialsColumn[] {
    return NEEDED_COLUMNS.filter((name) => this.at[name] === undefined);
  }

  read({ cells, line, malformed }: CsvRecord): BroughtTrial | RefusedRow {
    const refused = (column: string, reason: string): RefusedRow => ({ line, column, reason });
    if (malformed) return refused("", "a quoted cell is not closed");
    const cell = (name: TrialsColumn) => {
      const place = this.at[name];
      return place === undefined ? "" : unguardText((cells[place] ?? "").trim());
    };
    const started = cell("started_at");
    if (started !== this.lastMoment[0]) this.lastMoment = [started, momentOf(started, this.timeZone)];
    const startedMs = this.lastMoment[1];
    if (startedMs === null) return refused("started_at", `${shownCell(started)} is no day or time: 2026-03-01 or 2026-03-01 10:30`);
    const timeCell = cell("t_s").replace(",", ".");
    const horse = cell("horse").slice(0, 80);
    const visit = this.visitOf(cell("session").slice(0, 150), horse, started, startedMs, timeCell !== "");
    // Rows that are refused are counted too, so that each keeps its number when the file is brought in again.
    const counted = ++visit.counted;
    const behaviour = cell("behaviour");
    if (behaviour === "" || behaviour.length > 200) return refused("behaviour", behaviour === "" ? "is empty" : "is too long");
    const outcome = outcomeOf(cell("outcome"), this.mapping);
    if (outcome === undefined) return refused("outcome", `“${cell("outcome").slice(0, 40)}” is no answer that was said`);
    const payload: Record<string, string | number> = { outcome };
    for (const [name, column] of this.numbers) {
      const text = cell(name).replace(",", ".");
      if (text === "") continue;
      const wrong = cellProblem(column, text);
      if (wrong !== null) return refused(name, `${shownCell(cell(name))} ${wrong}`);
      payload[name] = Number(text);
    }
    for (const name of this.texts) {
      const text = cell(name);
      if (text === "") continue;
      if (text.length > (LONGEST[name] ?? 200)) return refused(name, "is too long");
      if (name === "ended_by" && !["criterion", "left", "handler"].includes(text))
        return refused(name, `${shownCell(text)} is none of criterion, left, handler`);
      payload[name] = text;
    }
    const sideCell = cell("side").toLowerCase();
    const side = sideCell === "" ? "" : Object.hasOwn(SIDES, sideCell) ? SIDES[sideCell] : undefined;
    if (side === undefined) return refused("side", `${shownCell(cell("side"))} is neither left nor right`);
    if (side !== "") payload.side = side;
    const given = cell("trial");
    const trial = given === "" ? counted : Number(given);
    if (!Number.isInteger(trial) || trial < 1 || trial > 1e9) return refused("trial", `${shownCell(given)} is no whole number from 1`);
    // Where nothing says when: by the row's own time, or ten seconds after the one before.
    const own =
      startedMs === visit.lastMs
        ? visit.lastSeconds + SECONDS_APART
        : Math.max((startedMs - visit.firstMs) / 1000 + SECONDS_APART, visit.lastSeconds + 1);
    const seconds = timeCell === "" ? own : Number(timeCell);
    if (!(seconds >= 0) || seconds > 86_400) return refused("t_s", `${shownCell(timeCell)} is no time within a session, in seconds`);
    if (given !== "" && stoodBefore(visit, trial)) return refused("trial", `${shownCell(given)} stands in this session already`);
    visit.lastSeconds = Math.max(visit.lastSeconds, seconds);
    visit.lastMs = Math.max(visit.lastMs, startedMs);
    const logged = cell("logged");
    if (timeCell === "") payload.logged = "late";
    else if (["tally", "timed", "film", "late"].includes(logged)) payload.logged = logged;
    const block = cell("block") === "" ? null : Number(cell("block"));
    if (block !== null && !(Number.isInteger(block) && block >= 1 && block <= 10_000))
      return refused("block", `${shownCell(cell("block"))} is no whole number from 1`);
    const kind = cell("kind");
    if (kind !== "" && !["warm-up", "work", "probe", "sure"].includes(kind))
      return refused("kind", `${shownCell(kind)} is none of warm-up, work, probe, sure`);
    // By the same check as a tap: nothing comes in by a table that a recorder could not have logged.
    const checked = checkPayload("trial", payload);
    if (!checked.ok)
      return refused(checked.problems[0]?.path.replace(/^payload\.?/, "") ?? "", checked.problems[0]?.message ?? "does not fit");
    return {
      session: visit.key,
      startedMs: visit.firstMs,
      horse,
      behaviour,
      rung: (cell("rung") || "1").slice(0, 200),
      place: cell("place").slice(0, 80),
      handler: cell("handler").slice(0, 80),
      block,
      kind: kind === "" ? null : (kind as BroughtTrial["kind"]),
      side,
      trial,
      seconds,
      payload,
    };
  }

  /** Which visit a row belongs to; a new one where none fits. */
  private visitOf(session: string, horse: string, started: string, startedMs: number, timed: boolean): Visit {
    const last = this.lastVisit;
    if (last !== null && last.startedMs === startedMs && last.session === session && last.horse === horse) return last.visit;
    const visit = this.foundVisit(session, horse, started, startedMs, timed);
    this.lastVisit = { session, horse, startedMs, visit };
    return visit;
  }

  private foundVisit(session: string, horse: string, started: string, startedMs: number, timed: boolean): Visit {
    const day = dayIn(startedMs, this.timeZone);
    const key = session === "" ? `${day} ${horse}`.trim() : session;
    const of = `${session === "" ? day : session} of ${horse.toLowerCase()}`;
    const visits = this.visits.get(of) ?? [];
    const fits = (visit: Visit) =>
      visit.firstMs === startedMs ||
      (!timed && hasTime(started) && Math.abs(startedMs - visit.lastMs) <= SAME_VISIT_MS && visit.lastMs >= visit.firstMs);
    const found = visits.findLast(fits);
    if (found !== undefined) return found;
    const visit: Visit = {
      // The first of a day, or of a session's own name, is known by that alone: files brought in before are known again.
      key: visits.length === 0 ? key : `${key} ${new Date(startedMs).toISOString().slice(0, 19)}`,
      firstMs: startedMs,
      lastMs: startedMs,
      lastSeconds: 0,
      counted: 0,
      upTo: 0,
      beyond: new Set(),
    };
    visits.push(visit);
    this.visits.set(of, visits);
    return visit;
  }
}
