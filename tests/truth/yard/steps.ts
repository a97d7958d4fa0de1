import type { Chance } from "@/core/chance";
import { type Arm, drawOrder, type TryBoth, tryResult } from "@/core/experiment";
import { type Past, raisesOf, raiseTold } from "@/core/past";
import { type WrittenSession, writePast } from "@/tests/support/past-writer";
import type { Dials } from "./dials";
import { alike, dayOf, logit, shareOf, withinSession } from "./season";

/** Asks of a session, whoever works to a number. */
const ASKS = 16;
/** A trainer who waits for a good run gives up after so many sessions. */
const MOST_SESSIONS = 30;

/** Answers one after the other over the sessions of a yard: each call is an ask. */
function asked(chance: Chance, dials: Dials, middle: number, season: number) {
  const next = dayOf(chance, dials);
  let day = -1;
  let today = 0;
  let n = ASKS;
  let near = alike(chance, dials.asksAlike);
  return (harder = 0): { readonly met: boolean; readonly day: number } => {
    if (n >= ASKS) {
      day++;
      n = 0;
      ({ today } = next());
      near = alike(chance, dials.asksAlike);
    }
    const grown = dials.learnsOver * Math.min(1, day / season);
    const at = middle + today + grown + withinSession(dials, n) + (dials.asksAlike > 0 ? near() : 0) - harder;
    n++;
    return { met: chance() < shareOf(at), day };
  };
}

/**
 * A step up, taken as soon as nine of the last ten were right, onto a rung that
 * is harder by so many logits, and the ten after it: whether the app says that
 * it came too soon or was too big. Null where no such run came.
 */
export function steppedUp(chance: Chance, dials: Dials, share: number, harder: number): boolean | null {
  const ask = asked(chance, dials, logit(share), 6);
  const days: { met: boolean; rung: number }[][] = [];
  const put = (rung: number) => {
    const { met, day } = ask(rung === 2 ? harder : 0);
    while (days.length <= day) days.push([]);
    days[day]?.push({ met, rung });
    return day;
  };
  const all = () => days.flat().map(({ met }) => met);
  do if (put(1) >= MOST_SESSIONS) return null;
  while (all().length < 10 || all().slice(-10).filter(Boolean).length < 9);
  for (let i = 0; i < 10; i++) put(2);
  const past = writePast(
    days.map((trials, day): WrittenSession => ({ day, trials: trials.map(({ met, rung }) => ({ outcome: met ? "met" : "miss", rung })) })),
  );
  const [raise] = raisesOf(past, () => undefined);
  return raise === undefined ? null : raiseTold(raise).fell;
}

const BLOCKS = 12;
const ASKS_EACH = 8;
/** An experiment of two ways, its order left open. */
export const TRIED: TryBoth = {
  id: "",
  ladder: "",
  version: 1,
  rung: 1,
  question: "",
  a: "food",
  b: "a scratch",
  ways: { A: {}, B: {} },
  counts: "share",
  arms: [],
  mostAlike: 2,
  asksEach: ASKS_EACH,
  createdMs: 0,
  endedMs: null,
  endedWhy: null,
};

/**
 * Twelve blocks of two ways, three a day, the second better by so many logits.
 * A trainer who looks (by failure, success or the word) ends them from the
 * sixth on, where the means lie 30 points apart.
 * @returns what is said of it.
 */
export function triedBoth(chance: Chance, dials: Dials, better: number): string {
  const arms = drawOrder(chance, BLOCKS, TRIED.mostAlike) as Arm[];
  const next = dayOf(chance, dials);
  let today = 0;
  let near = alike(chance, dials.asksAlike);
  const blocks: { number: number; worked: Arm; value: number | null; session: string; startedMs: number; asks: number }[] = [];
  const mean = (arm: Arm) => {
    const of = blocks.flatMap(({ worked, value }) => (worked === arm && value !== null ? [value] : []));
    return of.reduce((sum, value) => sum + value, 0) / Math.max(1, of.length);
  };
  for (const [i, worked] of arms.entries()) {
    if (i % 3 === 0) {
      ({ today } = next());
      near = alike(chance, dials.asksAlike);
    }
    const middle = today + dials.learnsOver * (i / (BLOCKS - 1)) - (2 * i >= BLOCKS ? dials.harder : 0) + (worked === "B" ? better : 0);
    let met = 0;
    for (let n = 0; n < ASKS_EACH; n++)
      if (chance() < shareOf(middle + withinSession(dials, (i % 3) * ASKS_EACH + n) + (dials.asksAlike > 0 ? near() : 0))) met++;
    // A block that was not noted holds no value: any of them, or those that went badly.
    const lost = dials.missing === "random" ? chance() < 0.15 : dials.missing === "bad days" && met <= 2 && chance() < 0.5;
    blocks.push({ number: i + 1, worked, value: lost ? null : met / ASKS_EACH, session: "", startedMs: 0, asks: ASKS_EACH });
    if (dials.trainer !== "habit" && i >= 5 && Math.abs(mean("A") - mean("B")) >= 0.3 && i < BLOCKS - 1)
      return tryResult({ ...TRIED, arms, endedMs: 1, endedWhy: "seen" }, blocks).sentence;
  }
  return tryResult({ ...TRIED, arms }, blocks).sentence;
}

const RUNGS = 7;
const MOST_ASKS = 60;

/**
 * Seven rungs, each learned on one side and then on the other, until eight of
 * ten. Misses grow rarer from ask to ask; the second side takes so much of the
 * first's asks.
 */
export function learnedTwice(chance: Chance, dials: Dials, left: number): Past {
  const next = dayOf(chance, dials);
  const days: WrittenSession[] = [];
  const sides: readonly ("L" | "R")[] = ["L", "R"];
  const begun = (rung: number) => (dials.order === "by turns" && rung % 2 === 1 ? [...sides].reverse() : sides);
  for (let rung = 0; rung < RUNGS; rung++)
    for (const [i, side] of begun(rung).entries()) {
      const { today } = next();
      const near = alike(chance, dials.asksAlike);
      const trials: { outcome: "met" | "miss" }[] = [];
      for (let n = 0; n < MOST_ASKS; n++) {
        const known = 1 - 0.7 * Math.exp(-n / (i === 0 ? 14 : 14 * left));
        const at = logit(Math.min(0.98, known)) + today + withinSession(dials, n) + (dials.asksAlike > 0 ? near() : 0);
        trials.push({ outcome: chance() < shareOf(at) ? "met" : "miss" });
      }
      days.push({ day: 2 * rung + i, trials, all: { rung: rung + 1, side } });
    }
  return writePast(days);
}
