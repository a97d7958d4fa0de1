import { mixedChance } from "../chance";
import { DRAWS, drawnEnough } from "./draws";

/** What one of the things compared showed in one session: its own less the rest of that session. */
export interface PlacedValue {
  readonly what: string;
  readonly difference: number;
  readonly weight: number;
}

/** What was compared in one session (or one pair of days), in the order in which it came. */
export interface PlacedSession {
  /** Two or more, the one that came first at the front. */
  readonly inOrder: readonly PlacedValue[];
  /** They took turns within the session, so that none came before the other as a whole. */
  readonly tookTurns: boolean;
  /** Only sessions of one kind change their orders about: the same things, come to in the same way. */
  readonly kind: string;
}

/** A difference with the place in the session taken out. */
export interface PlaceOut {
  /** Sessions compared. */
  readonly n: number;
  /** Own less the rest; null where the order has never varied. */
  readonly difference: number | null;
  /** Two-sided p; 1 where the order has never varied. */
  readonly p: number;
  /** Share of what the sessions could tell that the order has left over, 0 (never varied) to 1. */
  readonly kept: number;
}

/** Where so much is left when the place is taken out, the order has varied: of two, one came first in at most three of four. */
export const ORDER_VARIED = 0.75;
/** Up to here every order of two things is gone through. */
export const EVERY_ORDER_UP_TO = 12;
const TOLERANCE = 1e-12;

/** A session as the shuffle needs it: at each place what is left of the value, and where the thing asked about stood. */
interface Row {
  readonly left: readonly number[];
  readonly at: number;
  readonly turns: boolean;
}

/** Sessions whose orders are changed about with each other. */
function rowsOf(sessions: readonly PlacedSession[], what: string): { rows: Row[]; could: number; kept: number } {
  const rows: Row[] = [];
  let could = 0;
  let kept = 0;
  const places = sessions[0]?.inOrder.length ?? 0;
  const massed = sessions.filter(({ tookTurns }) => !tookTurns);
  const byPlace = Array.from({ length: places }, (_, place) => {
    let sum = 0;
    let weight = 0;
    let own = 0;
    for (const { inOrder } of massed) {
      const value = inOrder[place] as PlacedValue;
      sum += value.weight * value.difference;
      weight += value.weight;
      if (value.what === what) own += value.weight;
    }
    return { mean: weight === 0 ? 0 : sum / weight, own: weight === 0 ? 0 : own / weight };
  });
  for (const { inOrder, tookTurns } of sessions) {
    const at = inOrder.findIndex((value) => value.what === what);
    const weight = (inOrder[at] as PlacedValue).weight;
    could += weight;
    kept += tookTurns ? weight : (weight * (1 - (byPlace[at]?.own ?? 0)) * places) / (places - 1);
    rows.push({
      left: inOrder.map((value, place) => value.weight * (value.difference - (tookTurns ? 0 : (byPlace[place]?.mean ?? 0)))),
      at,
      turns: tookTurns,
    });
  }
  return { rows, could, kept };
}

/** Every way in which two things could have come, those that did not take turns keeping how often each came first. */
function everyOrderP(groups: readonly (readonly Row[])[], seen: number): number {
  const rows = groups.flatMap((group, of) => group.map((row) => ({ ...row, of })));
  const first = Float64Array.from(rows, ({ left }) => left[0] as number);
  const second = Float64Array.from(rows, ({ left }) => left[1] as number);
  const firsts = groups.map((group) => group.filter(({ turns, at }) => !turns && at === 0).length);
  const open = groups.map((group) => group.filter(({ turns }) => !turns).length);
  let all = 0;
  let asMuch = 0;
  const walk = (i: number, sum: number): void => {
    const row = rows[i];
    if (row === undefined) {
      all++;
      if (Math.abs(sum) >= seen - TOLERANCE) asMuch++;
      return;
    }
    if (row.turns) {
      walk(i + 1, sum + (first[i] as number));
      walk(i + 1, sum + (second[i] as number));
      return;
    }
    const [left, rest] = [firsts[row.of] as number, open[row.of] as number];
    open[row.of] = rest - 1;
    if (left > 0) {
      firsts[row.of] = left - 1;
      walk(i + 1, sum + (first[i] as number));
      firsts[row.of] = left;
    }
    if (rest > left) walk(i + 1, sum + (second[i] as number));
    open[row.of] = rest;
  };
  walk(0, 0);
  return asMuch / all;
}

function drawnP(groups: readonly (readonly Row[])[], seen: number): number {
  const chance = mixedChance(`order:${groups.reduce((n, group) => n + group.length, 0)}:${seen.toPrecision(12)}`);
  const shuffled = groups.map((group) => {
    const massed = group.filter(({ turns }) => !turns);
    return {
      turns: group.flatMap(({ turns, left }) => (turns ? [left] : [])),
      massed: massed.map(({ left }) => left),
      at: Int32Array.from(massed, ({ at }) => at),
    };
  });
  let asMuch = 0;
  let draws = 0;
  while (draws < DRAWS) {
    if (drawnEnough(draws, asMuch)) break;
    let sum = 0;
    for (const { turns, massed, at } of shuffled) {
      for (const left of turns) sum += left[Math.floor(chance() * left.length)] as number;
      for (let i = massed.length - 1; i >= 0; i--) {
        const j = Math.floor(chance() * (i + 1));
        const place = at[j] as number;
        at[j] = at[i] as number;
        at[i] = place;
        sum += (massed[i] as readonly number[])[place] as number;
      }
    }
    if (Math.abs(sum) >= seen - TOLERANCE) asMuch++;
    draws++;
  }
  return (asMuch + 1) / (draws + 1);
}

/**
 * Whether one of several things worked in the same sessions differs from the
 * rest, with the place in the session taken out: a horse that begins cold,
 * tires or gets better within the session makes what comes first (or last) look
 * different. Of each session's values the mean of their place is taken off, and
 * the orders in which the things came are changed about between the sessions;
 * p is the share of such changes with as large a sum (a randomisation test,
 * Fisher 1935, The Design of Experiments §21, from memory). An order that
 * never varied leaves nothing over, so that nothing is called; where the
 * things took turns within the session, their values change about there.
 * Every order is gone through for two things and up to 12 sessions; else
 * 20 000 drawn ones, the same for the same values.
 * Cost grows with sessions × draws, a fortieth of that where nothing shows.
 * @returns null where no session holds `what` beside something else.
 * @example placeTakenOut(sessions, "left")?.p // 1 where left was always first
 */
export function placeTakenOut(sessions: readonly PlacedSession[], what: string): PlaceOut | null {
  const groups = new Map<string, PlacedSession[]>();
  for (const session of sessions) {
    const { inOrder, kind } = session;
    if (inOrder.length < 2 || !inOrder.some((value) => value.what === what && value.weight > 0)) continue;
    const key = JSON.stringify([kind, inOrder.map((value) => value.what).sort()]);
    const group = groups.get(key);
    if (group === undefined) groups.set(key, [session]);
    else group.push(session);
  }
  if (groups.size === 0) return null;
  const told = [...groups.values()].map((group) => rowsOf(group, what));
  const rows = told.map((group) => group.rows);
  const n = rows.reduce((sum, group) => sum + group.length, 0);
  const could = told.reduce((sum, group) => sum + group.could, 0);
  const kept = told.reduce((sum, group) => sum + group.kept, 0);
  if (kept <= TOLERANCE * could) return { n, difference: null, p: 1, kept: 0 };
  const sum = rows.flat().reduce((all, { left, at }) => all + (left[at] as number), 0);
  const seen = Math.abs(sum);
  const two = rows.flat().every(({ left }) => left.length === 2);
  const p = two && n <= EVERY_ORDER_UP_TO ? everyOrderP(rows, seen) : drawnP(rows, seen);
  return { n, difference: sum / kept, p, kept: kept / could };
}
