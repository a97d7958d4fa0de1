import { circlingSentence } from "../circle";
import { type SidePicture, sidePicture } from "../compare";
import type { DatedActs } from "../conversation";
import { dayIn, startOfDayIn } from "../day";
import { dueTry, type PackTry, tryingWords } from "../experiment/due";
import { FIRST_LOOK_BEHAVIOUR, firstLookPlan, type KnowDigest, type SignCounts, type Touch } from "../know";
import { criterionOf, type LadderPlan, type PinnedSign, starterPlan, wayCautions } from "../ladder";
import { type EvidenceTrial, standingDoNext } from "../record";
import { type BehaviourInput, EMPTY_BEHAVIOUR, type SessionEvent, type SessionKind } from "../schemas";
import type { YardSettings } from "../settings";
import { MILLISECONDS_PER_DAY } from "../units";
import { type Allowance, asUsed, type Cap, type KitUse, kitCautions, usedSentences } from "../welfare";
import { type NextStart, nextStart } from "../word";
import { handlerOfBegun } from "./begun";
import { careOn, heatLower } from "./care";
import { circleState } from "./circle";
import { kitUseOf } from "./kit-use";
import type { BegunSession, HorsePack, Named, PackChain, PackLadder, YardFacts, Zone } from "./types";

/** One ladder of the horse as the recorder needs it, so that the trainer can go over to it in the pen. */
export interface LadderPart {
  /** Null for work on something that has no ladder. */
  readonly ladderId: string | null;
  readonly version: number | null;
  /** Which edit of the ladder this is, so that a change made here cannot overwrite one made elsewhere. */
  readonly revision: number | null;
  readonly behaviour: string;
  /** As the ladder's form sends it, for a change made in the pen. */
  readonly behaviourInput: BehaviourInput;
  readonly plan: LadderPlan;
  /** The plan as it is kept, where the block that runs is of an experiment and worked by its way; left out elsewhere. */
  readonly ownPlan?: LadderPlan;
  /** What the behaviour involves that a restriction may name; left out where nothing. */
  readonly involves?: readonly string[];
  readonly next: NextStart;
  /** Trials of other sessions on this ladder, oldest first. */
  readonly earlier: readonly EvidenceTrial[];
  /** Rungs of earlier versions that stand unchanged: version, then old and present number. */
  readonly carried: readonly (readonly [number, readonly (readonly [number, number])[]])[];
  /** Circling minutes that may still be worked today; left out where it does not circle. */
  readonly circling?: Cap<number>;
  /** Cautions of its method, its way of working and the kit in hand. */
  readonly planCautions: readonly string[];
}

/** Everything the recorder begins with. The ladder in work is spread into it. */
export interface RecorderStart extends LadderPart {
  readonly storeId: string;
  readonly sessionId: string;
  readonly horse: { readonly id: string; readonly name: string };
  readonly handler: string;
  readonly place: string;
  /** By how much the bounds of heat lie lower for this horse, in °C. */
  readonly heatLowerCelsius: number;
  /** Whether the plan is the first look's battery: items instead of rungs, and no word. */
  readonly battery: boolean;
  /** Every ladder of the horse; the first is the one the session begins on. */
  readonly ladders: readonly LadderPart[];
  /** What restrictions and age allow today. */
  readonly allowance: Allowance;
  /** Said before work begins: restrictions, age, kit. */
  readonly cautions: readonly string[];
  /** Zones of the place, each one tap away. */
  readonly zones: readonly Zone[];
  /** Signs the horse is watched for, and the yard's own. */
  readonly pinned: readonly PinnedSign[];
  readonly ownSigns: readonly PinnedSign[];
  readonly chains: readonly PackChain[];
  readonly tries: readonly PackTry[];
  /** Who may take over. */
  readonly people: readonly Named[];
  /** What the last session said to do next, or null. */
  readonly doNext: { readonly text: string; readonly dayMs: number } | null;
  /** What is used up of the week and the day. */
  readonly used: readonly string[];
  /** The horse's own rates at rest, a minute; null where they are not known. */
  readonly restingBreaths: number | null;
  /** The side known to be behind over the last weeks, or null. */
  readonly weakerSide: "L" | "R" | null;
  readonly wordSettings: YardSettings;
  /** What the body map holds of earlier sessions. */
  readonly touches: readonly Touch[];
  readonly events: readonly SessionEvent[];
  readonly clocks: Readonly<Record<string, number>>;
  readonly position: number;
  /** Minutes without a tap after which it is a pause. */
  readonly silenceMinutes: number;
  /** The session as it was begun: a device that keeps it can give it to a store that has lost it. */
  readonly begun: BegunSession;
}

/** More than anybody works with one horse in a week. */
const WEEK_SESSIONS = 60;

/** What a pack says at one moment: the day's limits, the sides, where each ladder stands. */
export interface PackNow {
  readonly nowMs: number;
  readonly allowance: Allowance;
  readonly cautions: readonly string[];
  readonly sides: SidePicture;
  /** Whether the horse has left in the last weeks. */
  readonly leaves: boolean;
  /** What may be worked first, then the one last worked first. */
  readonly states: readonly { readonly ladder: PackLadder; readonly next: NextStart; readonly lastWallMs: number | null }[];
}

/**
 * Reads a pack at a moment. Cost grows with the trials in it.
 * @param nowMs server wall clock.
 * @param handler who is going to handle, as trials name them; null for whoever worked each ladder last.
 */
export function packNow(pack: HorsePack, yard: YardFacts, nowMs: number, handler: string | null = null): PackNow {
  const { settings } = yard;
  const { allowance, sentences } = careOn(pack.horse, pack.restrictions, dayIn(nowMs, yard.timeZone), settings);
  const recent = pack.digests.filter(({ startedMs }) => startedMs >= nowMs - settings.sidesDays * MILLISECONDS_PER_DAY);
  const names = new Map(yard.people.map(({ id, name }) => [id, name]));
  const sides = sidePicture(recent.map((digest) => digest.sides));
  const states = pack.ladders.map((ladder) => ({
    ladder,
    next: nextStart(
      {
        plan: ladder.plan,
        ladder: ladder.id,
        version: ladder.version,
        trials: ladder.trials,
        nowWallMs: nowMs,
        allowance,
        weakerSide: sides.weaker,
        involves: ladder.involves,
        handler,
        names,
        aftermaths: pack.aftermaths ?? [],
      },
      settings,
    ),
    lastWallMs: ladder.trials.at(-1)?.wallMs ?? null,
  }));
  return {
    nowMs,
    allowance,
    cautions: sentences,
    sides,
    leaves: recent.some(({ departures }) => departures > 0),
    states: states.sort(
      (a, b) => Number(a.next.barred !== null) - Number(b.next.barred !== null) || (b.lastWallMs ?? 0) - (a.lastWallMs ?? 0),
    ),
  };
}

/** What was written for next time and still stands; see standingDoNext. */
export const doNextOf = (pack: Pick<HorsePack, "worked">, before: string | null, ladder: string | null = null) =>
  standingDoNext(
    pack.worked.filter(({ kind }) => kind === "work"),
    before,
    ladder,
  );

/** What the start page offers of a horse. */
export interface StartChoices {
  readonly ladders: readonly {
    readonly id: string;
    readonly name: string;
    readonly next: NextStart;
    readonly criterion: string;
    readonly kitUse: KitUse;
    /** That two ways are tried on it and which block is next; null where none are. */
    readonly trying: string | null;
  }[];
  readonly limits: readonly string[];
  readonly doNext: { readonly text: string; readonly dayMs: number } | null;
  /** Why there is to be no work at all today, or null. */
  readonly noWork: string | null;
}

/** What is tried on a ladder, in words, or null. */
function tryingOf({ tries = [] }: HorsePack, ladder: string): string | null {
  const due = tries.flatMap((one) => (one.ladder === ladder ? (dueTry(one, { blocks: [], trials: [] }) ?? []) : []))[0];
  return due === undefined ? null : tryingWords(due);
}

/** What may be begun with a horse at a moment. */
export function startChoices(pack: HorsePack, { states, leaves, allowance, cautions }: PackNow): StartChoices {
  return {
    ladders: states.map(({ ladder, next }) => ({
      id: ladder.id,
      name: ladder.behaviour.name,
      next,
      criterion: criterionOf(ladder.plan, next.rung).sentence,
      kitUse: kitUseOf(ladder, next.rung, leaves, allowance),
      trying: tryingOf(pack, ladder.id),
    })),
    limits: cautions,
    doNext: doNextOf(pack, null),
    noWork: allowance.noWork?.why ?? null,
  };
}

/** What may be begun, by who handles. */
export interface HandlerChoices {
  /** As trials name them; empty for somebody who has no trials with this horse. */
  readonly handler: string;
  readonly choices: StartChoices;
}

/** Of more people than this the others are taken as new to the horse. */
const MOST_HANDLERS = 6;

/**
 * What may be begun with a horse, by who handles it: evidence is a pair's. One
 * answer alone where the yard pools it or nobody was ever named.
 */
export function startChoicesByHandler(pack: HorsePack, yard: YardFacts, nowMs: number): HandlerChoices[] {
  const byLast = new Map<string, number>();
  if (yard.settings.poolHandlers !== 1)
    for (const { trials } of pack.ladders)
      for (const { handler, wallMs } of trials) if (handler !== null) byLast.set(handler, Math.max(wallMs, byLast.get(handler) ?? 0));
  const handlers = [...byLast].sort((a, b) => b[1] - a[1]).slice(0, MOST_HANDLERS);
  const of = (handler: string | null) => startChoices(pack, packNow(pack, yard, nowMs, handler));
  if (handlers.length === 0) return [{ handler: "", choices: of(null) }];
  return [...handlers.map(([handler]) => ({ handler, choices: of(handler) })), { handler: "", choices: of("") }];
}

const NOTHING = {
  ladderId: null,
  version: null,
  revision: null,
  behaviourInput: EMPTY_BEHAVIOUR,
  earlier: [],
  carried: [],
  planCautions: [],
} as const;

/** The first look's battery in place of a ladder. */
const batteryPart = (): LadderPart => ({
  ...NOTHING,
  behaviour: FIRST_LOOK_BEHAVIOUR,
  plan: firstLookPlan(),
  next: {
    rung: 1,
    kind: "probe",
    headline: "First look",
    reason: "One to three asks an item, the lightest cue first. Nothing is taught yet.",
    barred: null,
  },
});

/** A free start: nothing is planned; a ladder is chosen or named in the recorder. */
const freePart = (): LadderPart => ({
  ...NOTHING,
  behaviour: "Free start",
  plan: starterPlan(null),
  next: { rung: 1, kind: "work", headline: "Free start", reason: "Choose a ladder, or name something new.", barred: null },
});

const circlingIn = (pack: HorsePack) => pack.ladders.some(({ involves }) => involves.includes("circling"));

/** What is used up of the last seven days and of today, in sentences; one session is left out: the one about to be worked. */
function usedUp(pack: HorsePack, yard: YardFacts, now: PackNow, foodLimitGrams: number | null, but: string): string[] {
  const ladders = new Map(pack.ladders.map((ladder) => [ladder.id, ladder]));
  const weekAgo = now.nowMs - 7 * MILLISECONDS_PER_DAY;
  const state = circleState(pack, yard, now.nowMs, but);
  const circles = state.use.weekVisits > 0 || circlingIn(pack) || now.allowance.circlingMinutes !== null;
  // Where there is to be none at all the caution says so already.
  const circling = circles && now.allowance.circlingMinutes?.value !== 0 ? circlingSentence(state.use, state.caps) : null;
  const sessions = pack.worked
    .filter(({ id, startedMs }) => id !== but && (startedMs ?? 0) >= weekAgo)
    .slice(0, WEEK_SESSIONS)
    .map(({ startedMs, ladders: worked, ...sums }) =>
      asUsed({
        startMs: startedMs ?? 0,
        ...sums,
        ladders: worked.flatMap((id) => ladders.get(id) ?? []).map(({ plan }) => ({ pieceGrams: plan.feeding.pieceGrams })),
      }),
    );
  return usedSentences(sessions, now.nowMs, startOfDayIn(now.nowMs, yard.timeZone), circling, foodLimitGrams);
}

/** What the session itself brings: its taps so far and how far the store had them. */
export interface SessionSoFar {
  readonly storeId: string;
  readonly events: readonly SessionEvent[];
  readonly clocks: Readonly<Record<string, number>>;
  readonly position: number;
}

/** What every recorder begins with, also those that watch and plan nothing. */
export type ShellStart = Pick<
  RecorderStart,
  | "ownSigns"
  | "storeId"
  | "sessionId"
  | "horse"
  | "handler"
  | "place"
  | "heatLowerCelsius"
  | "allowance"
  | "cautions"
  | "events"
  | "clocks"
  | "position"
  | "silenceMinutes"
  | "begun"
>;

const placeOf = (yard: YardFacts, id: string | null) => yard.places.find((place) => place.id === id);

/** The part of a start that needs no ladder. */
export function shellStart(pack: HorsePack, yard: YardFacts, now: PackNow, begun: BegunSession, soFar: SessionSoFar): ShellStart {
  return {
    ...soFar,
    sessionId: begun.id,
    horse: { id: pack.horse.id, name: pack.horse.name },
    handler: yard.people.find(({ id }) => id === begun.person)?.name ?? begun.person_name ?? "",
    place: placeOf(yard, begun.place)?.name ?? begun.place_name ?? "",
    heatLowerCelsius: heatLower(pack.horse, dayIn(now.nowMs, yard.timeZone)),
    allowance: now.allowance,
    cautions: now.cautions,
    silenceMinutes: yard.settings.silenceMinutes,
    ownSigns: yard.ownSigns ?? [],
    begun,
  };
}

/** Circling minutes that may still be worked, of the day and of the week; null where a reason was given against it. */
function leftOfCircling(pack: HorsePack, yard: YardFacts, nowMs: number, begun: BegunSession): Cap<number> | null {
  if ((begun.against ?? "") !== "") return null;
  const { caps, use } = circleState(pack, yard, nowMs, begun.id);
  const day = { value: Math.max(0, caps.sessionMinutes.value - use.todayMinutes), why: caps.sessionMinutes.why };
  const { weekMinutes } = caps;
  if (weekMinutes === null) return day;
  const week = Math.max(0, weekMinutes.value - use.weekMinutes);
  return week < day.value ? { value: week, why: weekMinutes.why } : day;
}

/** What the body map holds of other sessions. */
export const touchesBefore = (pack: HorsePack, session: string): Touch[] =>
  pack.digests.filter(({ id }) => id !== session).flatMap(({ touches }) => touches);

/**
 * What the recorder of a session of work or of a first look begins with: the
 * same on the server and on a device that has only the pack.
 */
export function recorderStart(pack: HorsePack, yard: YardFacts, nowMs: number, begun: BegunSession, soFar: SessionSoFar): RecorderStart {
  const now = packNow(pack, yard, nowMs, handlerOfBegun(begun));
  const battery = begun.kind === "first-look";
  const taken = new Set(begun.kit);
  const kit = yard.kit.filter(({ id }) => taken.has(id));
  const circlingLeft = leftOfCircling(pack, yard, nowMs, begun);
  const partOf = ({ ladder, next }: PackNow["states"][number]): LadderPart => ({
    ladderId: ladder.id,
    version: ladder.version,
    revision: ladder.revision,
    behaviour: ladder.behaviour.name,
    behaviourInput: ladder.behaviour,
    plan: ladder.plan,
    involves: ladder.involves,
    next,
    earlier: ladder.trials.filter(({ session }) => session !== begun.id),
    carried: ladder.carried,
    ...(circlingLeft !== null && ladder.involves.includes("circling") ? { circling: circlingLeft } : {}),
    planCautions: [
      ...kitCautions(kit, kitUseOf(ladder, next.rung, now.leaves, now.allowance)),
      ...ladder.cautions,
      ...wayCautions(ladder.plan, ladder.behaviour.free),
    ],
  });
  const ladders = battery
    ? []
    : now.states.map(partOf).sort((a, b) => Number(b.ladderId === begun.ladder) - Number(a.ladderId === begun.ladder));
  const first = battery ? batteryPart() : begun.ladder === null ? freePart() : (ladders[0] ?? freePart());
  return {
    ...shellStart(pack, yard, now, begun, soFar),
    ...first,
    battery,
    ladders,
    zones: placeOf(yard, begun.place)?.zones ?? [],
    pinned: pack.horse.pinned ?? [],
    ownSigns: yard.ownSigns ?? [],
    chains: pack.chains ?? [],
    tries: pack.tries ?? [],
    people: yard.people,
    touches: touchesBefore(pack, begun.id),
    doNext: doNextOf(pack, begun.id, begun.ladder),
    used: usedUp(pack, yard, now, first.plan.feeding.dayLimitGrams, begun.id),
    restingBreaths: pack.horse.restingBreaths,
    weakerSide: now.sides.weaker,
    wordSettings: yard.settings,
  };
}

/** What a handler did in sessions before one, where that was counted, oldest first. */
export const actsBefore = (
  digests: readonly { readonly createdMs: number; readonly startedMs: number | null; readonly acts?: KnowDigest["acts"] }[],
  session: { readonly createdMs: number; readonly handler: string | null },
): DatedActs[] =>
  digests
    .filter(({ createdMs, acts }) => acts !== undefined && createdMs < session.createdMs && acts.handler === (session.handler ?? ""))
    .flatMap(({ startedMs, acts }) =>
      acts === undefined || startedMs === null ? [] : [{ startedMs, minutes: acts.minutes, counts: acts.counts }],
    );

/** The horse's usual signs before a session: those of earlier sessions of the same kind within the days that count. */
export const usualSigns = (
  digests: readonly { readonly kind: SessionKind; readonly createdMs: number; readonly signs: SignCounts }[],
  session: { readonly kind: SessionKind; readonly createdMs: number },
  usualDays: number,
): SignCounts[] =>
  digests
    .filter(
      ({ kind, createdMs }) =>
        kind === session.kind && createdMs < session.createdMs && createdMs >= session.createdMs - usualDays * MILLISECONDS_PER_DAY,
    )
    .map(({ signs }) => signs);
