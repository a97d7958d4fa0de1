import "server-only";
import { wordsOfWay } from "@/core/behaviour";
import type { CircleDigest, LoadKind } from "@/core/circle";
import { addDays } from "@/core/day";
import { textsDocument } from "@/core/documents";
import { worksLadders } from "@/core/events";
import { planToLog } from "@/core/events/circle-log";
import { begunCircleDocument } from "@/core/events/circle-plan-document";
import type { BegunSession, HorsePack, PackDigest, PackHorse, PackLadder, PackWorked, YardFacts } from "@/core/pack";
import { secondsByLadder } from "@/core/pack";
import { acrossMetresOf } from "@/core/place";
import type { CirclePack } from "@/core/today";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import { templateOf } from "@/library";
import {
  aftermathsOf,
  asBehaviour,
  asKit,
  asRestriction,
  carriedRungsOf,
  circleSetup,
  type DigestedSession,
  digestsOfHorse,
  evidenceOfLadders,
  getSettings,
  goneAgainst,
  type HandLoadRow,
  type HorseRow,
  handLoad,
  involvesOf,
  keptJson,
  kitFits,
  listChains,
  listKit,
  listLadders,
  listOwnSigns,
  listPeople,
  listPlaces,
  listRestrictions,
  listSessions,
  nameApart,
  openSessions,
  pinnedSigns,
  placeZones,
  type SessionRow,
  type SessionWithSummary,
  type Store,
} from "@/store";
import { today } from "./horse-care";
import { LOOK_BACK_DAYS } from "./horse-picture";
import { AFTERMATH_MS, LOOK_BACK_MS } from "./ladder-state";
import { packTries, triesOf } from "./tries";

/** More than anybody works with one horse in a week, and as far back as a line for next time is looked for. */
const WORKED_SESSIONS = 60;

/** What a session shows of the horse, as a pack has it. */
export const digestOf = ({ session, startedMs, digest }: DigestedSession): PackDigest => ({
  id: session.id,
  kind: session.kind,
  createdMs: session.created_ms,
  startedMs,
  touches: digest.touches,
  departures: digest.relief.departures,
  signs: digest.signs,
  sides: digest.sides,
  ...(digest.acts === undefined ? {} : { acts: digest.acts }),
});

/** The ladders of a session with the seconds on each. */
function workedOn(blocks: readonly { readonly ladder: string | null; readonly seconds: number }[]) {
  const seconds = secondsByLadder(blocks);
  return { ladders: [...seconds.keys()], seconds: [...seconds.values()].map(Math.round) };
}

/** A session as a pack has it. */
export const asWorked = ({ session, summary, blocks }: SessionWithSummary): PackWorked => ({
  id: session.id,
  kind: session.kind,
  startedMs: summary.started_ms,
  workSeconds: summary.work_s,
  trials: summary.n,
  pieces: summary.pieces,
  weighedGrams: summary.food_g,
  doNext: summary.do_next,
  ...workedOn(blocks),
  ...(summary.circle === null ? {} : { circle: JSON.parse(summary.circle) as CircleDigest }),
});

const asByHand = ({ day, kind, minutes }: HandLoadRow) => ({ day, kind: kind as LoadKind, minutes });

const asPackHorse = (horse: HorseRow, apart: string): PackHorse => ({
  id: horse.id,
  name: horse.name,
  apart,
  sample: horse.sample,
  away: horse.away,
  bornDay: horse.born_day,
  birthYear: horse.birth_year,
  restingBreaths: horse.resting_breaths_per_min,
  ...(horse.bears_heat_badly ? { bearsHeatBadly: true } : {}),
  ...(pinnedSigns(horse).length === 0 ? {} : { pinned: pinnedSigns(horse) }),
  ...(goneAgainst(horse).length === 0 ? {} : { goneAgainst: goneAgainst(horse) }),
});

/**
 * What of a horse the circle needs, without its trials: for the caps before a session and for the load book. Four questions.
 */
export async function circlePack(store: Store, horse: HorseRow): Promise<CirclePack> {
  const [ladders, worked, restrictions, setup, byHand] = await Promise.all([
    listLadders(store, horse.id),
    listSessions(store, horse.id, { limit: WORKED_SESSIONS }),
    listRestrictions(store, horse.id),
    circleSetup(store, horse.id),
    handLoad(store, horse.id, addDays(today(store), -28)),
  ]);
  return {
    horse: asPackHorse(horse, ""),
    restrictions: restrictions.filter(({ ended_ms }) => ended_ms == null).map(asRestriction),
    ladders: ladders
      .filter(({ away }) => !away)
      .map((ladder) => ({ id: ladder.id, involves: involvesOf(ladder), behaviour: asBehaviour(ladder.behaviour) })),
    worked: worked.map(asWorked),
    circle: { setup, fits: [], byHand: byHand.map(asByHand) },
  };
}

/** Everything a device needs to work a horse with no server. The number of questions does not grow with its ladders or sessions. */
export async function horsePack(store: Store, horse: HorseRow): Promise<HorsePack> {
  const ladders = (await listLadders(store, horse.id)).filter(({ away }) => !away);
  const now = store.now();
  const [evidence, carried, digests, worked, restrictions, open, apart, chains, tries, setup, fits, byHand, aftermaths] = await Promise.all(
    [
      evidenceOfLadders(store, ladders, now - LOOK_BACK_MS),
      carriedRungsOf(store, ladders),
      // As far back as Know looks.
      digestsOfHorse(store, horse.id, now - LOOK_BACK_DAYS * MILLISECONDS_PER_DAY),
      listSessions(store, horse.id, { limit: WORKED_SESSIONS }),
      listRestrictions(store, horse.id),
      openSessions(store, horse.id),
      nameApart(store, horse),
      listChains(store, horse.id),
      triesOf(store, horse.id, ladders),
      circleSetup(store, horse.id),
      kitFits(store, horse.id),
      handLoad(store, horse.id, addDays(today(store), -28)),
      aftermathsOf(store, horse.id, now - AFTERMATH_MS),
    ],
  );
  const lastWork = worked.find(({ session }) => worksLadders(session.kind))?.session;
  return {
    horse: asPackHorse(horse, apart),
    restrictions: restrictions.filter(({ ended_ms }) => ended_ms == null).map(asRestriction),
    ladders: ladders.map(
      (ladder): PackLadder => ({
        id: ladder.id,
        version: ladder.version,
        revision: ladder.revision,
        behaviour: asBehaviour(ladder.behaviour),
        plan: ladder.plan,
        involves: involvesOf(ladder),
        cautions: wordsOfWay(templateOf(ladder.behaviour.template ?? ""), ladder.plan).cautions,
        trials: evidence.get(ladder.id) ?? [],
        carried: [...(carried.get(ladder.id) ?? [])].map(([version, rungs]) => [version, [...rungs]] as const),
      }),
    ),
    digests: digests.map(digestOf),
    aftermaths: aftermaths.get(horse.id) ?? [],
    worked: worked.map(asWorked),
    open,
    circle: { setup, fits: [...fits], byHand: byHand.map(asByHand) },
    chains: chains.map(({ id, name, direction, links }) => ({
      id,
      name,
      direction,
      links: links.map((link) => ({ ...link, name: ladders.find((one) => one.id === link.ladder)?.behaviour.name ?? "a link" })),
    })),
    tries: packTries(tries),
    last: {
      person: worked[0]?.session.person_id ?? null,
      place: worked[0]?.session.place_id ?? null,
      kit: keptJson(lastWork?.kit, textsDocument) ?? [],
    },
  };
}

/** What is the same for every horse. */
export async function yardFacts(store: Store): Promise<YardFacts> {
  const [settings, people, places, kit, zones, ownSigns] = await Promise.all([
    getSettings(store),
    listPeople(store),
    listPlaces(store),
    listKit(store),
    placeZones(store),
    listOwnSigns(store),
  ]);
  return {
    timeZone: store.timeZone,
    settings,
    ownSigns,
    people: people.map(({ id, name }) => ({ id, name })),
    places: places.map(({ id, name, shape, length_m, width_m }) => ({
      id,
      name,
      zones: zones.get(id) ?? [],
      acrossMetres: acrossMetresOf(shape, length_m, width_m),
    })),
    kit: kit.map((row) => ({ id: row.id, ...asKit(row) })),
  };
}

/** The plan of a session on the circle, or the word against a used-up cap, as it was begun. */
function begunCircle(kept: string | null): Pick<BegunSession, "circle" | "against"> {
  if (kept === null) return {};
  const value = keptJson(kept, begunCircleDocument);
  if (value === undefined) return {};
  return "against" in value ? { against: value.against } : { circle: { ...value, plan: planToLog(value.plan) } };
}

/** A session's row as it was begun. */
export const begunOf = (session: SessionRow): BegunSession => ({
  id: session.id,
  horse: session.horse_id,
  kind: session.kind,
  ladder: session.ladder_id,
  person: session.person_id,
  place: session.place_id,
  start_rung: session.start_rung,
  kit: keptJson(session.kit, textsDocument) ?? [],
  ...begunCircle(session.circle),
});
