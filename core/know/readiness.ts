import { MILLISECONDS_PER_DAY } from "../units";
import { type Allowance, barredBehaviour, barredLegs, type Involvement } from "../welfare";
import { counted, SIDE_WORDS } from "../words";
import { FIRST_LOOK_ITEMS, FIRST_LOOK_PHASES, type FirstLook, resultOf } from "./first-look";

/** What must answer, at which phase or lighter, before a behaviour is begun. */
export interface Need {
  readonly item: string;
  readonly phase: number;
}

/** A behaviour with what it rests on. Common practice, no source. */
export interface ReadyBehaviour {
  readonly name: string;
  readonly needs: readonly Need[];
  /** What it involves that a restriction may name. */
  readonly involves?: readonly Involvement[];
}

const need = (item: string, phase: number): Need => ({ item, phase });

/** What each kind of work rests on (common practice, no source). */
export const READY_BEHAVIOURS: readonly ReadyBehaviour[] = [
  { name: "lead in step", needs: [need("forward", 2), need("back-lead", 3)] },
  { name: "back from a light touch", needs: [need("poll", 3), need("back-lead", 4)] },
  { name: "side-step", needs: [need("hind", 3), need("front", 3)] },
  { name: "stand and wait", needs: [need("poll", 3), need("back-lead", 3), need("stays", 4)] },
  { name: "each foot handled", needs: [need("touch", 3), need("poll", 3), need("back-lead", 3)], involves: ["legs"] },
  { name: "stand on a plate", needs: [need("forward", 3), need("back-lead", 3)] },
  { name: "through a narrow place", needs: [need("forward", 2), need("back-lead", 2), need("stick", 3)] },
  { name: "circle on a line", needs: [need("bend", 3), need("hind", 3), need("front", 3), need("stick", 3)], involves: ["circling"] },
  { name: "stand at a post", needs: [need("poll", 2), need("forward", 2), need("stays", 3)], involves: ["tying"] },
  { name: "stay with you free", needs: [need("comes", 3), need("stays", 3), need("hind", 3)] },
  { name: "circle round you free", needs: [need("returns", 3), need("bend", 2), need("stick", 3)], involves: ["circling"] },
];

export type ReadyState = "not today" | "ready to try" | "not sure" | "not yet" | "not looked at";

/** Where a behaviour stands after a look. `missing` holds words, one for each need that is not met. */
export interface Readiness {
  readonly name: string;
  readonly state: ReadyState;
  readonly missing: readonly string[];
}

const itemName = (key: string) => FIRST_LOOK_ITEMS.find((item) => item.key === key)?.name ?? key;
const phaseName = (phase: number) => FIRST_LOOK_PHASES[phase - 1]?.label ?? `phase ${phase}`;

type NeedState = { readonly state: "met" | "unsure" | "short" | "unseen"; readonly words: string };

/** So many asks, and so many of them good, say that a need is met (common practice, no source). */
const ASKS_TO_BE_SURE = 5;
const GOOD_TO_BE_SURE = 4;
/** A look older than this says nothing about today, in days. */
const FRESH_DAYS = 14;

function stateOfNeed(look: FirstLook, { item: key, phase }: Need): NeedState {
  const item = FIRST_LOOK_ITEMS.find((one) => one.key === key);
  const sides = item?.sided === true ? (["L", "R"] as const) : ([null] as const);
  const short: string[] = [];
  const unsure: string[] = [];
  const unseen: string[] = [];
  for (const side of sides) {
    const result = resultOf(look, key, side);
    const where = side === null ? "" : ` ${SIDE_WORDS[side]}`;
    if (result === null) unseen.push(where.trim());
    else if (result.met * 2 < result.n || result.met === 0) short.push(`${where} ${result.met} of ${result.n}`.trim());
    else if (result.lightestPhase !== null && result.lightestPhase > phase)
      short.push(`${where} took ${phaseName(result.lightestPhase)}, ${phaseName(phase)} wanted`.trim());
    else {
      // A met answer without a noted phase says nothing against it.
      const lightly = result.metPhases.filter((one) => one === null || one <= phase).length;
      if (lightly * 2 < result.n) short.push(`${where} ${lightly} of ${result.n} at ${phaseName(phase)} or lighter`.trim());
      else if (result.n < ASKS_TO_BE_SURE || lightly * ASKS_TO_BE_SURE < GOOD_TO_BE_SURE * result.n)
        unsure.push(`${where} ${lightly} of ${result.n}`.trim());
    }
  }
  const words = (list: readonly string[]) =>
    `${itemName(key)}${list.some((w) => w !== "") ? `: ${list.filter((w) => w !== "").join("; ")}` : ""}`;
  if (short.length > 0) return { state: "short", words: words(short) };
  if (unseen.length > 0) return { state: "unseen", words: words(unseen) };
  if (unsure.length > 0) return { state: "unsure", words: words(unsure) };
  return { state: "met", words: "" };
}

/** What stands around a look. */
export interface LookAround {
  /** What restrictions and age allow today: it is asked first. */
  readonly allowance: Allowance;
  /** Signs of danger or pain in that look, by name. */
  readonly danger: readonly string[];
  readonly startedMs: number;
  readonly nowWallMs: number;
}

/**
 * What a look shows to be ready. What is restricted today comes first and
 * beats everything. A need is met where four of five asks were, at the phase
 * wanted or lighter, on both sides where it has sides, none of it dangerous and
 * not longer ago than a fortnight. One to three asks an item cannot prove it:
 * then nobody can be sure.
 * @example readinessOf(look, { … }) // 11 of them
 */
export function readinessOf(look: FirstLook, { allowance, danger, startedMs, nowWallMs }: LookAround): Readiness[] {
  const days = Math.floor((nowWallMs - startedMs) / MILLISECONDS_PER_DAY);
  return READY_BEHAVIOURS.map(({ name, needs, involves = [] }) => {
    const barred =
      allowance.noWork?.why ??
      barredBehaviour(involves, allowance) ??
      (involves.includes("legs") ? (barredLegs("L", allowance) ?? barredLegs("R", allowance)) : null);
    if (barred !== null) return { name, state: "not today", missing: [barred] };
    const states = needs.map((one) => stateOfNeed(look, one));
    const of = (state: NeedState["state"]) => states.filter((one) => one.state === state).map(({ words }) => words);
    const [short, unseen, unsure] = [of("short"), of("unseen"), of("unsure")];
    const doubts = [
      ...unsure,
      ...(danger.length === 0 ? [] : [`It showed danger in that look: ${danger.join(", ")}.`]),
      ...(days <= FRESH_DAYS ? [] : [`Looked at ${counted(days, "day")} ago.`]),
    ];
    const state: ReadyState =
      short.length > 0 ? "not yet" : unseen.length > 0 ? "not looked at" : doubts.length > 0 ? "not sure" : "ready to try";
    return { name, state, missing: state === "not sure" ? doubts : [...short, ...unseen] };
  });
}

/** What to begin with, and why. */
export interface Beginning {
  readonly item: string;
  readonly name: string;
  readonly side: "L" | "R" | null;
  readonly reason: string;
}

/**
 * The item to begin with: the one not yet met that most behaviours wait for;
 * among equals the one earlier in the battery. On a sided item the weaker side first.
 * @returns null where nothing that was looked at is short.
 * @example beginWith(look) // { item: "stick", side: "R", … }
 */
export function beginWith(look: FirstLook): Beginning | null {
  let best: { item: string; waiting: string[] } | null = null;
  for (const { key } of FIRST_LOOK_ITEMS) {
    const waiting = READY_BEHAVIOURS.filter(({ needs }) =>
      needs.some((one) => one.item === key && stateOfNeed(look, one).state === "short"),
    ).map(({ name }) => name);
    if (waiting.length > (best?.waiting.length ?? 0)) best = { item: key, waiting };
  }
  if (best === null) return null;
  const left = resultOf(look, best.item, "L");
  const right = resultOf(look, best.item, "R");
  const rank = (result: typeof left) => (result === null ? 1 : result.met / result.n - (result.lightestPhase ?? 5) / 100);
  const side = left === null && right === null ? null : rank(left) <= rank(right) ? "L" : "R";
  const [first, ...others] = best.waiting;
  const more = others.length === 0 ? "" : others.length === 1 ? ` and ${others[0]}` : ` and ${others.length} more`;
  return {
    item: best.item,
    name: itemName(best.item),
    side,
    reason: `${first}${more} ${best.waiting.length === 1 ? "waits" : "wait"} for it.`,
  };
}
