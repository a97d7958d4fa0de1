import { wrongChoiceCaution } from "../conversation";
import { asksBothSides, type LadderPlan, oneSideADay, rungsBetween } from "../ladder";
import { carriedOver, type EvidenceTrial, evidenceForRung, evidenceOfSession } from "../record/evidence-scope";
import type { SessionRecord } from "../record/reduce";
import { openStopSign, signsWithin } from "../record/signals";
import { blockSeconds, secondsSinceRest, workSeconds } from "../record/time";
import { breathReadings, heartReadings } from "../record/vital-signs";
import { handlerInHand } from "../record/where";
import { DEFAULT_SETTINGS, type YardSettings } from "../settings";
import { MILLISECONDS_PER_DAY } from "../units";
import { aboveHeart, notFallen, usableResting } from "../welfare/breath-down";
import { type HeatCaution, heatCaution } from "../welfare/heat";
import type { Allowance, Cap } from "../welfare/restrictions";
import { barredRung } from "../welfare/restrictions";
import { closedNow } from "./closed";
import { declinedAdvice } from "./declined";
import { valuesGoalOf } from "./goal";
import type { AdviceInput, BreathingState, SideState } from "./input";
import { movementAsked } from "./moving-on";
import { trialsOfPair } from "./pair";

/** What surrounds a session on a ladder. */
export interface Situation {
  readonly session: string;
  readonly record: SessionRecord;
  /** Rungs of earlier versions that stand unchanged in this one, for a ladder changed in the middle of the session. */
  readonly carried?: ReadonlyMap<number, ReadonlyMap<number, number>>;
  /** The present, in milliseconds from the start of work. */
  readonly nowMs: number;
  readonly plan: LadderPlan;
  readonly ladder: string;
  readonly version: number;
  /** Whose session it is, as trials name them; null for nobody's. */
  readonly handler: string | null;
  /** Trials of other sessions on this ladder, oldest first, whoever handled. */
  readonly earlier: readonly EvidenceTrial[];
  readonly allowance: Allowance;
  /** Circling minutes that may still be worked today, and on which ladders they are; null or left out where this one does not circle. */
  readonly circling?: { readonly left: Cap<number>; readonly ladders: readonly (string | null)[] } | null;
  /** The horse's own breathing rate at rest, a minute; null where it is not known. */
  readonly restingBreaths: number | null;
  /** The side that is known to be behind; left out or null where none is. */
  readonly weakerSide?: "L" | "R" | null;
  /** What the behaviour involves that a restriction may name; left out where nothing. */
  readonly involves?: readonly string[];
  /** By how much the bounds of heat lie lower for this horse, in °C; left out where it bears heat like others. */
  readonly heatLowerCelsius?: number;
}

/** A count this soon after trot or canter decides nothing by itself, in milliseconds (common practice, no source). */
const AFTER_FAST_MS = 120_000;
const FAST = /trot|canter|gallop|lope/i;

/** When the horse last went faster than walk up to a moment, in milliseconds from the start of work; null where it did not. */
function lastFastMs({ record, plan }: Pick<Situation, "record" | "plan">, ms: number): number | null {
  const gait = plan.strands.find(({ key }) => key === "gait");
  const spans = record.timeLine.gaits.filter(({ gait: one, startMs }) => FAST.test(one) && startMs <= ms);
  const byGait = spans.map(({ endMs }) => Math.min(endMs ?? ms, ms));
  const byRung = record.trials.flatMap(({ blockIndex, endMs }) => {
    const rung = blockIndex === null ? undefined : plan.rungs[Number(record.blocks[blockIndex]?.rung) - 1];
    const value = gait === undefined ? undefined : rung?.values[gait.id];
    return typeof value === "string" && FAST.test(value) && endMs <= ms ? [endMs] : [];
  });
  const all = [...byGait, ...byRung];
  return all.length === 0 ? null : Math.max(...all);
}

/** The last breathing rate of this session, with what it is held against. */
function breathingNow(situation: Situation): BreathingState | null {
  const { record, restingBreaths } = situation;
  const counts = breathReadings(record);
  const last = counts.at(-1);
  if (last === undefined) return null;
  const hearts = heartReadings(record);
  const at = last.wallMs - (record.startWallMs ?? 0);
  const fast = lastFastMs(situation, at);
  return {
    perMinute: last.perMinute,
    restingPerMinute: usableResting(restingBreaths),
    settled: fast === null || at - fast >= AFTER_FAST_MS,
    aboveHeart: aboveHeart(counts, hearts).at(-1) ?? null,
    notFallen: notFallen(counts, hearts),
  };
}

/**
 * The heat caution of the last preflight that gave both air and humidity: one
 * that gave half of it takes no heat away.
 * @param lowerCelsius of a horse that bears heat badly.
 * @returns null where no weather was given.
 * @example heatOf(record, settings, 3)?.level // "stop"
 */
export function heatOf(
  record: Pick<SessionRecord, "facts">,
  settings: YardSettings = DEFAULT_SETTINGS,
  lowerCelsius = 0,
): HeatCaution | null {
  const { air_c, humidity, sky } =
    record.facts.filter((fact) => fact.type === "preflight").findLast(({ payload }) => payload.air_c != null && payload.humidity != null)
      ?.payload ?? {};
  return air_c != null && humidity != null ? heatCaution(air_c, humidity, sky === "shade" ? "shade" : "sun", settings, lowerCelsius) : null;
}

/** Why a little work was begun though it is too hot, or null. @example heatReasonOf(record) // null */
export const heatReasonOf = ({ facts }: Pick<SessionRecord, "facts">): string | null =>
  facts.filter((fact) => fact.type === "preflight").findLast(({ payload }) => payload.heat_reason !== undefined)?.payload.heat_reason ??
  null;

/** What was circled in this session against what may still be; null where this ladder does not circle. */
function circledOf({ circling, record, nowMs }: Situation) {
  if (circling == null) return null;
  const seconds = record.blocks.map(({ ladder }, i) => (circling.ladders.includes(ladder) ? blockSeconds(record, i, nowMs) : 0));
  return { left: circling.left, minutes: seconds.reduce((sum, own) => sum + own, 0) / 60 };
}

/**
 * The highest rung below this one that is mostly met: enough trials in the last weeks, and most of them met.
 * @example sureRungBelow(trials, 1, 2, 1767263045745, { … }) // 1
 */
export function sureRungBelow(
  trials: readonly EvidenceTrial[],
  version: number,
  rung: number,
  nowWallMs: number,
  { evidenceMaxAgeDays, sureTrials, sureShare }: YardSettings = DEFAULT_SETTINGS,
): number | null {
  const oldest = nowWallMs - evidenceMaxAgeDays * MILLISECONDS_PER_DAY;
  for (let below = rung - 1; below >= 1; below--) {
    const own = trials.filter((t) => t.version === version && t.rung === below && t.wallMs >= oldest).slice(-2 * sureTrials);
    const met = own.filter(({ outcome }) => outcome === "met").length;
    if (own.length >= sureTrials && met / own.length >= sureShare) return below;
  }
  return null;
}

function sidesOf(situation: Situation, rung: number, before: readonly EvidenceTrial[], running: "L" | "R" | null): SideState | null {
  const { plan, allowance, session } = situation;
  if (running === null || allowance.side !== null) return null;
  const asked = plan.strands.find(({ key }) => key === "side");
  const value = asked === undefined ? "both" : plan.rungs[rung - 1]?.values[asked.id];
  if (value !== "both" || oneSideADay(plan.ways)) return null;
  const today = before.filter((t) => t.session === session && t.rung === rung && t.kind === "work");
  const count = (side: "L" | "R") => today.filter((t) => t.side === side).length;
  return {
    running,
    here: count(running),
    there: count(running === "L" ? "R" : "L"),
    planned: asked === undefined ? null : plan.plannedRepetitions,
    weaker: situation.weakerSide ?? null,
  };
}

/**
 * What the word looks at, put together from the session, the plan and the
 * evidence; null where no block of this ladder runs.
 * @example adviceInputOf(situation) // { bothSides: false, running: "L", nowWallMs: 1772442001000, … }
 */
export function adviceInputOf(situation: Situation, settings: YardSettings = DEFAULT_SETTINGS): AdviceInput | null {
  const { record, nowMs, plan, ladder, version, allowance, session } = situation;
  const block = record.blocks.at(-1);
  if (block === undefined || block.endMs !== null || block.ladder !== ladder) return null;
  const carried = situation.carried ?? new Map<number, ReadonlyMap<number, number>>();
  const rung = block.version === version ? Number(block.rung) : (carried.get(block.version ?? 0)?.get(Number(block.rung)) ?? Number.NaN);
  const step = plan.rungs[rung - 1];
  if (!Number.isInteger(rung) || step === undefined) return null;
  const handler = handlerInHand(record, situation.handler);
  // Evidence is the horse's with its handler of now.
  const pair = (trials: readonly EvidenceTrial[]) => trialsOfPair(trials, handler, settings);
  const own = pair(carriedOver(evidenceOfSession(session, record, situation.handler), version, carried));
  const key = `${session}:${record.blocks.length - 1}`;
  const running = own.filter((trial) => trial.blockKey === key);
  const before = [...pair(situation.earlier), ...own.filter((trial) => trial.blockKey !== key)];
  const nowWallMs = (record.startWallMs ?? 0) + nowMs;
  const scope = { ladder, version, rung, nowWallMs, maxAgeDays: settings.evidenceMaxAgeDays };
  const oldest = nowWallMs - settings.evidenceMaxAgeDays * MILLISECONDS_PER_DAY;
  const history = before.filter(
    (t) => t.ladder === ladder && t.version === version && t.rung === rung && t.kind === "work" && t.wallMs >= oldest,
  );
  const lastBreakEnd = record.timeLine.breaks.at(-1)?.endMs ?? 0;
  const byValues = valuesGoalOf(plan, rung);
  const stopSign = openStopSign(record);
  const declined = declinedAdvice(record);
  // Tension that was answered by going on is said again for as many signs anew.
  const tensionFromMs = declined.findLast(({ why }) => why === "tension")?.ms ?? Number.NEGATIVE_INFINITY;
  const tensionSeconds = Math.min(settings.tensionWindowSeconds, (nowMs - tensionFromMs) / 1000);
  return {
    rule: plan.mastery,
    bothSides: asksBothSides(plan, rung),
    running: block.side,
    nowWallMs,
    byValues,
    rung,
    rungCount: plan.rungs.length,
    earlier: evidenceForRung(before, scope),
    history,
    block: running,
    blockKind: block.kind ?? "work",
    counts: block.kind === "work" || block.kind === null,
    minutesSinceRest: secondsSinceRest(record, nowMs) / 60,
    trialsSinceRest: record.trials.filter((trial) => trial.askMs >= lastBreakEnd).length,
    workMinutes: workSeconds(record, nowMs) / 60,
    nextBarred: barredRung(plan, rung + 1, allowance)[0]?.why ?? null,
    limits: {
      minutes: allowance.workMinutes,
      trials: allowance.repetitions,
      sessionTrials: record.trials.length,
      circling: circledOf(situation),
    },
    danger: stopSign?.payload.name ?? null,
    pain: stopSign?.payload.class === "pain",
    tensionSigns: signsWithin(record, "tension", nowMs, tensionSeconds),
    heat: heatOf(record, settings, situation.heatLowerCelsius ?? 0),
    heatReason: heatReasonOf(record),
    closed: closedNow(plan, situation.involves ?? [], rung, block.side, allowance),
    breathing: breathingNow(situation),
    fullPhase: plan.phases.length > 1 ? plan.phases.length : null,
    splittable: rungsBetween(plan.strands, plan.rungs, rung, plan.phases.length).length > 0,
    sides: sidesOf(situation, rung, before, block.side),
    session: { trials: record.trials.length, planned: plan.plannedRepetitions * settings.planBlocks },
    today: history.filter((t) => t.session === session),
    sureRung: sureRungBelow(
      before.filter((t) => t.ladder === ladder),
      version,
      rung,
      nowWallMs,
      settings,
    ),
    minEase: block.criterion?.min_ease ?? null,
    movement: movementAsked(block.criterion),
    wrong: wrongChoiceCaution(record, nowMs, settings),
    declined,
  };
}
