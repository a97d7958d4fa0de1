import type * as z from "zod";
import type { CircleOverride, CirclePlan, Ways } from "../events/circle-plan";
import type { YardSettings } from "../settings";
import type { Age, Allowance, Cap } from "../welfare";
import { counted } from "../words";
import type { ownCircleCapsDocument } from "./document";
import { planSums } from "./plan";

/** What one horse has of its own, beside the yard's. null: the yard's holds. */
export type OwnCircleCaps = z.infer<typeof ownCircleCapsDocument>;

export const NO_OWN_CAPS: OwnCircleCaps = { sessionMinutes: null, weekMinutes: null, weekVisits: null };

/** The settings of the yard that bear on circling. */
export type CircleSettings = Pick<
  YardSettings,
  | "circleMinutes"
  | "circleWeekMinutes"
  | "circleYoungYears"
  | "circleYoungVisits"
  | "circleRestDays"
  | "circleNewKitMinutes"
  | "circleCanterMetres"
  | "penMinutes"
  | "heatWatchShare"
  | "heatCutShare"
>;

/** How much circling there may be, each with the sentence it comes from. */
export interface CircleCaps {
  readonly sessionMinutes: Cap<number>;
  readonly penMinutes: Cap<number>;
  /** Circling minutes in seven days; null caps nothing. */
  readonly weekMinutes: Cap<number> | null;
  /** Sessions with circling in seven days; null caps nothing. */
  readonly weekVisits: Cap<number> | null;
  /** Both said, where one way a day in turn makes minutes count and not visits. */
  readonly sentence: string | null;
}

const lower = (a: Cap<number>, b: Cap<number> | null): Cap<number> => (b !== null && b.value < a.value ? b : a);

/**
 * The caps on circling of one horse on a day: the yard's, those for the young,
 * the horse's own, and what restrictions say, the lowest of each. One way a
 * day in turn counts minutes a week in place of visits (common practice, no source).
 * @example circleCaps(input) // { sentence: null, … }
 */
export function circleCaps(input: {
  readonly age: Age | null;
  readonly allowance: Allowance;
  readonly settings: CircleSettings;
  readonly own: OwnCircleCaps;
  readonly ways: Ways;
  readonly heat: "usual" | "watch" | "cut" | "stop" | null;
}): CircleCaps {
  const { age, allowance, settings, own, ways, heat } = input;
  const young = age !== null && age.years < settings.circleYoungYears;
  let sessionMinutes: Cap<number> = { value: settings.circleMinutes, why: "A setting of this yard." };
  if (own.sessionMinutes !== null) sessionMinutes = lower(sessionMinutes, { value: own.sessionMinutes, why: "This horse's own." });
  sessionMinutes = lower(sessionMinutes, allowance.circlingMinutes);

  const share = heat === "cut" || heat === "stop" ? settings.heatCutShare : heat === "watch" ? settings.heatWatchShare : 1;
  const pen = Math.min(settings.penMinutes * share, sessionMinutes.value);
  const penMinutes: Cap<number> = {
    value: pen,
    why:
      pen < settings.penMinutes && share < 1
        ? "Driven in a pen, less in heat: a setting of this yard."
        : "Driven in a pen, a setting of this yard.",
  };

  let visits: Cap<number> | null = null;
  if (young && settings.circleYoungVisits > 0)
    visits = { value: settings.circleYoungVisits, why: `Under ${counted(settings.circleYoungYears, "year")}, a setting of this yard.` };
  if (own.weekVisits !== null) visits = { value: own.weekVisits, why: "This horse's own." };
  let minutes: Cap<number> | null =
    settings.circleWeekMinutes > 0 ? { value: settings.circleWeekMinutes, why: "A setting of this yard." } : null;
  if (own.weekMinutes !== null)
    minutes =
      minutes === null
        ? { value: own.weekMinutes, why: "This horse's own." }
        : lower(minutes, { value: own.weekMinutes, why: "This horse's own." });
  if (visits === null || ways === "both") return { sessionMinutes, penMinutes, weekMinutes: minutes, weekVisits: visits, sentence: null };
  const inTurn: Cap<number> = { value: visits.value * sessionMinutes.value, why: visits.why };
  return {
    sessionMinutes,
    penMinutes,
    weekMinutes: minutes === null ? inTurn : lower(inTurn, minutes),
    weekVisits: null,
    sentence: `${counted(visits.value, "session")} a week with both ways in it; one way a day in turn: ${counted(inTurn.value, "minute")} of circling a week in any number of sessions.`,
  };
}

/**
 * * What was circled in the last seven days against what may be, as one sentence; null where nothing caps and nothing was.
 * @example circlingSentence({ weekMinutes: 24.6, weekVisits: 2 }, caps)
 */
export function circlingSentence(use: Pick<CircleUse, "weekMinutes" | "weekVisits">, caps: CircleCaps): string | null {
  if (use.weekVisits === 0 && caps.weekMinutes === null && caps.weekVisits === null) return null;
  const most = [
    `at most ${minutesWords(caps.sessionMinutes.value)} in a day`,
    ...(caps.weekMinutes === null ? [] : [`${minutesWords(caps.weekMinutes.value)} in seven days`]),
    ...(caps.weekVisits === null ? [] : [`${counted(caps.weekVisits.value, "session")} in seven days`]),
  ];
  return `Circling in the last 7 days: ${counted(use.weekVisits, "session")}, ${minutesWords(use.weekMinutes)}; ${most.join(", ")}. ${caps.sentence ?? dot((caps.weekVisits ?? caps.weekMinutes ?? caps.sessionMinutes).why)}`;
}

/** Circling minutes that may still be worked, by the cap that is nearest. */
export interface CirclingLeft extends Cap<number> {
  /** Whether it is the day's cap or that of seven days. */
  readonly by: "day" | "week";
}

/**
 * Circling minutes that may still be worked before the day's cap or that of
 * seven days is reached, the nearer of the two; never under 0.
 * @param holds whether each cap holds: one that was gone against with a word of why does not.
 * @returns null where no cap holds.
 * @example circlingLeft({ todayMinutes: 12, weekMinutes: 40 }, { day: { value: 20, why }, week: null })?.value // 8
 */
export function circlingLeft(
  use: Pick<CircleUse, "todayMinutes" | "weekMinutes">,
  holds: { readonly day: Cap<number> | null; readonly week: Cap<number> | null },
): CirclingLeft | null {
  const left = (cap: Cap<number> | null, used: number, by: CirclingLeft["by"]): CirclingLeft[] =>
    cap === null ? [] : [{ value: Math.max(0, cap.value - used), why: cap.why, by }];
  const [first, second] = [...left(holds.day, use.todayMinutes, "day"), ...left(holds.week, use.weekMinutes, "week")];
  if (first === undefined) return null;
  return second !== undefined && second.value < first.value ? second : first;
}

/**
 * Why no more is to be circled now, or null: the day's, the week's minutes or the week's sessions are used up.
 * @example usedUpCircling(use, caps)
 */
export function usedUpCircling(use: Pick<CircleUse, "weekMinutes" | "weekVisits" | "todayMinutes">, caps: CircleCaps): string | null {
  const { sessionMinutes, weekMinutes, weekVisits } = caps;
  if (sessionMinutes.value > 0 && use.todayMinutes >= sessionMinutes.value)
    return `${minutesWords(use.todayMinutes)} of circling today, the most for one day. ${dot(sessionMinutes.why)}`;
  if (weekMinutes !== null && use.weekMinutes >= weekMinutes.value)
    return `${minutesWords(use.weekMinutes)} of circling in the last 7 days; at most ${minutesWords(weekMinutes.value)}. ${dot(weekMinutes.why)}`;
  if (weekVisits !== null && use.weekVisits >= weekVisits.value)
    return `${counted(use.weekVisits, "session")} of circling in the last 7 days; at most ${weekVisits.value}. ${dot(weekVisits.why)}`;
  return null;
}

/** What was circled before, as the caps see it. */
export interface CircleUse {
  readonly weekMinutes: number;
  readonly weekVisits: number;
  readonly todayMinutes: number;
  /** Whole days since the last session with circling; null where there was none. */
  readonly daysSince: number | null;
  /** The way of the last session where it had one; null where it had both or none. */
  readonly lastSide: "L" | "R" | null;
  /** Whether the kit of the plan was worn before at this stage. */
  readonly kitWorn: boolean;
}

/** Where it is to be worked. */
export interface CirclePlace {
  readonly name: string;
  /** The widest circle that fits it, in metres; null where that is not known. */
  readonly acrossMetres: number | null;
}

/** One thing to be said of a plan. A wall is closed by a restriction; a caution may be gone against with a word of why. */
export interface CircleCaution {
  readonly key:
    | "no-circling"
    | "no-work"
    | "gait"
    | "one-side"
    | "too-long"
    | "week"
    | "visits"
    | "canter-small"
    | "too-soon"
    | "too-young"
    | "new-kit"
    | "same-way"
    | "place"
    | "traffic"
    | "release";
  readonly sentence: string;
  readonly wall: boolean;
}

/** Under this age any circling is said to be early, in years (common practice, no source). */
const EARLY_YEARS = 2;
const RANK: Readonly<Record<string, number>> = { stand: 0, walk: 1, trot: 2, canter: 3 };
const minutesWords = (value: number) => `${value >= 10 ? Math.round(value) : Math.round(value * 10) / 10} min`;
const dot = (text: string) => (text.endsWith(".") ? text : `${text}.`);

/**
 * What is to be said of a plan before it is worked; the planner, the route that
 * begins it and the recorder ask it.
 * @example planCautions(plan, caps, use, horse, settings) // 3 of them
 */
export function planCautions(
  plan: CirclePlan,
  caps: CircleCaps,
  use: CircleUse,
  horse: { readonly age: Age | null; readonly allowance: Allowance },
  settings: CircleSettings,
  place: CirclePlace | null = null,
): CircleCaution[] {
  const said: CircleCaution[] = [];
  const wall = (key: CircleCaution["key"], sentence: string) => said.push({ key, sentence, wall: true });
  const caution = (key: CircleCaution["key"], sentence: string) => said.push({ key, sentence, wall: false });
  const { allowance, age } = horse;
  const sums = planSums(plan);
  const round = plan.form !== "lines" || plan.radiusMetres !== null;
  if (allowance.noWork !== null) wall("no-work", allowance.noWork.why);
  if (round && sums.movingMinutes > 0 && allowance.circlingMinutes?.value === 0) wall("no-circling", allowance.circlingMinutes.why);
  const gait = allowance.highestGait;
  if (gait !== null && plan.segments.some((segment) => (RANK[segment.gait] ?? 0) > (RANK[gait.value] ?? 3))) wall("gait", gait.why);
  const only = allowance.side;
  if (only !== null && plan.segments.some(({ side, gait: moves }) => moves !== "stand" && (side === "L") !== (only.value === "left")))
    wall("one-side", only.why);
  if (!round) return lineCautions(plan, said, allowance.circlingMinutes);

  const across = plan.radiusMetres === null ? 0 : Math.round(plan.radiusMetres * 20) / 10;
  if (place !== null && place.acrossMetres !== null && across > place.acrossMetres)
    caution("place", `The circle is ${across} m across and ${place.name} ${place.acrossMetres} m: it does not fit.`);
  const cap = plan.form === "pen" ? caps.penMinutes : caps.sessionMinutes;
  const today = use.todayMinutes;
  if (cap.value > 0 && sums.movingMinutes + today > cap.value)
    caution(
      "too-long",
      `${minutesWords(sums.movingMinutes)} of circling${today > 0 ? ` and ${minutesWords(today)} earlier today` : ""}; at most ${minutesWords(cap.value)}. ${dot(cap.why)}`,
    );
  if (caps.weekMinutes !== null && use.weekMinutes + sums.movingMinutes > caps.weekMinutes.value)
    caution(
      "week",
      `${minutesWords(use.weekMinutes)} of circling in the last 7 days, with this ${minutesWords(use.weekMinutes + sums.movingMinutes)}; at most ${minutesWords(caps.weekMinutes.value)}. ${dot(caps.weekMinutes.why)}`,
    );
  if (caps.weekVisits !== null && use.weekVisits + 1 > caps.weekVisits.value)
    caution(
      "visits",
      `${counted(use.weekVisits, "session")} of circling in the last 7 days; at most ${caps.weekVisits.value} a week. ${dot(caps.weekVisits.why)}`,
    );
  if (
    plan.radiusMetres !== null &&
    plan.radiusMetres * 2 < settings.circleCanterMetres &&
    plan.segments.some((segment) => segment.gait === "canter")
  )
    caution("canter-small", `Canter on a circle ${across} m across; ${settings.circleCanterMetres} m or more loads the legs less.`);
  if (age !== null && age.years < EARLY_YEARS) caution("too-young", "Under two years: as little circling as can be, in walk.");
  const both = plan.ways === "both";
  if (both && settings.circleRestDays > 0 && use.daysSince !== null && use.daysSince <= settings.circleRestDays)
    caution(
      "too-soon",
      `The last circling was ${use.daysSince === 0 ? "today" : use.daysSince === 1 ? "yesterday" : `${use.daysSince} days ago`}; ${counted(settings.circleRestDays, "day")} between is this yard's rule.`,
    );
  if (
    !both &&
    use.lastSide !== null &&
    plan.segments.some(({ side, gait: moves }) => moves !== "stand" && side === use.lastSide) &&
    sums.leftShare !== 0.5
  )
    caution(
      "same-way",
      `The last time went to the ${use.lastSide === "L" ? "left" : "right"} as well; one way a day in turn goes to the other.`,
    );
  const first = plan.kit !== null && !use.kitWorn;
  const faster = plan.segments.some((segment) => (RANK[segment.gait] ?? 0) > 1);
  if (first && (faster || sums.movingMinutes > settings.circleNewKitMinutes))
    caution("new-kit", `First time in this kit at this stage: walk alone, ${minutesWords(settings.circleNewKitMinutes)} at most.`);
  return lineCautions(plan, said);
}

function lineCautions(
  { form, lines, radiusMetres }: CirclePlan,
  said: CircleCaution[],
  noCircling: Cap<number> | null = null,
): CircleCaution[] {
  if (form !== "lines" || lines === null) return said;
  if (noCircling !== null && noCircling.value === 0 && radiusMetres === null)
    said.push({
      key: "no-circling",
      sentence: `Straight lines only. A turn of less than 10 m radius is circling. ${noCircling.why}`,
      wall: false,
    });
  if (!lines.releaseChecked)
    said.push({ key: "release", sentence: "The quick release was not tried yet. Try it before the lines are on.", wall: false });
  if (lines.traffic !== "none" && lines.head === "")
    said.push({ key: "traffic", sentence: "Beside traffic somebody walks at the head.", wall: false });
  return said;
}

/**
 * What still stands in the way of beginning: walls, and cautions nobody has said a word about.
 * @example standingCautions(cautions, []) // 2 of them
 */
export const standingCautions = (cautions: readonly CircleCaution[], overrides: readonly CircleOverride[]): CircleCaution[] =>
  cautions.filter(({ key, wall }) => wall || !overrides.some((one) => one.key === key && one.why.trim() !== ""));
