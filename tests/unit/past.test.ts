import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type PastFacts, type PastTrial, pastFactsOf, pastTrialsOf } from "@/core/past";
import {
  carriedRungsOf,
  closeStore,
  listHorses,
  listLadders,
  listSessions,
  loadSession,
  openStore,
  pastOfHorse,
  type Store,
} from "@/store";
import { populateDemo } from "../support/demo";

const NOW = Date.UTC(2026, 3, 1, 12);
let folder: string;
let store: Store;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "past-"));
  store = await openStore(join(folder, "yard.sqlite"), () => NOW);
  await populateDemo(store, NOW, 6);
});
afterAll(async () => {
  await closeStore(store);
  rmSync(folder, { recursive: true, force: true });
});

/** The same by loading every session from its events, one after another. */
async function slowly(horse: string) {
  const ladders = await listLadders(store, horse);
  const carried = await carriedRungsOf(store, ladders);
  const listed = (await listSessions(store, horse, { limit: 1000 }))
    .filter(({ session: { kind, ladder_id } }) => kind === "work" || (kind === "circle" && ladder_id !== null))
    .toReversed();
  const seenRungs = new Set<string>();
  const out: { id: string; facts: PastFacts; trials: PastTrial[] }[] = [];
  for (const { session } of listed) {
    const { record } = await loadSession(store, session.id);
    if (record.startWallMs === null) continue;
    const trials = pastTrialsOf(record, out.length, session.person_id).map((trial) => {
      const over = carried
        .get(trial.ladder ?? "")
        ?.get(trial.version ?? 0)
        ?.get(trial.rung ?? 0);
      const present = ladders.find(({ id }) => id === trial.ladder)?.presentVersion ?? null;
      return over === undefined ? trial : { ...trial, version: present, rung: over };
    });
    const key = (trial: PastTrial) => JSON.stringify([trial.ladder, trial.version, trial.rung]);
    const counted = trials.filter(({ kind, ladder }) => kind === "work" && ladder !== null).map(key);
    const novel = new Set(counted.filter((one) => !seenRungs.has(one)));
    for (const one of counted) seenRungs.add(one);
    out.push({ id: session.id, facts: pastFactsOf(record), trials: trials.map((trial) => ({ ...trial, novel: novel.has(key(trial)) })) });
  }
  return out;
}

describe("a horse's past", () => {
  it("is what its sessions' events come to, one by one, also while the caches are behind", async () => {
    for (const { id } of await listHorses(store)) {
      const ladders = await listLadders(store, id);
      const check = async () => {
        const past = await pastOfHorse(store, id, { fromMs: 0, ladders });
        const slow = await slowly(id);
        expect(past.sessions.map((session) => session.id)).toEqual(slow.map((one) => one.id));
        expect(past.sessions.map(({ facts }) => facts)).toEqual(slow.map(({ facts }) => JSON.parse(JSON.stringify(facts))));
        expect(past.trials).toEqual(slow.flatMap(({ trials }) => trials));
        return past;
      };
      const past = await check();
      const last = past.sessions.at(-1);
      if (last === undefined) continue;
      const row = await store.models.session.findByPk(last.id);
      await store.sequelize.query("INSERT OR IGNORE INTO stale (session_no) VALUES ($no)", { bind: { no: row?.get("no") } });
      await store.sequelize.query("DELETE FROM trial WHERE session_no = $no", { bind: { no: row?.get("no") } });
      await check();
    }
  });

  it("holds no more than is asked for: a span, a ladder", async () => {
    const [horse] = await listHorses(store);
    const ladders = await listLadders(store, horse?.id ?? "");
    const all = await pastOfHorse(store, horse?.id ?? "", { fromMs: 0, ladders });
    const ladder = ladders.find(({ id }) => all.trials.some((trial) => trial.ladder === id));
    const one = await pastOfHorse(store, horse?.id ?? "", {
      fromMs: 0,
      ladders: ladder === undefined ? [] : [ladder],
      only: "these ladders",
    });
    const strip = ({ session: _, ...rest }: (typeof all.trials)[number]) => rest;
    expect(one.trials.map(strip)).toEqual(all.trials.filter((trial) => trial.ladder === ladder?.id).map(strip));
    expect(one.sessions.length).toBeLessThanOrEqual(all.sessions.length);
    const middle = all.sessions[Math.floor(all.sessions.length / 2)]?.startedMs ?? 0;
    const since = await pastOfHorse(store, horse?.id ?? "", { fromMs: middle, ladders });
    expect(since.sessions.every(({ startedMs }) => startedMs >= middle - 3_600_000)).toBe(true);
    expect(since.sessions.length).toBeLessThan(all.sessions.length);
    expect(since.trials.length).toBeGreaterThan(0);
  });
});
