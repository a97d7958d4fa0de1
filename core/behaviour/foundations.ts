import { type GraphNode, restsOn } from "./graph";
import type { Prerequisite } from "./prerequisite";
import {
  type PrerequisiteReadiness,
  prerequisiteReadiness,
  type ReadinessState,
  type ReadinessTime,
  readinessWarning,
  type WorkedLadder,
} from "./readiness";

/** A behaviour as it is known of a horse or of the library: what it is called and what it rests on. */
export interface KnownBehaviour {
  /** Its key in the library, or its own name. */
  readonly key: string;
  readonly name: string;
  /** The horse's ladder for it, or null where it has none. */
  readonly ladderId: string | null;
  readonly prerequisites: readonly Prerequisite[];
}

/** One behaviour of the graph that is drawn. */
export interface GraphPart {
  readonly key: string;
  readonly name: string;
  readonly ladderId: string | null;
  readonly state: ReadinessState | "this";
  readonly needs: readonly string[];
}

export interface Foundations {
  readonly readiness: readonly PrerequisiteReadiness[];
  /** What is skipped, in one sentence, or null. */
  readonly warning: string | null;
  /** The behaviour with all it rests on, near and far; the behaviour alone where it rests on nothing. */
  readonly graph: readonly GraphPart[];
}

/**
 * What rests on what: the horse's own behaviours, and the library where it has none of that key.
 * @example graphOf([{ key: "leads", prerequisites: [] }], library) // [{ key: "leads", needs: [] }, …]
 */
export function graphOf(own: readonly KnownBehaviour[], library: readonly KnownBehaviour[]): GraphNode[] {
  const known = new Map([...library, ...own].map((one) => [one.key, one]));
  return [...known.values()].map(({ key, prerequisites }) => ({ key, needs: prerequisites.map(({ behaviour }) => behaviour) }));
}

/**
 * The keys of everything a behaviour rests on, near and far, itself too.
 * @example behavioursUnder(trotsInHand, own, library) // Set { "trots", "leads", "gives" }
 */
export const behavioursUnder = (
  behaviour: KnownBehaviour,
  own: readonly KnownBehaviour[],
  library: readonly KnownBehaviour[],
): ReadonlySet<string> => restsOn(graphOf([...own, behaviour], library), behaviour.key);

/**
 * What a behaviour rests on, and what the numbers say of each. A behaviour
 * further down is judged by what the nearest one wants of it.
 * @param worked the horse's ladders for what it rests on, by key; see {@link behavioursUnder}.
 * @param known what else is known of the horse, asked where no ladder shows it: the body map, the first look.
 * @example foundationsOf(behaviour, own, library, worked, time).filter(({ ready }) => !ready)
 */
export function foundationsOf(
  behaviour: KnownBehaviour,
  own: readonly KnownBehaviour[],
  library: readonly KnownBehaviour[],
  worked: ReadonlyMap<string, WorkedLadder>,
  time: ReadinessTime,
  known: (need: Prerequisite, name: string) => PrerequisiteReadiness | null = () => null,
): Foundations {
  const nodes = graphOf([...own, behaviour], library);
  const all = restsOn(nodes, behaviour.key);
  const ownOf = (key: string) => own.find((one) => one.key === key);
  const nameOf = (key: string) => ownOf(key)?.name ?? library.find((one) => one.key === key)?.name ?? key;
  const check = (need: Prerequisite) => {
    const name = nameOf(need.behaviour);
    const found = prerequisiteReadiness(need, name, worked.get(need.behaviour) ?? null, time);
    return found.state === "unknown" ? (known(need, name) ?? found) : found;
  };
  const wanted = new Map<string, Prerequisite[]>();
  for (const key of all) {
    const one = key === behaviour.key ? behaviour : (ownOf(key) ?? library.find((other) => other.key === key));
    for (const need of one?.prerequisites ?? []) wanted.set(need.behaviour, [...(wanted.get(need.behaviour) ?? []), need]);
  }
  const stateOf = (key: string): GraphPart["state"] => {
    const states = (wanted.get(key) ?? []).map((need) => check(need).state);
    return (["not-yet", "unknown", "stale", "seen"] as const).find((state) => states.includes(state)) ?? "shown";
  };
  const readiness = behaviour.prerequisites.map(check);
  return {
    readiness,
    warning: readinessWarning(readiness),
    graph: [...all].map((key) => ({
      key,
      name: key === behaviour.key ? behaviour.name : nameOf(key),
      ladderId: ownOf(key)?.ladderId ?? null,
      state: key === behaviour.key ? "this" : stateOf(key),
      needs: nodes.find((node) => node.key === key)?.needs.filter((need) => all.has(need)) ?? [],
    })),
  };
}
