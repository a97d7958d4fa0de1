import { isOneOf, keysOf } from "../typed";
import type { Past, PastSession, PastTrial } from "./past";

/** Which trials of a past are meant. What is left out narrows nothing; everything that is said holds at once. */
export interface PastFilter {
  /** Whose trials, where another horse's are meant. */
  readonly horse?: string;
  readonly ladder?: string;
  readonly version?: string;
  readonly rung?: string;
  readonly session?: string;
  /** Sessions whose work began on or after this time and before the other, milliseconds. */
  readonly from?: string;
  readonly to?: string;
  readonly block?: string;
  readonly side?: string;
  readonly outcome?: string;
  readonly kind?: string;
  readonly handler?: string;
  readonly place?: string;
  readonly kit?: string;
  readonly method?: string;
  /** `windy` (wind, gusts) or `calm` (still, breeze), as the look-over before work had it. */
  readonly wind?: string;
  /** The side its session began on. */
  readonly begins?: string;
  /** `new` in the first session on a rung, `known` after it. */
  readonly rungs?: string;
  /** What wrong choices of its session met. */
  readonly wrong?: string;
  readonly zone?: string;
  readonly logged?: string;
  /** `1` for met at the lightest cue, `timed` for those with a latency or a wait, and so on: what a measure leaves in. */
  readonly holds?: string;
}

export const FILTER_KEYS = [
  "horse",
  "ladder",
  "version",
  "rung",
  "session",
  "from",
  "to",
  "block",
  "side",
  "outcome",
  "kind",
  "handler",
  "place",
  "kit",
  "method",
  "wind",
  "begins",
  "rungs",
  "wrong",
  "zone",
  "logged",
  "holds",
] as const satisfies readonly (keyof PastFilter)[];

const LONGEST_VALUE = 200;
const WINDY = ["wind", "gusts"];
const CALM = ["still", "breeze"];

/** What a measure can ask of a trial before it goes in, by name. */
export const HOLDS = {
  phase: ({ outcome, phase }: PastTrial) => outcome === "met" && phase !== null,
  timed: ({ outcome, latencySeconds, waitedSeconds }: PastTrial) =>
    ((outcome === "met" || outcome === "try") && latencySeconds !== null) || waitedSeconds !== null || latencySeconds !== null,
  ease: ({ ease }: PastTrial) => ease !== null,
  stay: ({ endedBy, value, unit }: PastTrial) => endedBy !== null && value !== null && unit === "s",
  release: ({ releaseLagSeconds }: PastTrial) => releaseLagSeconds !== null,
  reinforced: ({ reinforced }: PastTrial) => reinforced === true,
  sides: ({ comparable, side, ladder }: PastTrial) => comparable && side !== null && ladder !== null,
} as const satisfies Readonly<Record<string, (trial: PastTrial) => boolean>>;

const CHECKS: Readonly<Record<keyof PastFilter, (value: string, trial: PastTrial, session: PastSession) => boolean>> = {
  horse: (value, _, { horse }) => horse === value,
  ladder: (value, { ladder }) => ladder === value,
  version: (value, { version }) => String(version) === value,
  rung: (value, { rung }) => String(rung) === value,
  session: (value, _, { id }) => id === value,
  from: (value, _, { startedMs }) => startedMs >= Number(value),
  to: (value, _, { startedMs }) => startedMs < Number(value),
  block: (value, { block }) => String(block) === value,
  side: (value, { side }) => (side ?? "none") === value,
  outcome: (value, { outcome }) => outcome === value,
  kind: (value, { kind }) => kind === value,
  handler: (value, { handler }) => handler === value,
  place: (value, _, { place }) => place === value,
  kit: (value, _, { kit }) => kit.includes(value),
  method: (value, _, { facts }) => facts.method === value,
  wind: (value, _, { facts }) => facts.wind !== null && (value === "windy" ? WINDY : CALM).includes(facts.wind),
  begins: (value, _, { facts }) => facts.firstSide === value,
  rungs: (value, { novel }) => (novel ? "new" : "known") === value,
  wrong: (value, _, { facts }) => facts.wrongMet.includes(value),
  zone: (value, { zone }) => zone === value,
  logged: (value, { logged }) => (logged ?? "unsaid") === value,
  holds: (value, trial) => (isOneOf(keysOf(HOLDS), value) ? HOLDS[value](trial) : false),
};

/**
 * The trials a filter means: the one place that says so, for a figure and for the list of what it rests on.
 * @example trialsFor(past, { rung: "3", side: "L" })
 */
export function trialsFor({ sessions, trials }: Past, filter: PastFilter): PastTrial[] {
  const asked = FILTER_KEYS.flatMap((key) => {
    const value = filter[key];
    return value === undefined ? [] : [[CHECKS[key], value] as const];
  });
  return trials.filter((trial) => {
    const session = sessions[trial.session];
    return session !== undefined && asked.every(([holds, value]) => holds(value, trial, session));
  });
}

/** A filter as it stands in an address. @example filterText({ rung: "3" }) // "rung=3" */
export function filterText(filter: PastFilter): string {
  return new URLSearchParams(FILTER_KEYS.flatMap((key) => (filter[key] === undefined ? [] : [[key, filter[key]]]))).toString();
}

/** And back: keys it does not know and values beyond all use are passed over. @example readFilter(text) // { rung: "3" } */
export function readFilter(text: string): PastFilter {
  const given = new URLSearchParams(text);
  return Object.fromEntries(
    FILTER_KEYS.flatMap((key) => {
      const value = given.get(key);
      return value === null || value === "" || value.length > LONGEST_VALUE ? [] : [[key, value]];
    }),
  );
}
