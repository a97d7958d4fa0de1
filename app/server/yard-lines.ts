import "server-only";
import { tellApart } from "@/core/know";
import type { YardSettings } from "@/core/settings";
import { byStanding, COOL_HOURS } from "@/core/today";
import { dueWords } from "@/core/welfare";
import type { YardLine } from "@/features/yard/yard";
import {
  aftermathsOf,
  asHorseDate,
  asNamed,
  coolingHorses,
  datesByHorse,
  getSettings,
  ladderHeads,
  laddersWithPlans,
  lastWorked,
  lastWorkedMs,
  listHorses,
  openSessions,
  restrictionsByHorse,
  type Store,
} from "@/store";
import { careOf, type HorseCare, today } from "./horse-care";
import { AFTERMATH_MS, type LadderState, LOOK_BACK_MS, nextStartTrials, peopleNames, stateOf } from "./ladder-state";

/**
 * Where each horse's first ladder stands: what may be worked, then the one
 * last worked. The last worked is looked at first; only where that is barred
 * today are the others.
 */
async function firstLadders(
  store: Store,
  care: ReadonlyMap<string, HorseCare>,
  settings: YardSettings,
): Promise<ReadonlyMap<string, LadderState>> {
  const nowWallMs = store.now();
  const [heads, last, aftermaths] = await Promise.all([
    ladderHeads(store),
    lastWorkedMs(store, nowWallMs - LOOK_BACK_MS),
    aftermathsOf(store, null, nowWallMs - AFTERMATH_MS),
  ]);
  const names = await peopleNames(store);
  const look = async (ids: readonly string[]) => {
    const ladders = await laddersWithPlans(store, ids);
    const evidence = await nextStartTrials(store, ladders, settings);
    return ladders.flatMap((ladder) => {
      const of = care.get(ladder.horseId);
      if (of === undefined) return [];
      return [
        stateOf(ladder, evidence.get(ladder.id), {
          allowance: of.allowance,
          settings,
          nowWallMs,
          // The Yard says what comes next, not on which side to begin.
          weakerSide: null,
          handler: null,
          names,
          aftermaths: aftermaths.get(ladder.horseId) ?? [],
        }),
      ];
    });
  };
  const newest = new Map<string, string>();
  for (const { id, horseId } of heads) {
    const there = newest.get(horseId);
    if (there === undefined || (last.get(id) ?? 0) > (last.get(there) ?? 0)) newest.set(horseId, id);
  }
  const first = await look([...newest.values()]);
  const barred = new Set(first.filter(({ next }) => next.barred !== null).map(({ ladder }) => ladder.horseId));
  const others = heads.filter(({ id, horseId }) => barred.has(horseId) && newest.get(horseId) !== id).map(({ id }) => id);
  const all = [...first, ...(await look(others))].sort(byStanding);
  return new Map(all.toReversed().map((state) => [state.ladder.horseId, state]));
}

/** One line for each horse: what to mind, its last work and what comes next. The number of questions does not grow with the horses. */
export async function yardLines(store: Store): Promise<YardLine[]> {
  const [horses, restrictions, last, open, settings, dates, cooling] = await Promise.all([
    listHorses(store),
    restrictionsByHorse(store),
    lastWorked(store),
    openSessions(store, null),
    getSettings(store),
    datesByHorse(store),
    coolingHorses(store, store.now() - COOL_HOURS * 3_600_000),
  ]);
  const day = today(store);
  const apart = tellApart(horses.map(asNamed));
  const care = new Map(horses.map((horse) => [horse.id, careOf(horse, restrictions.get(horse.id) ?? [], day, settings)]));
  const ladders = await firstLadders(store, care, settings);
  return horses.map((horse) => {
    const state = ladders.get(horse.id);
    const worked = last.get(horse.id);
    return {
      id: horse.id,
      name: horse.name,
      apart: apart.get(horse.id) ?? "",
      sample: horse.sample,
      away: horse.away,
      limits: care.get(horse.id)?.sentences ?? [],
      due: [
        ...(cooling.has(horse.id) ? ["A cool-down is not finished."] : []),
        ...(dates.get(horse.id) ?? []).flatMap((date) => dueWords(asHorseDate(date), day) ?? []),
      ],
      lookAt: horse.look_at,
      runningId: open.find(({ horseId, running }) => running && horseId === horse.id)?.id ?? null,
      last:
        worked === undefined || worked.summary.started_ms === null
          ? null
          : {
              sessionId: worked.session.id,
              startedMs: worked.summary.started_ms,
              finished: worked.summary.finished,
              workSeconds: worked.summary.work_s,
              n: worked.summary.n,
              met: worked.summary.met,
              drawing: worked.summary.drawing,
            },
      next:
        state === undefined ? null : { behaviour: state.ladder.behaviour.name, headline: state.next.headline, reason: state.next.reason },
    };
  });
}
