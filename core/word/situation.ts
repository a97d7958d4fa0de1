import { wrongChoiceCaution } from "../conversation";
import { asksBothSides, type LadderPlan, oneSideADay, rungsBetween } from "../ladder";
import { carriedOver, type EvidenceTrial, evidenceForRung, evidenceOfSession } from "../record/evidence-scope";
import type { SessionRecord } from "../record/reduce";
import { openDanger, signsWithin } from "../record/signals";
import { blockSeconds, secondsSinceRest, workSeconds } from "../record/time";
import { handlerKey } from "../record/trial";
import { lastHeartRate } from "../record/vital-signs";
import { handlerNow } from "../record/where";
import { DEFAULT_SETTINGS, type YardSettings } from "../settings";
import { MILLISECONDS_PER_DAY } from "../units";
import { breathingRate } from "../welfare/breathing";
import { type HeatCaution, heatCaution } from "../welfare/heat";
import type { Allowance, Cap } from "../welfare/restrictions";
import { barredRung } from "../welfare/restrictions";
import { declinedWords } from "./declined";
import { valuesGoalOf } from "./goal";
import type { BreathingState, SideState, WordInput } from "./input";
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
  /** Circling minutes that may still be worked today, and on which ladders they are; left out where this one does not circle. */
  readonly circling?: { readonly left: Cap<number>; readonly ladders: readonly (string | null)[] };
  /** The horse's own breathing rate at rest, a minute; null where it is not known. */
  readonly restingBreaths: number | null;
  /** The side that is known to be behind; left out or null where none is. */
  readonly weakerSide?: "L" | "R" | null;
}

/** The last breathing rate of this session, with what it is held against. */
function breathingNow({ record, restingBreaths }: Situation): BreathingState | null {
  const last = record.facts.findLast((fact) => fact.type === "breath");
  const rate = last === undefined ? null : breathingRate(last.payload.taps_ms);
  if (rate === null) return null;
  return {
    perMinute: rate.perMinute,
    restingPerMinute: restingBreaths,
    heartPerMinute: lastHeartRate(record),
  };
}

/** The heat caution of the preflight, or null where no weather was given. */
export function heatOf(record: Pick<SessionRecord, "facts">, settings: YardSettings = DEFAULT_SETTINGS): HeatCaution | null {
  const { air_c, humidity, sky } =
    record.facts.filter((fact) => fact.type === "preflight").findLast(({ payload }) => payload.air_c != null)?.payload ?? {};
  return air_c != null && humidity != null ? heatCaution(air_c, humidity, sky === "shade" ? "shade" : "sun", settings) : null;
}

/** What was circled in this session against what may still be; null where this ladder does not circle. */
function circledOf({ circling, record, nowMs }: Situation) {
  if (circling === undefined) return null;
  const seconds = record.blocks.map(({ ladder }, i) => (circling.ladders.includes(ladder) ? blockSeconds(record, i, nowMs) : 0));
  return { left: circling.left, minutes: seconds.reduce((sum, own) => sum + own, 0) / 60 };
}

/** The highest rung below this one that is mostly met: enough trials in the last weeks, and most of them met. */
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
 */
export function wordInputOf(situation: Situation, settings: YardSettings = DEFAULT_SETTINGS): WordInput | null {
  const { record, nowMs, plan, ladder, version, allowance, session } = situation;
  const block = record.blocks.at(-1);
  if (block === undefined || block.endMs !== null || block.ladder !== ladder) return null;
  const carried = situation.carried ?? new Map<number, ReadonlyMap<number, number>>();
  const rung = block.version === version ? Number(block.rung) : (carried.get(block.version ?? 0)?.get(Number(block.rung)) ?? Number.NaN);
  const step = plan.rungs[rung - 1];
  if (!Number.isInteger(rung) || step === undefined) return null;
  const taken = handlerNow(record);
  // Evidence is the horse's with its handler of now.
  const pair = (trials: readonly EvidenceTrial[]) => trialsOfPair(trials, taken === null ? situation.handler : handlerKey(taken), settings);
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
  const declined = declinedWords(record);
  // Tension that was answered by going on is said again for as many signs anew.
  const tensionFromMs = declined.findLast(({ why }) => why === "tension")?.ms ?? Number.NEGATIVE_INFINITY;
  const tensionSeconds = Math.min(settings.tensionWindowSeconds, (nowMs - tensionFromMs) / 1000);
  return {
    rule: plan.mastery,
    bothSides: asksBothSides(plan, rung),
    running: block.side,
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
    danger: openDanger(record),
    tensionSigns: signsWithin(record, "tension", nowMs, tensionSeconds),
    heat: heatOf(record, settings),
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
