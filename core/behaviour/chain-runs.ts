import { medianOf, type SurvivalCurve, survival } from "../evidence";
import { endOfWorkMs, type SessionRecord, type TimedFact } from "../record";
import type { ChainDirection } from "./chain";

/** One run of a whole chain. Seconds of working time. */
export interface ChainRun {
  readonly chain: string;
  readonly name: string;
  readonly direction: ChainDirection;
  /** Names of its links in the order they are asked. */
  readonly links: readonly string[];
  /** The link it began on, from 1: a backward chain is run from a later one while it is being built. */
  readonly from: number;
  /** Seconds each link took, from the one it began on: from the link before, or the beginning, to its being reached. */
  readonly linkSeconds: readonly number[];
  /** The link it broke on, from 1; null where it did not. */
  readonly broke: number | null;
  readonly reason: string | null;
  /** What was done at the break. */
  readonly did: string | null;
  /** Whether every link was reached. */
  readonly whole: boolean;
  readonly wallMs: number;
}

interface OpenRun extends Omit<ChainRun, "linkSeconds" | "broke" | "reason" | "did" | "whole"> {
  readonly eventId: string;
  readonly atMs: number[];
}

const text = (value: string | undefined) => (value === undefined || value === "" ? null : value);

function closed(run: OpenRun, end: TimedFact<"run.end"> | null): ChainRun {
  const { eventId: _eventId, atMs, ...facts } = run;
  const reached = atMs.length - 1;
  const whole = run.from + reached > run.links.length;
  const broke = whole || end === null || end.payload.stopped === true ? null : (end.payload.link ?? run.from + reached);
  return {
    ...facts,
    linkSeconds: atMs.slice(1).map((ms, i) => (ms - (atMs[i] ?? ms)) / 1000),
    broke,
    reason: broke === null ? null : text(end?.payload.reason),
    did: broke === null ? null : text(end?.payload.did),
    whole,
  };
}

/** A run that goes on, with the link that is asked now. */
export interface RunningChain {
  readonly eventId: string;
  readonly chain: string;
  readonly name: string;
  readonly links: readonly string[];
  /** From 1. */
  readonly link: number;
  /** When the link before was reached, or the run began. */
  readonly sinceMs: number;
}

/**
 * The runs of a session. A link counts as reached in its order only: one press
 * each. A run ends whole with its last link, at its break, or where another
 * begins or the session ends, which is no break.
 * @example chainRunsOf(record) // { running: null, … }
 */
export function chainRunsOf(record: SessionRecord): { readonly runs: readonly ChainRun[]; readonly running: RunningChain | null } {
  const start = record.startWallMs ?? 0;
  const runs: ChainRun[] = [];
  let open: OpenRun | null = null;
  const end = (fact: TimedFact<"run.end"> | null) => {
    if (open !== null) runs.push(closed(open, fact));
    open = null;
  };
  for (const fact of record.facts) {
    if (fact.type === "run.start") {
      end(null);
      const { chain, name, direction = "forward", links, from = 1 } = fact.payload;
      open = {
        eventId: fact.id,
        chain,
        name: name ?? "",
        direction,
        links,
        from: Math.min(from, links.length),
        atMs: [fact.ms],
        wallMs: start + fact.ms,
      };
    } else if (fact.type === "link" && open !== null) {
      const run: OpenRun = open;
      if (fact.payload.link !== run.from + run.atMs.length - 1) continue;
      run.atMs.push(fact.ms);
      if (run.from + run.atMs.length - 1 > run.links.length) end(null);
    } else if (fact.type === "run.end") end(fact);
    else if (fact.type === "session.end") end(null);
  }
  // Assigned in the loop, which the narrowing of a closure's variable does not see.
  const left = open as OpenRun | null;
  if (left === null || record.finishMs !== null || endOfWorkMs(record) < (left.atMs.at(-1) ?? 0)) return { runs, running: null };
  const { eventId, chain, name, links, from, atMs } = left;
  return { runs, running: { eventId, chain, name, links, link: from + atMs.length - 1, sinceMs: atMs.at(-1) ?? 0 } };
}

/** One link over the runs. */
export interface LinkInRuns {
  readonly name: string;
  /** Runs that came to it, and of those how many broke on it. */
  readonly came: number;
  readonly broke: number;
  /** Share of runs that get past it, by the product-limit estimate; null where none came to it. */
  readonly past: number | null;
  /** Middle of the seconds it took where it was reached; null where it never was. */
  readonly medianSeconds: number | null;
}

/** What the runs of a chain come to. */
export interface RunsOfChain {
  readonly runs: number;
  readonly whole: number;
  readonly links: readonly LinkInRuns[];
  /** Runs still whole after each link; time is the link's number. */
  readonly curve: SurvivalCurve;
  /** Place of the link most of those that came to it broke on, from 0; null where nothing tells. */
  readonly weakest: number | null;
  readonly sentence: string;
}

/** Runs that must have come to a link before it is called weak. */
const FEWEST_RUNS = 5;

/**
 * Sums the runs of a chain up. Only runs of the same links count together: a
 * chain whose links were changed begins anew. A run from a later link came to
 * none of those before it.
 * @param links names of the chain's links as it is now.
 * @example runsOfChain([], ["to the ramp", "one foot", "in", "waits"]) // { runs: 0, whole: 0, weakest: null, … }
 */
export function runsOfChain(all: readonly ChainRun[], links: readonly string[]): RunsOfChain {
  const runs = all.filter((run) => run.links.length === links.length && run.links.every((name, i) => name === links[i]));
  const whole = runs.filter((run) => run.whole).length;
  // Runs from the first link: a curve over all links has one beginning.
  const full = runs.filter(({ from }) => from === 1);
  const curve = survival(
    full.map(({ broke, linkSeconds }) =>
      broke === null ? { seconds: linkSeconds.length, answered: false } : { seconds: broke, answered: true },
    ),
  );
  const perLink = links.map((name, i): LinkInRuns => {
    const link = i + 1;
    const came = runs.filter(({ from, linkSeconds, broke }) => from <= link && (broke === link || from + linkSeconds.length - 1 >= link));
    const broke = came.filter((run) => run.broke === link).length;
    return {
      name,
      came: came.length,
      broke,
      past: full.length === 0 ? null : (curve.steps.findLast(([at]) => at <= link)?.[1] ?? 1),
      medianSeconds: medianOf(came.flatMap(({ from, linkSeconds }) => linkSeconds[link - from] ?? [])),
    };
  });
  const known = [...perLink.keys()].filter((i) => (perLink[i]?.came ?? 0) >= FEWEST_RUNS && (perLink[i]?.broke ?? 0) > 0);
  const share = (i: number) => (perLink[i]?.broke ?? 0) / (perLink[i]?.came ?? 1);
  const weakest = known.sort((a, b) => share(b) - share(a))[0] ?? null;
  const weak = weakest === null ? undefined : perLink[weakest];
  const sentence =
    runs.length === 0
      ? "Not run as a whole yet."
      : weak === undefined
        ? `${whole} of ${runs.length} runs whole; ${runs.length < FEWEST_RUNS || whole < runs.length ? "too few to name a weak link" : "no run broke"}.`
        : `${whole} of ${runs.length} runs whole. Most breaks for those who came to it: ${weak.name}, ${weak.broke} of ${weak.came}.`;
  return { runs: runs.length, whole, links: perLink, curve, weakest, sentence };
}
