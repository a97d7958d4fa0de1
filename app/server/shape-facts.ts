import "server-only";
import {
  findCycle,
  type GraphNode,
  type Prerequisite,
  type PrerequisiteReadiness,
  prerequisiteReadiness,
  readinessWarning,
  restsOn,
  type WorkedLadder,
} from "@/core/behaviour";
import { type CueOfBehaviour, type TransferProgress, transferProgress } from "@/core/cues";
import type { LadderPlan } from "@/core/ladder";
import type { BehaviourInput } from "@/core/schemas";
import type { EvidenceTrial } from "@/core/session";
import { criterionSentence, type Strand, type StrandValue } from "@/core/strands";
import type { EditorSurroundings } from "@/features/shape/editor/settings-part";
import { LIBRARY, templateOf } from "@/library";
import { asBehaviour, evidenceOfLadder, listLadders, type Store, type StoredLadder } from "@/store";
import { FieldsRefused } from "./problem-of";

/** What a behaviour is known by among the others: its key in the library, or its own name. */
export const behaviourKey = ({ template, name }: Pick<BehaviourInput, "template" | "name">): string => template ?? name;

const keyOf = (ladder: StoredLadder) => behaviourKey(asBehaviour(ladder.behaviour));

const needsOf = (behaviour: Pick<BehaviourInput, "prerequisites">) => (behaviour.prerequisites ?? []).map((need) => need.behaviour);

/** What rests on what: the library, and the horse's own behaviours over it. */
function nodesOf(behaviours: readonly BehaviourInput[]): GraphNode[] {
  const own = new Map(behaviours.map((one) => [behaviourKey(one), needsOf(one)]));
  const library = LIBRARY.filter(({ key }) => !own.has(key)).map(({ key, prerequisites }) => ({
    key,
    needs: prerequisites.map(({ behaviour }) => behaviour),
  }));
  return [...library, ...[...own].map(([key, needs]) => ({ key, needs }))];
}

/** The name of a behaviour by its key. */
const nameOf = (key: string, ladders: readonly StoredLadder[]): string =>
  ladders.find((ladder) => keyOf(ladder) === key)?.behaviour.name ?? templateOf(key)?.name ?? key;

/** @throws FieldsRefused where a behaviour would rest on itself by way of others. Asked inside the write that would make it so. */
export async function refuseCircles(store: Store, horseId: string, behaviour: BehaviourInput, ladderId: string | null): Promise<void> {
  const ladders = (await listLadders(store, horseId)).filter(({ id }) => id !== ladderId);
  const cycle = findCycle(nodesOf([...ladders.map((ladder) => asBehaviour(ladder.behaviour)), behaviour]));
  if (cycle === null) return;
  const names = cycle.map((key) => (key === behaviourKey(behaviour) ? behaviour.name : nameOf(key, ladders)));
  const message = `It rests on: that goes in a circle. ${names.join(" rests on ")}.`;
  throw new FieldsRefused([{ path: "behaviour.prerequisites", message }]);
}

/** A ladder with its trials, as the readiness of another looks at it. */
async function asWorked(store: Store, ladder: StoredLadder): Promise<WorkedLadder> {
  const { id, plan, version } = ladder;
  return { id, name: ladder.behaviour.name, plan, version, trials: await evidenceOfLadder(store, id) };
}

/** One behaviour of the graph that is drawn. */
export interface GraphPart {
  readonly key: string;
  readonly name: string;
  readonly ladderId: string | null;
  readonly state: PrerequisiteReadiness["state"] | "this";
  readonly needs: readonly string[];
}

export interface Foundations {
  readonly readiness: readonly PrerequisiteReadiness[];
  /** What is skipped, in one sentence, or null. */
  readonly warning: string | null;
  /** The behaviour with all it rests on, near and far; the behaviour alone where it rests on nothing. */
  readonly graph: readonly GraphPart[];
}

/** What a horse's behaviour rests on, and what the numbers say of each. */
export async function foundationsOf(store: Store, horseId: string, behaviour: BehaviourInput): Promise<Foundations> {
  const ladders = await listLadders(store, horseId);
  const key = behaviourKey(behaviour);
  const nodes = nodesOf([...ladders.map((ladder) => asBehaviour(ladder.behaviour)), behaviour]);
  const worked = new Map<string, WorkedLadder>();
  const all = restsOn(nodes, key);
  for (const ladder of ladders)
    if (all.has(keyOf(ladder)) && keyOf(ladder) !== key) worked.set(keyOf(ladder), await asWorked(store, ladder));
  const check = (need: Prerequisite) => prerequisiteReadiness(need, nameOf(need.behaviour, ladders), worked.get(need.behaviour) ?? null);
  const asNeeds = (prerequisites: BehaviourInput["prerequisites"]) =>
    (prerequisites ?? []).map((need) => ({ ...need, values: need.values as Record<string, StrandValue> }));
  const readiness = asNeeds(behaviour.prerequisites).map(check);
  // A behaviour further down is judged by what the nearest one wants of it.
  const wanted = new Map<string, Prerequisite[]>();
  for (const one of all) {
    const own = ladders.find((ladder) => keyOf(ladder) === one);
    const needs =
      one === key
        ? asNeeds(behaviour.prerequisites)
        : own === undefined
          ? (templateOf(one)?.prerequisites ?? [])
          : asNeeds(asBehaviour(own.behaviour).prerequisites);
    for (const need of needs) wanted.set(need.behaviour, [...(wanted.get(need.behaviour) ?? []), need]);
  }
  const stateOf = (one: string): GraphPart["state"] => {
    const states = (wanted.get(one) ?? []).map((need) => check(need).state);
    return states.every((state) => state === "shown") ? "shown" : states.includes("not-yet") ? "not-yet" : "unknown";
  };
  const graph = [...all].map(
    (one): GraphPart => ({
      key: one,
      name: one === key ? behaviour.name : nameOf(one, ladders),
      ladderId: ladders.find((ladder) => keyOf(ladder) === one)?.id ?? null,
      state: one === key ? "this" : stateOf(one),
      needs: nodes.find((node) => node.key === one)?.needs.filter((need) => all.has(need)) ?? [],
    }),
  );
  return { readiness, warning: readinessWarning(readiness), graph };
}

const valuesByName = (strands: readonly Strand[], values: Readonly<Record<string, StrandValue>>) =>
  Object.fromEntries(strands.map((strand) => [strand.name, values[strand.id] ?? ""]));

/** How far a new cue has taken over on a ladder, or null where none is being put in front. */
export const transferOf = (plan: LadderPlan, trials: readonly EvidenceTrial[]): TransferProgress | null =>
  plan.transfer === null ? null : transferProgress(trials.map(({ outcome, phase }) => ({ met: outcome === "met", phase })));

/** What the editor of a ladder knows of the horse's other work. */
export async function editorSurroundings(store: Store, horseId: string, present: StoredLadder | null): Promise<EditorSurroundings> {
  const ladders = (await listLadders(store, horseId)).filter(({ id }) => id !== present?.id);
  const otherCues = ladders.map(
    ({ behaviour, plan }): CueOfBehaviour => ({
      behaviour: behaviour.name,
      cue: behaviour.cue,
      movement: behaviour.movement as CueOfBehaviour["movement"],
      phases: plan.phases.map(({ label, kind }) => ({ label, kind })),
    }),
  );
  const own = ladders.map((ladder) => ({
    key: keyOf(ladder),
    name: ladder.behaviour.name,
    rungs: ladder.plan.rungs.map(({ values }) => ({
      words: criterionSentence(
        ladder.plan.strands,
        values,
        ladder.plan.phases.map(({ label }) => label),
      ),
      values: valuesByName(ladder.plan.strands, values),
    })),
  }));
  const taken = new Set([...own.map(({ key }) => key), ...(present === null ? [] : [keyOf(present)])]);
  // Of the library only the finished behaviour is offered: its rungs are no horse's yet.
  const library = LIBRARY.filter(({ key }) => !taken.has(key)).map(({ key, name, strands, rungs, askByFeel, askForFood }) => {
    const last = rungs.at(-1) ?? {};
    const labels = (askByFeel ?? askForFood ?? []).map(({ label }) => label);
    return { key, name, rungs: [{ words: criterionSentence(strands, last, labels), values: valuesByName(strands, last) }] };
  });
  const trials = present === null ? [] : (await evidenceOfLadder(store, present.id)).filter(({ version }) => version === present.version);
  return {
    otherCues,
    transferred: present === null ? null : transferOf(present.plan, trials),
    choices: [...own, ...library],
    names: Object.fromEntries([
      ...LIBRARY.map(({ key, name }) => [key, name] as const),
      ...own.map(({ key, name }) => [key, name] as const),
    ]),
  };
}

/** The graph with where each behaviour leads: the horse's own ladder, or the library. */
export const graphLinks = (horseId: string, graph: readonly GraphPart[]) =>
  graph.map(({ key, name, ladderId, state, needs }) => ({
    key,
    name,
    state,
    needs,
    href:
      state === "this"
        ? null
        : ladderId !== null
          ? `/horses/${horseId}/shape/${ladderId}`
          : templateOf(key) === undefined
            ? null
            : `/horses/${horseId}/shape/library/${key}`,
  }));
