import { type ToldShare, toldShare } from "../compare";
import type { SessionKind } from "../events/session-kind";
import { shareOfTrials } from "../evidence";
import { criterionOf, type LadderPlan } from "../ladder";
import { passedAfter } from "../mastery";
import { saidSoft } from "../record/evidence-scope";
import { counted } from "../words";
import { bySession, type Past, type PastTrial } from "./past";

/** A ladder as the month page reads it. */
export interface MonthLadder {
  readonly id: string;
  readonly name: string;
  readonly version: number;
  readonly plan: LadderPlan;
}

/** One behaviour at the end of a month. */
export interface MonthLine {
  readonly ladder: string;
  readonly name: string;
  readonly rungs: number;
  /** The highest rung its rule held on by then, in the time that was read; null where on none. */
  readonly held: number | null;
  /** The same before the month. */
  readonly heldBefore: number | null;
  /** What the held rung asks for; null where none is held. */
  readonly canDo: string | null;
  /** The highest rung worked in the month. */
  readonly worked: number;
  readonly lightestCue: string;
  readonly share: ToldShare;
  readonly sessions: number;
  readonly asks: number;
  readonly places: readonly string[];
  readonly handlers: readonly string[];
  /** Whether the held rung is worked on a line or free, in the plan's own words; null where the plan does not say. */
  readonly tether: string | null;
}

/**
 * Whether an answer was said to be soft, as a rule over days asks; nothing where nobody said.
 * @example softOf({ ease: 3, troubled: null }) // { soft: true }
 */
export function softOf(trial: Pick<PastTrial, "ease" | "troubled">): { readonly soft?: boolean } {
  const soft = saidSoft(trial);
  return soft === null ? {} : { soft };
}

/** The highest rung of a plan whose rule held on these trials. */
function heldRung({ id, version, plan }: MonthLadder, past: Past, trials: readonly PastTrial[]): number | null {
  let highest: number | null = null;
  for (let rung = 1; rung <= plan.rungs.length; rung++) {
    const own = trials.filter((trial) => trial.ladder === id && trial.version === version && trial.rung === rung && trial.kind === "work");
    const passed = passedAfter(
      plan.mastery,
      own.map((trial) => ({
        met: trial.outcome === "met",
        clean: trial.clean,
        ...softOf(trial),
        blockKey: `${trial.session} ${trial.block}`,
        wallMs: (past.sessions[trial.session]?.startedMs ?? 0) + trial.askMs,
      })),
    );
    if (passed !== null) highest = rung;
  }
  return highest;
}

/**
 * What a horse can do at the end of a month and what moved in it, behaviour by
 * behaviour: the highest rung on which the ladder's rule held.
 * @param past from some months before up to the month's end; older work is not looked at.
 * @param fromMs when the month began.
 * @example monthLines(past, Date.UTC(2026, 3, 1), ladders, names)[0]?.held // 4
 */
export function monthLines(past: Past, fromMs: number, ladders: readonly MonthLadder[], names: ReadonlyMap<string, string>): MonthLine[] {
  const startedMs = (trial: PastTrial) => past.sessions[trial.session]?.startedMs ?? 0;
  const before = past.trials.filter((trial) => startedMs(trial) < fromMs);
  const named = (ids: Iterable<string | null>) => [...new Set(ids)].flatMap((id) => (id === null ? [] : [names.get(id) ?? id]));
  return ladders.flatMap((ladder) => {
    const own = past.trials.filter((trial) => trial.ladder === ladder.id && startedMs(trial) >= fromMs);
    if (own.length === 0) return [];
    const { plan } = ladder;
    const held = heldRung(ladder, past, past.trials);
    const tether = plan.strands.find(({ key }) => key === "tether");
    const at = held === null ? undefined : plan.rungs[held - 1];
    return [
      {
        ladder: ladder.id,
        name: ladder.name,
        rungs: plan.rungs.length,
        held,
        heldBefore: heldRung(ladder, past, before),
        canDo: held === null ? null : criterionOf(plan, held).sentence,
        worked: Math.max(0, ...own.map(({ rung, kind }) => (kind === "work" ? (rung ?? 0) : 0))),
        lightestCue: plan.phases[0]?.label ?? "",
        // Under a rung's sentence stands what that rung came to, and not the whole ladder.
        share: toldShare(
          shareOfTrials(
            own
              .filter(({ rung, version, kind }) => held === null || (rung === held && version === ladder.version && kind === "work"))
              .map(({ session, outcome }) => ({ session: String(session), outcome })),
          ),
        ),
        sessions: new Set(own.map(({ session }) => session)).size,
        asks: own.length,
        places: named(own.map(({ session }) => past.sessions[session]?.place ?? null)),
        handlers: named(own.map(({ handler }) => handler)),
        tether: tether === undefined || at === undefined ? null : String(at.values[tether.id] ?? ""),
      },
    ];
  });
}

/**
 * What moved, in words; null where nothing did.
 * @example movedWords({ ...line, heldBefore: 2, held: 4, rungs: 9 }) // "up from rung 2 to 4 of 9"
 */
export function movedWords({ held, heldBefore, rungs }: MonthLine): string | null {
  if (held === heldBefore) return null;
  if (heldBefore === null) return `first rung held: ${held} of ${rungs}`;
  if (held === null) return null;
  return held > heldBefore ? `up from rung ${heldBefore} to ${held} of ${rungs}` : null;
}

/** What to mind of a month: danger signs, departures, days over what is usual. */
export interface MonthCautions {
  readonly danger: number;
  readonly left: number;
  readonly longestMinutes: number;
  readonly mostAsks: number;
}

/** What of a month is to be minded. @example monthCautions(past, Date.UTC(2026, 3, 1)).danger // 0 */
export function monthCautions(past: Past, fromMs: number): MonthCautions {
  const lists = bySession(past);
  const own = past.sessions.flatMap((session, i) => (session.startedMs < fromMs ? [] : [{ session, trials: lists[i] ?? [] }]));
  const count = (kind: string) => own.reduce((sum, { session }) => sum + session.facts.moments.filter(([, one]) => one === kind).length, 0);
  return {
    danger: count("danger"),
    left: count("left"),
    longestMinutes: Math.round(Math.max(0, ...own.map(({ session }) => session.workSeconds / 60))),
    mostAsks: Math.max(0, ...own.map(({ trials }) => trials.length)),
  };
}

/** Hours of one kind of session. */
export interface HoursOfKind {
  readonly kind: SessionKind;
  readonly sessions: number;
  readonly minutes: number;
}

/**
 * A month of a horse for whoever owns it, in the trainer's words: a beginning to be changed before it is sent.
 * @example ownerReport("Bo", "April 2026", lines, hours, cautions)
 */
export function ownerReport(
  horse: string,
  month: string,
  lines: readonly MonthLine[],
  hours: readonly HoursOfKind[],
  { danger }: MonthCautions,
): string {
  const minutes = hours.reduce((sum, one) => sum + one.minutes, 0);
  const sessions = hours.reduce((sum, one) => sum + one.sessions, 0);
  const said = lines.map((line) => {
    const moved = movedWords(line);
    const now = line.canDo === null ? `is being learned, at step ${line.worked} of ${line.rungs}` : line.canDo.replace(/\.$/, "");
    const where =
      line.places.length === 0
        ? ""
        : ` Worked at ${line.places.join(", ")}${line.handlers.length === 0 ? "" : ` with ${line.handlers.join(", ")}`}.`;
    return `${line.name}: ${now}.${moved === null ? "" : ` This month ${moved}.`}${where}`;
  });
  return [
    `${horse}, ${month}`,
    `${counted(sessions, "session")}, ${Math.round(minutes)} minutes in all.`,
    ...said,
    ...(danger === 0 ? [] : [`${counted(danger, "danger sign")} seen.`]),
  ].join("\n\n");
}
