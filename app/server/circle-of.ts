import "server-only";
import type { LoadEntry } from "@/core/circle";
import { addDays } from "@/core/day";
import type { PackWorked } from "@/core/pack";
import { type PlannerStart, plannerStart } from "@/core/start";
import { circleState, loadEntriesOf } from "@/core/today";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import { asBehaviour, getHorse, type HandLoadRow, handLoad, involvesOf, listLadders, listSessions, type Store } from "@/store";
import { findOr404 } from "./find-or-404";
import { today } from "./horse-care";
import { asWorked, horsePack, yardFacts } from "./pack";
import { getStore } from "./store";

/** What the pages of circle work begin with, of the horse in the address. */
export async function circlePage(
  params: Promise<{ horse: string }>,
): Promise<{ readonly start: PlannerStart; readonly entries: readonly LoadEntry[]; readonly storeId: string }> {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const [pack, yard] = await Promise.all([horsePack(store, horse), yardFacts(store)]);
  return { start: plannerStart(pack, yard, store.now()), entries: circleState(pack, yard, store.now()).entries, storeId: store.id };
}

/** Sessions of this many weeks are read for the load book, no more than these. */
const LOAD_WEEKS = 26;
const MOST_SESSIONS = 3000;

/** A horse's work of half a year, as the load book has it. Three questions, whatever the number of sessions. */
export async function loadOf(
  store: Store,
  horseId: string,
): Promise<{
  readonly entries: readonly LoadEntry[];
  readonly worked: readonly PackWorked[];
  readonly byHand: readonly HandLoadRow[];
  readonly from: string;
}> {
  const from = addDays(today(store), -7 * LOAD_WEEKS + 7);
  const [sessions, ladders, byHand] = await Promise.all([
    listSessions(store, horseId, { limit: MOST_SESSIONS, sinceMs: store.now() - LOAD_WEEKS * 7 * MILLISECONDS_PER_DAY }),
    listLadders(store, horseId),
    handLoad(store, horseId, from),
  ]);
  const worked = sessions.map(asWorked);
  const known = ladders.map((ladder) => ({ id: ladder.id, involves: involvesOf(ladder), behaviour: asBehaviour(ladder.behaviour) }));
  return {
    entries: loadEntriesOf(
      worked,
      known,
      byHand.map(({ day, kind, minutes }) => ({ day, kind: kind as LoadEntry["kind"], minutes })),
      store.timeZone,
      store.now(),
    ),
    worked,
    byHand,
    from,
  };
}
