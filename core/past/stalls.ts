import { medianOf } from "../evidence";
import { type LadderPlan, rungsBetween } from "../ladder";
import { passedAfter } from "../mastery";
import { counted, inHundredths } from "../words";
import { type HalfTime, halfTime } from "./half-time";
import { bySession, type Past, type PastSession, type PastTrial } from "./past";
import { harderStrands } from "./raises";

/** Sessions that are held against as many before them. */
export const STALL_SESSIONS = 3;

/** One thing to look at where nothing moves, with what is known of it. */
export interface StallCheck {
  readonly what: "pain and kit" | "what it rests on" | "rung too big" | "cue clash" | "reinforcer" | "release late" | "length and distance";
  readonly finding: "look here" | "not seen" | "not recorded";
  readonly evidence: string;
}

interface Stretch {
  readonly top: number;
  readonly lightness: number | null;
  readonly half: HalfTime | null;
  readonly sessions: readonly PastSession[];
  readonly trials: readonly PastTrial[];
}

/** A behaviour that gained nothing over its last sessions. */
export interface Stall {
  readonly rung: number;
  readonly sentence: string;
  readonly checks: readonly StallCheck[];
}

/** What the checks need that the trials do not hold. */
export interface StallFacts {
  readonly plan: LadderPlan;
  /** Prerequisites not shown, or shown long ago, in words; null where the behaviour rests on nothing. */
  readonly foundations: readonly string[] | null;
  /** Other behaviours of the horse whose lightest cue is the same. */
  readonly sameCue: readonly string[];
  /** Injuries and advice that hold, and dates that are due, in words. */
  readonly care: readonly string[];
  readonly lateReleaseSeconds: number;
}

const BASIC_SHARE = 0.2;

function stretchOf(sessions: readonly (readonly [PastSession, readonly PastTrial[]])[]): Stretch {
  const trials = sessions.flatMap(([, list]) => list).filter(({ kind }) => kind === "work");
  const bright = trials.filter(({ outcome, phase }) => outcome === "met" && phase !== null);
  return {
    top: Math.max(0, ...trials.map(({ rung }) => rung ?? 0)),
    lightness: bright.length === 0 ? null : bright.filter(({ phase }) => phase === 1).length / bright.length,
    half: halfTime(trials),
    sessions: sessions.map(([session]) => session),
    trials,
  };
}

const per10 = ({ sessions }: Stretch, kind: "tension" | "danger") => {
  const minutes = sessions.reduce((sum, { workSeconds }) => sum + workSeconds / 60, 0);
  const count = sessions.reduce((sum, { facts }) => sum + facts.moments.filter(([, one]) => one === kind).length, 0);
  return { count, rate: minutes > 0 ? (count * 10) / minutes : 0 };
};

function painAndKit(now: Stretch, before: Stretch, { care }: StallFacts): StallCheck {
  const [a, b] = [per10(before, "tension"), per10(now, "tension")];
  const danger = per10(now, "danger").count;
  const signs = `tension signs ${b.rate.toFixed(1)} in ten minutes, ${a.rate.toFixed(1)} before`;
  const said = [...care, signs, ...(danger > 0 ? [counted(danger, "danger sign")] : [])].join("; ");
  if (care.length === 0 && a.count + b.count + danger === 0)
    return {
      what: "pain and kit",
      finding: "not recorded",
      evidence: "No signs were tapped. Look at back, mouth, feet and how the kit lies; where in doubt, ask a veterinarian.",
    };
  return {
    what: "pain and kit",
    finding: care.length > 0 || danger > 0 || (b.count >= 3 && b.rate > 1.5 * a.rate) ? "look here" : "not seen",
    evidence: `${said}. Where in doubt, ask a veterinarian.`,
  };
}

function restsOn({ foundations }: StallFacts): StallCheck {
  if (foundations === null)
    return { what: "what it rests on", finding: "not recorded", evidence: "The behaviour names nothing it rests on." };
  return foundations.length === 0
    ? { what: "what it rests on", finding: "not seen", evidence: "Everything it rests on was shown." }
    : { what: "what it rests on", finding: "look here", evidence: `${foundations.join("; ")}.` };
}

function tooBig(now: Stretch, { plan }: StallFacts): StallCheck {
  const rung = now.top;
  const here = now.trials.filter((trial) => trial.rung === rung);
  const met = here.filter(({ outcome }) => outcome === "met").length;
  const between = rung > 1 && rung <= plan.rungs.length ? rungsBetween(plan.strands, plan.rungs, rung, plan.phases.length).length : 0;
  const harder = rung > 1 && rung <= plan.rungs.length ? harderStrands(plan, rung - 1, rung) : [];
  const share = `${met} of ${here.length} met on rung ${rung}`;
  const split = between > 0 ? `${counted(between, "rung")} would fit before it` : "nothing fits before it";
  const strands = harder.length > 1 ? `; ${harder.map(({ name }) => name.toLowerCase()).join(" and ")} rise at once` : "";
  const failing = here.length >= 10 && met / here.length < 0.7;
  return {
    what: "rung too big",
    finding: between > 0 && (failing || harder.length > 1) ? "look here" : "not seen",
    evidence: `${share}; ${split}${strands}.`,
  };
}

function cueClash(now: Stretch, { sameCue, plan }: StallFacts): StallCheck {
  const cue = plan.phases[0]?.label ?? "";
  const misses = now.trials.filter(({ outcome }) => outcome === "miss").length;
  if (sameCue.length === 0)
    return {
      what: "cue clash",
      finding: "not seen",
      evidence: `No other behaviour of this horse begins with “${cue}”; ${counted(misses, "wrong answer")}.`,
    };
  return {
    what: "cue clash",
    finding: now.trials.length >= 10 && misses / now.trials.length >= BASIC_SHARE ? "look here" : "not seen",
    evidence: `“${cue}” also asks for ${sameCue.join(", ")}; ${misses} of ${counted(now.trials.length, "answer")} ${misses === 1 ? "was" : "were"} something else.`,
  };
}

function reinforcer(now: Stretch, before: Stretch): StallCheck {
  const shareOf = ({ trials }: Stretch) => {
    const met = trials.filter(({ outcome, reinforced }) => outcome === "met" && reinforced !== null);
    return { n: met.length, paid: met.filter(({ reinforced }) => reinforced === true).length };
  };
  const [a, b] = [shareOf(before), shareOf(now)];
  if (b.n === 0) return { what: "reinforcer", finding: "not recorded", evidence: "What was reinforced was not logged." };
  return {
    what: "reinforcer",
    finding: b.paid / b.n < 0.5 ? "look here" : "not seen",
    evidence: `${b.paid} of ${b.n} met answers were reinforced${a.n === 0 ? "" : `, ${a.paid} of ${a.n} before`}. Whether it is still worth it to the horse, only a look at it tells.`,
  };
}

function releaseLate(now: Stretch, { lateReleaseSeconds }: StallFacts): StallCheck {
  const lags = now.trials.flatMap(({ releaseLagSeconds }) => (releaseLagSeconds === null ? [] : [releaseLagSeconds]));
  if (lags.length === 0)
    return { what: "release late", finding: "not recorded", evidence: "No release was timed: the Timed way gives it." };
  const late = lags.filter((lag) => lag > lateReleaseSeconds).length;
  return {
    what: "release late",
    finding: late / lags.length > BASIC_SHARE ? "look here" : "not seen",
    evidence: `${late} of ${counted(lags.length, "release")} later than ${lateReleaseSeconds} s; half within ${(medianOf(lags) ?? 0).toFixed(2)} s.`,
  };
}

function lengthAndDistance(now: Stretch, before: Stretch): StallCheck {
  const all = [...before.sessions, ...now.sessions];
  const gaps = all.slice(1).map((session, i) => (session.startedMs - (all[i]?.startedMs ?? 0)) / 86_400_000);
  const asks = now.trials.length / Math.max(1, now.sessions.length);
  const gap = medianOf(gaps) ?? 0;
  return {
    what: "length and distance",
    finding: gap > 7 || asks > 60 ? "look here" : "not seen",
    evidence: `About ${Math.round(asks)} asks a session, ${gap < 1 ? "less than a day" : counted(Math.round(gap), "day")} between two.`,
  };
}

/** Whether the rule has held on the rung in these sessions. */
const heldOn = (now: Stretch, before: Stretch, { mastery }: LadderPlan) =>
  passedAfter(
    { ...mastery, days: 1 },
    [...before.trials, ...now.trials]
      .filter(({ rung }) => rung === now.top)
      .map(({ outcome, clean, session, block }) => ({ met: outcome === "met", clean, blockKey: `${session} ${block}`, wallMs: 0 })),
  ) !== null;

/**
 * Whether a behaviour gained nothing over its last three sessions, held against
 * the three before: no higher rung than ever before them, no more answers at
 * the lightest cue and no quicker ones. It says what the numbers did, no more;
 * the checks stand in the order a trainer looks.
 * @param past of one ladder, oldest first.
 * @returns null where something was gained, or there are not six sessions.
 * @example stallOf(past, facts) // { rung: 3, … }
 */
export function stallOf(past: Past, facts: StallFacts): Stall | null {
  const lists = bySession(past);
  const worked = past.sessions.flatMap((session, i) => {
    const trials = lists[i] ?? [];
    return trials.some(({ kind }) => kind === "work") ? [[session, trials] as const] : [];
  });
  if (worked.length < 2 * STALL_SESSIONS) return null;
  const now = stretchOf(worked.slice(-STALL_SESSIONS));
  const before = stretchOf(worked.slice(-2 * STALL_SESSIONS, -STALL_SESSIONS));
  const highest = stretchOf(worked.slice(0, -STALL_SESSIONS)).top;
  if (now.top === 0 || now.top > highest) return null;
  // At the end of its ladder, and held there: there is no higher rung to gain.
  if (now.top === facts.plan.rungs.length && heldOn(now, before, facts.plan)) return null;
  if (now.lightness !== null && before.lightness !== null && now.lightness > before.lightness) return null;
  const seconds = (stretch: Stretch) => (stretch.half === null ? null : (stretch.half.seconds ?? Number.POSITIVE_INFINITY));
  const [a, b] = [seconds(before), seconds(now)];
  if (a !== null && b !== null && b < a) return null;
  // Where neither is known nothing is known of them.
  const share = (value: number | null) => (value === null ? "not known" : `${inHundredths(value)} %`);
  const time = (value: number | null) => (value === null ? "not known" : Number.isFinite(value) ? `${value.toFixed(1)} s` : "never");
  return {
    rung: now.top,
    sentence: `No gain over the last ${STALL_SESSIONS} sessions beside the ${STALL_SESSIONS} before: rung ${now.top}, reached before; at the lightest cue ${share(now.lightness)}, was ${share(before.lightness)}; half answered after ${time(b)}, was ${time(a)}.`,
    checks: [
      painAndKit(now, before, facts),
      restsOn(facts),
      tooBig(now, facts),
      cueClash(now, facts),
      reinforcer(now, before),
      releaseLate(now, facts),
      lengthAndDistance(now, before),
    ],
  };
}
