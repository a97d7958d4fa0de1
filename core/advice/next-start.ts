import { lastTimeOn, type SessionAftermath } from "../aftermath";
import { oneSideKnown, SINCE_IT_CAME, toldShare } from "../compare";
import { shareOfTrials } from "../evidence";
import { type LadderPlan, oneSideADay } from "../ladder";
import type { EvidenceTrial } from "../record/evidence-scope";
import { DEFAULT_SETTINGS, type YardSettings } from "../settings";
import { MILLISECONDS_PER_DAY } from "../units";
import { type Allowance, allowedRung, barredLegs, barredRung } from "../welfare/restrictions";
import { counted, otherSide, SIDE_WORDS } from "../words";
import { barredToday } from "./closed";
import { movingOnSentence, valuesGoalOf } from "./goal";
import { lastHandler, othersOf, trialsOfPair } from "./pair";
import { whereItStands } from "./where-it-stands";

/** Where the next session starts on a ladder, and why. */
export interface NextStart {
  readonly rung: number;
  /** A probe tests the rung without teaching it. */
  readonly kind: "work" | "probe";
  readonly headline: string;
  readonly reason: string;
  /** Why this ladder may not be worked today, or null. */
  readonly barred: string | null;
  /** What other people's work on the ladder came to, which does not count here; left out where there is none. */
  readonly beside?: string;
}

/** What is looked at: a plan's present version and the ladder's trials, oldest first. */
export interface NextStartInput {
  readonly plan: LadderPlan;
  readonly ladder: string;
  readonly version: number;
  readonly trials: readonly EvidenceTrial[];
  readonly nowWallMs: number;
  /** What restrictions and age allow today; left out where nothing limits it. */
  readonly allowance?: Allowance;
  /** The side known to be behind over all the horse's work; null or left out where none is. */
  readonly weakerSide?: "L" | "R" | null;
  /** What the behaviour involves that a restriction may name. */
  readonly involves?: readonly string[];
  /** Who is going to handle, as trials name them; left out or null for whoever worked it last. */
  readonly handler?: string | null;
  /** Names of handlers by what trials name them. */
  readonly names?: ReadonlyMap<string, string>;
  /** What the horse's sessions of work left behind, oldest first: danger, pain, wrong choices, tension. */
  readonly aftermaths?: readonly SessionAftermath[];
}

/** Which side to begin on: by turns where a day has one side, otherwise the weaker one where one is known to be. */
function sideToBegin(plan: LadderPlan, worked: readonly EvidenceTrial[], weaker: "L" | "R" | null): string {
  if (!oneSideADay(plan.ways)) return oneSideKnown(weaker);
  const last = worked.findLast(({ side }) => side !== null)?.side;
  return last == null ? "" : ` One side a day: last time ${SIDE_WORDS[last]}, today ${SIDE_WORDS[otherSide(last)]}.`;
}

/**
 * Chooses the rung the next session starts on, by the same judge that gives
 * the recorder its word: the next one where the rule is met, the one before
 * where Ease stood when it was left, a split where that was said, otherwise
 * the rung it was going well on; then no higher than restrictions and age
 * allow today.
 * @example nextStart(input) // { rung: 2, kind: "work", barred: null, … }
 */
export function nextStart(input: NextStartInput, settings: YardSettings = DEFAULT_SETTINGS): NextStart {
  const wanted: NextStart = { ...afterLastTime(input, startOfPair(input, settings), settings), barred: null };
  const { allowance, plan } = input;
  if (allowance === undefined) return wanted;
  const why = barredToday(input.involves ?? [], plan, allowance);
  if (why !== null) return { ...wanted, headline: "Not today", reason: why, barred: why };
  const open = allowedRung(plan, wanted.rung, allowance);
  if (open === null) {
    const reason = barredRung(plan, wanted.rung, allowance)[0]?.why ?? "";
    return { ...wanted, headline: "Not today", reason, barred: reason };
  }
  // One side's leg is closed: the other one alone is worked, and it is said.
  const legs = (input.involves ?? []).includes("legs") ? (["L", "R"] as const).flatMap((side) => barredLegs(side, allowance) ?? []) : [];
  if (legs[0] !== undefined)
    return { ...wanted, ...(open.rung === wanted.rung ? {} : { rung: open.rung }), reason: `${legs[0]} ${wanted.reason}` };
  if (open.rung === wanted.rung) return wanted;
  return {
    ...wanted,
    rung: open.rung,
    kind: "work",
    headline: `Work on rung ${open.rung} for now`,
    reason: `${open.why} ${wanted.reason}`,
  };
}

/** The start as last time lets it be: danger, pain, wrong choices and tension begin lower, whoever handles. */
function afterLastTime(input: NextStartInput, start: Omit<NextStart, "barred">, settings: YardSettings): Omit<NextStart, "barred"> {
  const last = input.trials.findLast((t) => t.ladder === input.ladder && t.kind === "work");
  const found = lastTimeOn({
    ladder: input.ladder,
    top: input.plan.rungs.length,
    aftermaths: input.aftermaths ?? [],
    last: last ?? null,
    usualDays: settings.usualDays,
    leastMinutes: settings.watchLeastMinutes,
  });
  if (found === null) return start;
  const rung = Math.min(start.rung, found.rung);
  // A test the evidence asked for stays one, and so does what is begun lower than last time asks.
  const kind = found.test || start.kind === "probe" ? "probe" : "work";
  const headline = kind === "probe" ? `Test rung ${rung} first` : `Start on rung ${rung}`;
  return { ...start, rung, kind, headline, reason: `${found.sentence} ${start.reason}` };
}

/** Where the pair starts: by its own evidence, or a rung under that of others the first time. */
function startOfPair(input: NextStartInput, settings: YardSettings): Omit<NextStart, "barred"> {
  const all = input.trials.filter((t) => t.ladder === input.ladder);
  const handler = input.handler ?? lastHandler(all);
  const own = trialsOfPair(all, handler, settings);
  if (own === all) return startByEvidence(input, settings);
  // Who is known by name alone is named by that.
  const name = (of: string) => input.names?.get(of) ?? (/^[0-9a-f-]{36}$/.test(of) ? "another person" : of);
  const others = othersOf(all, handler);
  const beside = `Not counted here: ${others.map(({ handler: other, rung, met, of }) => `with ${name(other)} rung ${rung}, ${met} of ${of} last time`).join("; ")}.`;
  if (own.some(({ kind }) => kind === "work")) return { ...startByEvidence({ ...input, trials: own }, settings), beside };
  const [other] = others;
  if (other === undefined) return startByEvidence({ ...input, trials: own }, settings);
  const theirs = startByEvidence({ ...input, trials: trialsOfPair(all, other.handler, settings) }, settings);
  const first = `First time together: with ${name(other.handler)} it stands at rung ${theirs.rung}.`;
  return theirs.rung > 1
    ? {
        rung: theirs.rung - 1,
        kind: "work",
        headline: `Start on rung ${theirs.rung - 1}`,
        reason: `${first} A rung lower, until it answers you too.`,
        beside,
      }
    : { rung: 1, kind: "probe", headline: "Test rung 1 first", reason: `${first} See whether it answers you too.`, beside };
}

function startByEvidence(input: NextStartInput, settings: YardSettings): Omit<NextStart, "barred"> {
  const { plan, ladder, version, trials, nowWallMs } = input;
  const top = plan.rungs.length;
  const worked = trials.filter((t) => t.ladder === ladder && t.kind === "work");
  const last = worked.at(-1);
  if (last === undefined) return { rung: 1, kind: "work", headline: "Start on rung 1", reason: "No work on this ladder yet." };
  const days = Math.floor((nowWallMs - last.wallMs) / MILLISECONDS_PER_DAY);
  if (days > settings.evidenceMaxAgeDays) {
    const rung = Math.min(last.rung, top);
    return {
      rung,
      kind: "probe",
      headline: `Test rung ${rung} first`,
      reason: `The last work was ${counted(days, "day")} ago; what it showed is too old to count.`,
    };
  }
  if (last.version !== version || last.rung > top) {
    const rung = Math.min(last.rung, top);
    return {
      rung,
      kind: "work",
      headline: `Start on rung ${rung}`,
      reason: `The ladder was changed since: rung ${rung} of version ${version} has no trials yet.`,
    };
  }
  const standing = whereItStands({ plan, ladder, version, trials: worked, nowWallMs }, settings);
  const { rung, advice, left, evidence } = standing;
  const share = toldShare(shareOfTrials(evidence), SINCE_IT_CAME).sentence;
  const work = (at: number, headline: string, reason: string) => ({ rung: at, kind: "work" as const, headline, reason });
  // What speaks against the rung above stays said, also where the one below is met again.
  const above = left === null ? "" : ` Rung ${left.rung} went ${left.met} of ${left.of} last time.`;
  switch (advice.word) {
    case "Up": {
      const rule = movingOnSentence(plan.mastery, valuesGoalOf(plan, rung));
      if (left !== null && left.rung === rung + 1 && left.word === "Add a step")
        return work(rung, `Add a step below rung ${left.rung}`, `${left.reason} Until then rung ${rung}.`);
      return work(rung + 1, `Start on rung ${rung + 1}`, `Rung ${rung} is done: ${rule}. ${share}${above}`);
    }
    case "Finish": {
      const rule = movingOnSentence(plan.mastery, valuesGoalOf(plan, rung));
      // A rule over days that held on one of them is not met: the same rung again, on another day.
      if (advice.why === "day") {
        const { days = 0, ofDays = 0 } = advice.numbers;
        return work(
          rung,
          `Stay on rung ${rung}`,
          `Rung ${rung} held on ${days} of ${ofDays} days. Again on another day: ${rule}. ${share}${above}`,
        );
      }
      return rung < top
        ? work(rung + 1, `Start on rung ${rung + 1}`, `Rung ${rung} is done: ${rule}. ${share}${above}`)
        : work(rung, `Keep rung ${rung}`, `Top rung done: ${rule}. ${share} Keep it fresh, or plan the next thing.`);
    }
    case "Add a step":
      return work(Math.max(1, rung - 1), `Add a step below rung ${rung}`, `${advice.reason} Until then rung ${rung - 1}. ${share}`);
    case "Go back":
      return rung > 1
        ? work(rung - 1, `Go back to rung ${rung - 1}`, `On rung ${rung}: ${advice.reason} ${share}`)
        : work(rung, `Stay on rung ${rung}`, `${advice.reason} ${share}`);
    default:
      return work(rung, `Stay on rung ${rung}`, `${share}${above}${sideToBegin(plan, worked, input.weakerSide ?? null)}`);
  }
}
