import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { QueryTypes } from "sequelize";
import { isWork, type SessionKind } from "@/core/events";
import {
  type AnalyseOptions,
  type AnalyseOutput,
  analyseTrialsText,
  type HorsePast,
  type OverSessions,
  overSessions,
  readSessionsCsv,
  writeSessionsCsv,
  writeTrialsCsv,
} from "@/core/formats";
import type { SessionRelief } from "@/core/know";
import {
  catchUp,
  closeStore,
  digestsOfHorse,
  type HorseRow,
  listHorses,
  listLadders,
  listPlaces,
  loadSession,
  openStore,
  pastOfHorse,
  plansOf,
  readPackage,
  type Store,
} from "@/store";

/** What the screens over weeks read of a horse, from its first session to its last. */
async function horsePast(store: Store, { id, name }: HorseRow, withoutLate: boolean): Promise<HorsePast> {
  const ladders = await listLadders(store, id);
  const [past, digests, places] = await Promise.all([
    pastOfHorse(store, id, { fromMs: 0, ladders }),
    digestsOfHorse(store, id),
    listPlaces(store),
  ]);
  const trials = withoutLate ? past.trials.filter(({ logged }) => logged !== "late") : past.trials;
  const wanted = new Map<string, { ladder: string; version: number }>();
  for (const { ladder, version } of trials)
    if (ladder !== null && version !== null) wanted.set(`${version} ${ladder}`, { ladder, version });
  const plans = new Map((await plansOf(store, [...wanted.values()])).map(({ ladder, version, plan }) => [`${version} ${ladder}`, plan]));
  const byPlace = new Map<string, SessionRelief[]>();
  for (const { session, digest } of digests)
    if (session.place_id !== null && digest.relief.zones.length > 0)
      byPlace.set(session.place_id, [...(byPlace.get(session.place_id) ?? []), digest.relief]);
  return {
    horse: name,
    past: { ...past, trials },
    places: [...byPlace].map(([place, sessions]) => ({ place: places.find((one) => one.id === place)?.name ?? null, sessions })),
    moments: true,
    planOf: (ladder, version) => plans.get(`${version} ${ladder}`),
    names: new Map(ladders.map((ladder) => [ladder.id, ladder.behaviour.name])),
  };
}

/** Every measure of a package: it is read into a store of its own, and its sessions come out as the tables `analyse` takes. */
export async function analysePackage(file: string, options: AnalyseOptions): Promise<AnalyseOutput> {
  const folder = mkdtempSync(join(tmpdir(), "deft-package-"));
  const store = await openStore(join(folder, "yard.sqlite"));
  try {
    await readPackage(store, file);
    // What the screens read is summed up first: only so many sessions are worked out as they are asked for.
    await catchUp(store);
    const rows = await store.sequelize.query<{ id: string; kind: SessionKind }>(
      "SELECT id, kind FROM session WHERE binned_ms IS NULL ORDER BY created_ms, id",
      { type: QueryTypes.SELECT },
    );
    let trials = writeTrialsCsv([]);
    let sessions = writeSessionsCsv([]);
    const rest = (text: string) => text.slice(text.indexOf("\n") + 1);
    for (const { id, kind } of rows) {
      if (!isWork(kind)) continue;
      const { record } = await loadSession(store, id);
      if (record.trials.length === 0) continue;
      trials += rest(writeTrialsCsv([{ id, record }]));
      sessions += rest(writeSessionsCsv([{ id, record }]));
    }
    const measures = analyseTrialsText(trials, {
      ...options,
      workSeconds: options.workSeconds ?? readSessionsCsv(sessions).workSeconds,
      overSessions: false,
    });
    const over: OverSessions[] = [];
    for (const horse of await listHorses(store)) {
      const one = await horsePast(store, horse, options.withoutLate ?? false);
      if (one.past.trials.length > 0) over.push(overSessions(one));
    }
    return { ...measures, over_sessions: over };
  } finally {
    await closeStore(store);
    rmSync(folder, { recursive: true, force: true });
  }
}
