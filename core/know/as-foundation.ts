import {
  covers,
  isStale,
  monthOf,
  type Prerequisite,
  type PrerequisiteReadiness,
  prerequisiteWords,
  type ReadinessTime,
} from "../behaviour";
import { EASE_GRADES, type Strand, type StrandValue } from "../strands";
import { placeIn } from "../typed";
import { SIDE_WORDS } from "../words";
import { FIRST_LOOK_ITEMS, type FirstLook, resultOf } from "./first-look";
import { ACCEPTED_GRADE, TOOLS_TOWARDS_HAND, TOUCH_BEHAVIOUR, type Touch, TouchMap, type TouchTool, type TouchZone } from "./touch-map";

/**
 * A touch that work may rest on, as a prerequisite on {@link TOUCH_BEHAVIOUR}:
 * zone, tool, side ("left", "right" or "both") and how it must be taken at the least.
 * @example touchNeed("hind hoof", "brush") // both sides, soft or softer
 */
export const touchNeed = (
  zone: TouchZone,
  tool: TouchTool,
  taken = ACCEPTED_GRADE,
  side: "left" | "right" | "both" = "both",
): Prerequisite => ({
  behaviour: TOUCH_BEHAVIOUR,
  values: { zone, tool, side, taken: EASE_GRADES[taken] ?? "soft" },
});

/** The newest touch of a zone by the tool, or by one nearer to the hand: what takes the hand takes the stick. */
function newestTouch(map: TouchMap, zone: TouchZone, tool: TouchTool, side: "L" | "R") {
  const from = TOOLS_TOWARDS_HAND.indexOf(tool);
  const counting = from < 0 ? [tool] : TOOLS_TOWARDS_HAND.slice(from);
  return counting
    .flatMap((one) => map.of(side, zone, one) ?? [])
    .reduce<ReturnType<TouchMap["of"]>>((newest, one) => (newest === null || one.wallMs > newest.wallMs ? one : newest), null);
}

/**
 * Whether the body map holds a touch that is wanted: on each side its newest, graded so at the least, and not too old.
 * @example touchReadiness(need, [], { nowWallMs: 1792454400000, staleDays: 90 })
 */
export function touchReadiness(need: Prerequisite, touches: readonly Touch[], time: ReadinessTime): PrerequisiteReadiness {
  const { zone, tool = "hand", side = "both", taken } = need.values as Record<string, string>;
  const least = taken === undefined ? ACCEPTED_GRADE : placeIn(EASE_GRADES, taken);
  const map = new TouchMap(touches);
  const base = { behaviour: TOUCH_BEHAVIOUR, wanted: prerequisiteWords(need), ladderId: null };
  const sides = side === "left" ? (["L"] as const) : side === "right" ? (["R"] as const) : (["L", "R"] as const);
  const found = sides.map((one) => ({ side: one, touch: newestTouch(map, zone as TouchZone, tool as TouchTool, one) }));
  const missing = found.filter(({ touch }) => touch === null).map((one) => SIDE_WORDS[one.side]);
  if (missing.length === found.length) return { ...base, state: "unknown", sentence: `Not touched there with the ${tool} yet.` };
  if (missing.length > 0) return { ...base, state: "unknown", sentence: `Not touched there with the ${tool} on the ${missing[0]} yet.` };
  const touched = found.flatMap(({ side: one, touch }) => (touch === null ? [] : [{ side: one, touch }]));
  const short = touched.filter(({ touch }) => touch.grade < least);
  if (short.length > 0) {
    const words = short.map(({ side: one, touch }) => `${EASE_GRADES[touch.grade]} on the ${SIDE_WORDS[one]}`).join(", ");
    return { ...base, state: "not-yet", sentence: `Last taken ${words}.` };
  }
  const oldest = Math.min(...touched.map(({ touch }) => touch.wallMs));
  if (isStale(oldest, time)) return { ...base, state: "stale", sentence: `Taken so in ${monthOf(oldest, time.nowWallMs)}, check.` };
  return { ...base, state: "shown", sentence: `Last taken so in ${monthOf(oldest, time.nowWallMs)}.` };
}

/** What an item of the first look tests of a behaviour: the strand values one met answer shows, and nothing beyond. */
export interface TestedByLook {
  readonly item: string;
  readonly strands: readonly Strand[];
  readonly values: Readonly<Record<string, StrandValue>>;
}

/**
 * What the first look says of a prerequisite nothing else shows: `seen` where
 * its item asked as much and at least half of its asks were met on every side,
 * otherwise null. An item counts for what it tested and no more.
 * @example lookReadiness(need, "Hind yield", tested, look, { nowWallMs: 1792454400000, staleDays: 90 })
 */
export function lookReadiness(
  need: Prerequisite,
  name: string,
  tested: TestedByLook | null,
  look: { readonly look: FirstLook; readonly wallMs: number } | null,
  time: ReadinessTime,
): PrerequisiteReadiness | null {
  if (tested === null || look === null || isStale(look.wallMs, time) || !covers(tested.strands, tested.values, need)) return null;
  const sided = FIRST_LOOK_ITEMS.find(({ key }) => key === tested.item)?.sided === true;
  const results = (sided ? (["L", "R"] as const) : ([null] as const)).map((side) => resultOf(look.look, tested.item, side));
  const most = need.maxPhase ?? Number.POSITIVE_INFINITY;
  const good = results.every(
    (one) => one !== null && one.metPhases.filter((phase) => (phase ?? 1) <= most).length * 2 >= one.n && one.met > 0,
  );
  if (!good) return null;
  const met = results.reduce((sum, one) => sum + (one?.met ?? 0), 0);
  const n = results.reduce((sum, one) => sum + (one?.n ?? 0), 0);
  const asked = FIRST_LOOK_ITEMS.find(({ key }) => key === tested.item)?.asks ?? "";
  return {
    behaviour: name,
    wanted: prerequisiteWords(need),
    ladderId: null,
    state: "seen",
    sentence: `Seen in the first look of ${monthOf(look.wallMs, time.nowWallMs)}, ${met} of ${n}: “${asked}”. No more was tested.`,
  };
}
