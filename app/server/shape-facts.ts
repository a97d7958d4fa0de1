import "server-only";
import {
  behavioursUnder,
  type Foundations,
  findCycle,
  foundationsOf,
  type GraphPart,
  graphOf,
  type KnownBehaviour,
  type Prerequisite,
  type ReadinessTime,
} from "@/core/behaviour";
import { type CueOfBehaviour, type TransferProgress, transferProgress } from "@/core/cues";
import { lookReadiness, TOUCH_BEHAVIOUR, touchReadiness } from "@/core/know";
import type { LadderPlan } from "@/core/ladder";
import type { EvidenceTrial } from "@/core/record";
import type { BehaviourInput } from "@/core/schemas";
import { criterionSentence, type Strand, type StrandValue } from "@/core/strands";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import type { EditorSurroundings } from "@/features/shape/editor/settings-part";
import { LIBRARY, templateOf } from "@/library";
import {
  asBehaviour,
  digestsOfHorse,
  evidenceOfLadders,
  getSettings,
  listLadders,
  listOwnSigns,
  type Store,
  type StoredLadder,
} from "@/store";
import { ofPairAtWork } from "./ladder-state";
import { FieldsRefused } from "./problem-of";

/** What a behaviour is known by among the others: its key in the library, or its own name. */
export const behaviourKey = ({ template, name }: Pick<BehaviourInput, "template" | "name">): string => template ?? name;

const keyOf = (ladder: StoredLadder) => behaviourKey(asBehaviour(ladder.behaviour));

/** A behaviour as core knows it. A need's values are checked by the form's schema, which knows them no closer. */
const asKnown = (behaviour: BehaviourInput, ladderId: string | null): KnownBehaviour => ({
  key: behaviourKey(behaviour),
  name: behaviour.name,
  ladderId,
  prerequisites: (behaviour.prerequisites ?? []).map((need) => ({ ...need, values: need.values as Record<string, StrandValue> })),
});

const ownKnown = (ladders: readonly StoredLadder[]) => ladders.map((ladder) => asKnown(asBehaviour(ladder.behaviour), ladder.id));

/** The library, and the body map, which work may rest on like on a behaviour. */
const LIBRARY_KNOWN: readonly KnownBehaviour[] = [
  ...LIBRARY.map(({ key, name, prerequisites }) => ({ key, name, ladderId: null, prerequisites })),
  { key: TOUCH_BEHAVIOUR, name: TOUCH_BEHAVIOUR, ladderId: null, prerequisites: [] },
];

/** How far back touches and looks are read; older ones are stale by any setting that is usual. */
const KNOWN_FOR_DAYS = 730;

/** What the body map and the first look say of a prerequisite no ladder shows; null where neither knows. */
async function knownOf(store: Store, horseId: string, time: ReadinessTime) {
  const digests = await digestsOfHorse(store, horseId, time.nowWallMs - KNOWN_FOR_DAYS * MILLISECONDS_PER_DAY);
  const touches = digests.flatMap(({ digest }) => digest.touches);
  const looked = digests.findLast(({ digest }) => digest.firstLook !== null && digest.firstLook.stepsDone > 0);
  const look = looked?.digest.firstLook == null ? null : { look: looked.digest.firstLook, wallMs: looked.startedMs };
  return (need: Prerequisite, name: string) => {
    if (need.behaviour === TOUCH_BEHAVIOUR) return touchReadiness(need, touches, time);
    const template = templateOf(need.behaviour);
    const tested = template?.tested == null ? null : { ...template.tested, strands: template.strands };
    return lookReadiness(need, name, tested, look, time);
  };
}

/** The name of a behaviour by its key. */
const nameOf = (key: string, ladders: readonly StoredLadder[]): string =>
  ladders.find((ladder) => keyOf(ladder) === key)?.behaviour.name ?? templateOf(key)?.name ?? key;

/** @throws FieldsRefused where a behaviour would rest on itself by way of others. Asked inside the write that would make it so. */
export async function refuseCircles(store: Store, horseId: string, behaviour: BehaviourInput, ladderId: string | null): Promise<void> {
  const ladders = (await listLadders(store, horseId)).filter(({ id }) => id !== ladderId);
  const cycle = findCycle(graphOf([...ownKnown(ladders), asKnown(behaviour, null)], LIBRARY_KNOWN));
  if (cycle === null) return;
  const names = cycle.map((key) => (key === behaviourKey(behaviour) ? behaviour.name : nameOf(key, ladders)));
  const message = `It rests on: that goes in a circle. ${names.join(" rests on ")}.`;
  throw new FieldsRefused([{ path: "behaviour.prerequisites", message }]);
}

/** What a horse's behaviour rests on, and what the numbers say of each. */
export async function foundationsFor(store: Store, horseId: string, behaviour: BehaviourInput): Promise<Foundations> {
  const ladders = await listLadders(store, horseId);
  const own = ownKnown(ladders);
  const known = asKnown(behaviour, ladders.find((ladder) => keyOf(ladder) === behaviourKey(behaviour))?.id ?? null);
  const all = behavioursUnder(known, own, LIBRARY_KNOWN);
  const under = ladders.filter((ladder) => all.has(keyOf(ladder)) && keyOf(ladder) !== known.key);
  const settings = await getSettings(store);
  const evidence = ofPairAtWork(await evidenceOfLadders(store, under), settings);
  const time = { nowWallMs: store.now(), staleDays: settings.shownStaleDays };
  const worked = new Map(
    under.map((ladder) => {
      const { id, plan, version } = ladder;
      return [keyOf(ladder), { id, name: ladder.behaviour.name, plan, version, trials: evidence.get(id) ?? [] }];
    }),
  );
  return foundationsOf(known, own, LIBRARY_KNOWN, worked, time, await knownOf(store, horseId, time));
}

const valuesByName = (strands: readonly Strand[], values: Readonly<Record<string, StrandValue>>) =>
  Object.fromEntries(strands.map((strand) => [strand.name, values[strand.id] ?? ""]));

/** How far a new cue has taken over on a ladder, or null where none is being put in front. */
export const transferOf = (plan: LadderPlan, trials: readonly EvidenceTrial[]): TransferProgress | null =>
  plan.transfer === null ? null : transferProgress(trials.map(({ outcome, phase }) => ({ met: outcome === "met", phase })));

/** What the editor of a ladder knows of the horse's other work. */
export async function editorSurroundings(
  store: Store,
  horseId: string,
  present: StoredLadder | null,
  newest: readonly EvidenceTrial[] = [],
): Promise<EditorSurroundings> {
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
  const trials = newest.filter(({ version }) => version === present?.version);
  return {
    settings: await getSettings(store),
    ownSigns: await listOwnSigns(store),
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
        : key === TOUCH_BEHAVIOUR
          ? `/horses/${horseId}/know/touch`
          : ladderId !== null
            ? `/horses/${horseId}/shape/${ladderId}`
            : templateOf(key) === undefined
              ? null
              : `/horses/${horseId}/shape/library/${key}`,
  }));
