import { type Day, dayWords, isDay } from "../day";
import type { LadderPlan } from "../ladder";
import { isOneOf, isRecord, placeIn } from "../typed";
import type { AgeCaution } from "./age";

/** What a restriction switches off or caps. */
export const RESTRICTION_KINDS = [
  "no-work",
  "work-minutes",
  "repetitions",
  "no-circling",
  "circling-minutes",
  "highest-gait",
  "one-side",
  "no-food",
  "weight-limit",
  "no-tying",
  "touch-off",
  "other",
] as const;
export type RestrictionKind = (typeof RESTRICTION_KINDS)[number];

/** What kind of detail a restriction needs to say what it means. */
export type RestrictionDetail = "none" | "amount" | "gait" | "side" | "touch-zone";

interface KindFacts {
  readonly words: string;
  readonly detail: RestrictionDetail;
  readonly unit: string;
  readonly range: readonly [number, number];
}

export const RESTRICTION_FACTS: Readonly<Record<RestrictionKind, KindFacts>> = {
  "no-work": { words: "no work at all", detail: "none", unit: "", range: [0, 0] },
  "work-minutes": { words: "minutes of work a session", detail: "amount", unit: "min", range: [1, 240] },
  repetitions: { words: "repetitions a session", detail: "amount", unit: "", range: [1, 500] },
  "no-circling": { words: "no circling", detail: "none", unit: "", range: [0, 0] },
  "circling-minutes": { words: "minutes of circling a session", detail: "amount", unit: "min", range: [1, 120] },
  "highest-gait": { words: "no faster gait than", detail: "gait", unit: "", range: [0, 0] },
  "one-side": { words: "one side only", detail: "side", unit: "", range: [0, 0] },
  "no-food": { words: "no food", detail: "none", unit: "", range: [0, 0] },
  "weight-limit": { words: "carries or draws at most", detail: "amount", unit: "kg", range: [0, 500] },
  "no-tying": { words: "no tying", detail: "none", unit: "", range: [0, 0] },
  "touch-off": { words: "not to be touched at", detail: "touch-zone", unit: "", range: [0, 0] },
  other: { words: "other advice", detail: "none", unit: "", range: [0, 0] },
};

/** Gaits from the slowest; a cap on gait bars every later one. */
export const GAITS_SLOWEST_FIRST = ["stand", "walk", "trot", "canter"] as const;

/** What this version cannot read: it is shown as it was written, and closes all work until somebody has read it. */
export const UNREAD = "unread";

/** One restriction of one horse. `from` and `until` are days, both included; null is open. */
export interface Restriction {
  readonly kind: RestrictionKind | typeof UNREAD;
  /** Of an amount: minutes, repetitions or kg. */
  readonly amount: number | null;
  /** Of a gait, a side or a touch zone: its name. */
  readonly detail: string | null;
  /** Of a touch zone: which leg, or which side of the body; null or left out where nobody said, which means all of them. */
  readonly limb?: Limb | null;
  /** Of a leg that may not be touched: whether the horse may carry it while the others are handled; null or left out where nobody said. */
  readonly carriesOthers?: boolean | null;
  readonly reason: string;
  readonly givenBy: string;
  readonly from: Day | null;
  readonly until: Day | null;
  /** Days on which somebody went against it, each with the reason; left out where nobody did. */
  readonly goneAgainst?: readonly GoneAgainst[];
}

/** A leg of the horse, or a side of its body. */
export const LIMBS = ["left fore", "right fore", "left hind", "right hind", "left", "right"] as const;
export type Limb = (typeof LIMBS)[number];

/** One day on which a wall was gone against, with the reason. */
export interface GoneAgainst {
  readonly day: Day;
  readonly reason: string;
  /** When somebody took it back, in ms since 1970; left out where nobody did. It then opens nothing any more. */
  readonly taken_back_ms?: number;
}

/**
 * What was said when a restriction was gone against on a day, or null where nobody did or took it back.
 * @example goneAgainstOn(restriction, "2026-11-25") // { day: "2026-11-25", … }
 */
export const goneAgainstOn = ({ goneAgainst = [] }: Pick<Restriction, "goneAgainst">, day: Day): GoneAgainst | null =>
  goneAgainst.findLast((one) => one.day === day && one.taken_back_ms === undefined) ?? null;

/**
 * Days on which a wall was gone against. What cannot be read opens nothing.
 * @param kept JSON text.
 * @example goneAgainstIn('[{"day":"2026-03-09","reason":"only held"}]').length // 1
 */
export function goneAgainstIn(kept: unknown): GoneAgainst[] {
  let list: unknown;
  try {
    list = JSON.parse(typeof kept === "string" && kept !== "" ? kept : "[]");
  } catch {
    return [];
  }
  return (Array.isArray(list) ? list : []).filter(
    (one: unknown): one is GoneAgainst => isRecord(one) && isDay(one.day) && typeof one.reason === "string",
  );
}

/** Work that a behaviour involves and a restriction may name. */
export const INVOLVEMENTS = ["circling", "tying", "loading", "load", "legs"] as const;
export type Involvement = (typeof INVOLVEMENTS)[number];

/** Whether a restriction holds on a day. @example holdsOn(restriction, "2026-06-03") // true */
export function holdsOn(restriction: Restriction, day: Day): boolean {
  return (restriction.from === null || restriction.from <= day) && (restriction.until === null || day <= restriction.until);
}

/** Whether two restrictions say the same kind of thing for some of the same days. @example restrictionsOverlap(a, b) // true */
export function restrictionsOverlap(a: Restriction, b: Restriction): boolean {
  if (a.kind !== b.kind || a.kind === "other" || a.kind === UNREAD) return false;
  if (a.kind === "touch-off" && (a.detail !== b.detail || (a.limb ?? null) !== (b.limb ?? null))) return false;
  return (a.from === null || b.until === null || a.from <= b.until) && (b.from === null || a.until === null || b.from <= a.until);
}

/** What a restriction says, without its reason: "no faster gait than walk". @example restrictionWords(restriction) // "no food" */
export function restrictionWords({ kind, amount, detail, limb = null, carriesOthers = null }: Restriction): string {
  if (kind === UNREAD) return "no work: this version cannot read a restriction";
  const { words, unit } = RESTRICTION_FACTS[kind];
  switch (kind) {
    case "work-minutes":
    case "repetitions":
    case "circling-minutes":
      return `at most ${amount} ${words}`;
    case "weight-limit":
      return `${words} ${amount} ${unit}`;
    case "highest-gait":
      return `${words} ${detail}`;
    case "touch-off": {
      const where =
        limb === null ? detail : isLegZone(detail ?? "") ? `${limb} ${(detail ?? "").replace("hind ", "")}` : `${detail}, ${limb}`;
      const others = !isLegZone(detail ?? "") ? "" : carriesOthers === true ? "; the other legs may be handled" : "; no leg may be handled";
      return `${words} ${where}${others}`;
    }
    case "one-side":
      return `${detail} side only`;
    default:
      return words;
  }
}

/** The restriction as a sentence with its end, its reason and who gave it. @example restrictionSentence(restriction) // "No food." */
export function restrictionSentence(restriction: Restriction): string {
  const { kind, reason, givenBy, until } = restriction;
  const words = restrictionWords(restriction);
  if (kind === UNREAD) return `${words[0]?.toUpperCase()}${words.slice(1)}. It says “${reason}”. Read it, then write it anew or end it.`;
  const said = kind === "other" && reason !== "" ? reason.replace(/\.$/, "") : `${words[0]?.toUpperCase()}${words.slice(1)}`;
  const why = kind === "other" || reason === "" ? "" : `: ${reason.replace(/\.$/, "")}`;
  const until_ = until === null ? "" : ` until ${dayWords(until)}`;
  return `${said}${until_}${why}.${givenBy === "" ? "" : ` Advice of ${givenBy}.`}`;
}

/** A cap with the sentence that says where it comes from; `value` in the unit the name says. */
export interface Cap<T> {
  readonly value: T;
  readonly why: string;
}

/** A zone that may not be touched: on one leg or side where that was said, otherwise wherever it is. */
export interface TouchCap extends Cap<string> {
  readonly limb?: Limb | null;
  readonly carriesOthers?: boolean | null;
}

/** Whether a zone on a side may not be touched. @example closesZone({ value: "fetlock", why: "", limb: "left fore" }, "fetlock", "R") // false */
export function closesZone({ value, limb = null }: TouchCap, zone: string, side: "L" | "R"): boolean {
  if (value === "" || !zone.toLowerCase().includes(value.toLowerCase())) return false;
  return limb === null || limb.startsWith(side === "L" ? "left" : "right");
}

/** Everything today's restrictions and the horse's age allow. null caps nothing. */
export interface Allowance {
  readonly noWork: Cap<true> | null;
  readonly workMinutes: Cap<number> | null;
  readonly repetitions: Cap<number> | null;
  readonly circlingMinutes: Cap<number> | null;
  readonly highestGait: Cap<string> | null;
  readonly side: Cap<"left" | "right"> | null;
  readonly noFood: Cap<true> | null;
  readonly loadKg: Cap<number> | null;
  readonly noTying: Cap<true> | null;
  readonly touchOff: readonly TouchCap[];
  /** Restrictions of one kind that overlap: the stricter holds, and the screen says so. */
  readonly overlaps: readonly Restriction["kind"][];
}

const stricter = (a: Cap<number> | null, b: Cap<number>): Cap<number> => (a === null || b.value < a.value ? b : a);

/**
 * Sums up what holds on a day, less what was gone against on it. Where two restrictions of one kind overlap the
 * stricter holds; two sides that exclude each other leave no work on either,
 * which is said as no work.
 * @example allowanceOn([], "2026-01-01", null) // { noWork: null, workMinutes: null, repetitions: null, … }
 */
export function allowanceOn(restrictions: readonly Restriction[], day: Day, age: AgeCaution | null): Allowance {
  // What nobody has read yet nobody can go against.
  const holding = restrictions.filter(
    (restriction) => holdsOn(restriction, day) && (restriction.kind === UNREAD || goneAgainstOn(restriction, day) === null),
  );
  let noWork: Cap<true> | null = null;
  let workMinutes: Cap<number> | null = null;
  let repetitions: Cap<number> | null = null;
  let circlingMinutes: Cap<number> | null = null;
  let highestGait: Cap<string> | null = null;
  let side: Cap<"left" | "right"> | null = null;
  let noFood: Cap<true> | null = null;
  let loadKg: Cap<number> | null = null;
  let noTying: Cap<true> | null = null;
  const touchOff: TouchCap[] = [];
  if (age !== null) {
    if (age.workMinutes !== null) workMinutes = { value: age.workMinutes, why: age.sentence };
    circlingMinutes = { value: age.circlingMinutes, why: age.sentence };
  }
  for (const restriction of holding) {
    const why = restrictionSentence(restriction);
    const amount = restriction.amount ?? 0;
    switch (restriction.kind) {
      case UNREAD:
      case "no-work":
        noWork ??= { value: true, why };
        break;
      case "work-minutes":
        workMinutes = stricter(workMinutes, { value: amount, why });
        break;
      case "repetitions":
        repetitions = stricter(repetitions, { value: amount, why });
        break;
      case "no-circling":
        circlingMinutes = stricter(circlingMinutes, { value: 0, why });
        break;
      case "circling-minutes":
        circlingMinutes = stricter(circlingMinutes, { value: amount, why });
        break;
      case "highest-gait": {
        const rank = (gait: string) => placeIn(GAITS_SLOWEST_FIRST, gait);
        const gait = restriction.detail ?? "walk";
        if (highestGait === null || rank(gait) < rank(highestGait.value)) highestGait = { value: gait, why };
        break;
      }
      case "one-side": {
        const only = restriction.detail === "left" ? "left" : "right";
        if (side !== null && side.value !== only) noWork ??= { value: true, why: `${side.why} ${why} Together they leave no side.` };
        side ??= { value: only, why };
        break;
      }
      case "no-food":
        noFood ??= { value: true, why };
        break;
      case "weight-limit":
        loadKg = stricter(loadKg, { value: amount, why });
        break;
      case "no-tying":
        noTying = { value: true, why };
        break;
      case "touch-off":
        touchOff.push({
          value: restriction.detail ?? "",
          why,
          limb: restriction.limb ?? null,
          carriesOthers: restriction.carriesOthers ?? null,
        });
        break;
    }
  }
  const overlaps = [
    ...new Set(holding.filter((one, i) => holding.some((other, j) => i !== j && restrictionsOverlap(one, other))).map(({ kind }) => kind)),
  ];
  return { noWork, workMinutes, repetitions, circlingMinutes, highestGait, side, noFood, loadKg, noTying, touchOff, overlaps };
}

/** The part of a ladder an allowance speaks about. */
export type RestrictedPlan = Pick<LadderPlan, "strands" | "rungs" | "method">;

/**
 * How fast a gait is, for a cap: a known one by its place among the gaits; a
 * user's own by the gait its name holds, unless the list puts it after a faster
 * one ("running walk" after trot), which then decides.
 */
function gaitRank(levels: readonly string[], level: string): number {
  const named = (words: string) => GAITS_SLOWEST_FIRST.findIndex((gait) => words.toLowerCase().includes(gait));
  const own = named(level);
  if (isOneOf(GAITS_SLOWEST_FIRST, level.toLowerCase())) return own;
  const before = levels.slice(0, Math.max(0, levels.indexOf(level))).reduce((most, one) => Math.max(most, named(one)), -1);
  return own >= before ? own : before + 0.5;
}

/** Why a strand's value may not be asked for, or null. @example barredValue(strand, 8, allowance) // "No circling." */
export function barredValue(strand: LadderPlan["strands"][number], value: unknown, allowance: Allowance): string | null {
  switch (strand.key) {
    case "circle":
      return allowance.circlingMinutes?.value === 0 ? allowance.circlingMinutes.why : null;
    case "gait":
      if (allowance.highestGait === null || typeof value !== "string") return null;
      return gaitRank(strand.levels, value) > gaitRank([], allowance.highestGait.value) ? allowance.highestGait.why : null;
    case "side":
      return allowance.side !== null && value !== allowance.side.value ? allowance.side.why : null;
    case "load":
      return allowance.loadKg !== null && typeof value === "number" && strand.kind === "number" && value > allowance.loadKg.value
        ? allowance.loadKg.why
        : null;
    case "touch-zone": {
      const named = typeof value === "string" ? value.toLowerCase() : "";
      return allowance.touchOff.find((cap) => cap.value !== "" && named.includes(cap.value.toLowerCase()))?.why ?? null;
    }
    default:
      return null;
  }
}

/** Zones of the legs: handling the legs is closed while one of them may not be touched. */
const LEG_ZONES: readonly string[] = [
  "foreleg upper",
  "knee",
  "cannon",
  "fetlock",
  "hoof",
  "hock",
  "hind cannon",
  "hind fetlock",
  "hind hoof",
];

/** Whether a zone is one of a leg. @example isLegZone("hock") // true */
export const isLegZone = (zone: string): boolean => LEG_ZONES.includes(zone.toLowerCase());

/**
 * Why no leg of a side may be handled, or null. A leg that may not be touched
 * closes all four until somebody says that the horse may carry it while the
 * others are handled; then it closes its own side, since a ladder does not say
 * which of the two legs of a side it is about. A leg nobody named is every leg.
 * @example barredLegs("L", allowance) // "Not to be touched at fetlock; no leg may be handled."
 */
export function barredLegs(side: "L" | "R", { touchOff }: Pick<Allowance, "touchOff">): string | null {
  const closes = ({ value, limb = null, carriesOthers = null }: TouchCap) =>
    isLegZone(value) && (limb === null || carriesOthers !== true || limb.startsWith(side === "L" ? "left" : "right"));
  return touchOff.find(closes)?.why ?? null;
}

/**
 * Why a whole behaviour may not be worked, or null: what it involves is barred.
 * @example barredBehaviour(["circling"], allowance) // "No circling."
 */
export function barredBehaviour(involves: readonly string[], allowance: Allowance): string | null {
  if (involves.includes("circling") && allowance.circlingMinutes?.value === 0) return allowance.circlingMinutes.why;
  if (involves.includes("tying") && allowance.noTying !== null) return allowance.noTying.why;
  if (involves.includes("legs")) {
    const [left, right] = [barredLegs("L", allowance), barredLegs("R", allowance)];
    if (left !== null && right !== null) return left;
  }
  if (involves.includes("load") && allowance.loadKg?.value === 0) return allowance.loadKg.why;
  return null;
}

/** Why a method may not be used, or null. @example barredMethod("marker-food", allowance) // "No food." */
export function barredMethod(method: string, allowance: Allowance): string | null {
  return method === "marker-food" && allowance.noFood !== null ? allowance.noFood.why : null;
}

/**
 * Why a rung may not be worked, strand by strand; empty where it may.
 * A rung that asks for both sides is open while one side is: the other is switched off.
 * @example barredRung(plan, 2, allowance) // [{ strandId: "s", why: "No circling." }]
 */
export function barredRung(plan: RestrictedPlan, rung: number, allowance: Allowance): { strandId: string; why: string }[] {
  const values = plan.rungs[rung - 1]?.values;
  if (values === undefined) return [];
  const own = plan.rungs[rung - 1]?.method;
  const method = own === undefined ? null : barredMethod(own, allowance);
  const byStrand = plan.strands.flatMap((strand) => {
    const value = values[strand.id];
    if (strand.key === "side" && value === "both") return [];
    const why = barredValue(strand, value, allowance);
    return why === null ? [] : [{ strandId: strand.id, why }];
  });
  return method === null ? byStrand : [...byStrand, { strandId: "", why: method }];
}

/**
 * The highest rung at or below the wanted one that may be worked.
 * @returns the rung and why it is not the wanted one; null where none may.
 * @example allowedRung(plan, 1, allowance) // { rung: 1, why: null }
 */
export function allowedRung(plan: RestrictedPlan, wanted: number, allowance: Allowance): { rung: number; why: string | null } | null {
  const why = barredRung(plan, wanted, allowance)[0]?.why ?? null;
  for (let rung = wanted; rung >= 1; rung--) {
    if (barredRung(plan, rung, allowance).length === 0) return { rung, why: rung === wanted ? null : why };
  }
  return null;
}
