import { existsSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { compactRibbonOf, evidenceOfSession, reduceSession, summariseSession } from "@/core/record";
import { randomSession } from "@/tests/support/random-session";
import { workOut } from "./caches";
import { writeKept } from "./caches/write";
import { connect } from "./connect";
import { eventsOfSessions } from "./events";
import {
  addHorse,
  addSession,
  catchUp,
  closeStore,
  copyBefore,
  eventReach,
  evidenceOfLadder,
  getLadder,
  getSettings,
  listSessions,
  loadSession,
  MIGRATIONS,
  migrate,
  openStore,
  rebuildCaches,
  type Store,
  setSettings,
} from "./index";

let folder: string;
let file: string;
const NOW = Date.UTC(2026, 6, 20);

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "house-"));
  file = join(folder, "own.sqlite");
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** A store as version 0.4.0 left it, with two worked sessions and one event under an id no recorder makes. */
async function storeOf040() {
  const old = connect(file).sequelize;
  await migrate(old, MIGRATIONS.slice(0, 3));
  const run = (sql: string, replacements: Record<string, unknown> = {}) => old.query(sql, { replacements });
  await run("INSERT INTO horse (id, name, kind, history, sample, created_ms) VALUES ('h', 'Bo', '', '', 0, 5)");
  await run("INSERT INTO behaviour (id, name, finished, cue, why, sample) VALUES ('b', 'plate', '', '', '', 0)");
  await run("INSERT INTO ladder (id, horse_id, behaviour_id, version, sample, created_ms) VALUES ('l', 'h', 'b', 1, 0, 7)");
  await run(
    "INSERT INTO ladder_version (ladder_id, version, method, maximum_s, mastery, schedule, offers, planned, created_ms) VALUES ('l', 1, 'combined', 20, '{\"kind\":\"run\",\"length\":3}', '{\"kind\":\"every\"}', 'ignore', 8, 7)",
  );
  await run(
    "INSERT INTO strand (ladder_id, version, position, strand_id, key, name, kind, unit, levels, harder) VALUES ('l', 1, 0, 'stay', 'stay', 'stay', 'number', 's', '[]', 'more')",
  );
  for (const number of [1, 2])
    await run(`INSERT INTO rung (ladder_id, version, number, rung_values) VALUES ('l', 1, ${number}, '{"stay":${number}}')`);
  await run(
    "INSERT INTO cue_phase (ladder_id, version, number, label, kind, profile, dwell_s) VALUES ('l', 1, 1, 'point', 'point', 'steady', 3)",
  );
  const sessions = [51, 52].map((seed) => {
    const { id, events } = randomSession(seed);
    return {
      id,
      events: events.map((event) => (event.type === "block.start" ? { ...event, payload: { ...event.payload, ladder: "l" } } : event)),
    };
  });
  for (const { id, events } of sessions) {
    await run(
      "INSERT INTO session (id, horse_id, kind, ladder_id, ladder_version, start_rung, kit, sample, created_ms) VALUES (:id, 'h', 'work', 'l', 1, 1, '[]', 0, :created)",
      { id, created: Date.UTC(2026, 5, 1, 9) },
    );
    for (const event of events)
      await run(
        `INSERT INTO event (id, session_id, recorder, load, seq, mono_ms, wall_ms, type, payload, received_ms)
         VALUES (:id, :session, :recorder, :load, :seq, :mono_ms, :wall_ms, :type, :payload, 1)`,
        { ...event, payload: JSON.stringify(event.payload) },
      );
  }
  await run(
    `INSERT INTO event (id, session_id, recorder, load, seq, mono_ms, wall_ms, type, payload, received_ms)
     VALUES ('by-hand', :id, 'r', 'l', 0, 0.1, 1e12, 'note', '{"text":"kept"}', 1)`,
    { id: sessions[0]?.id },
  );
  await old.close();
  return sessions;
}

describe("the change to a house of narrow rows", () => {
  it("keeps every event of a store of 0.4.0 as it was, with a copy made before, and derives the same from them", async () => {
    const sessions = await storeOf040();
    const store = await openStore(file, () => NOW);
    expect(existsSync(copyBefore(file, "0004-nothing-lost"))).toBe(true);
    for (const [i, { id, events }] of sessions.entries()) {
      const loaded = await loadSession(store, id);
      const byHand = loaded.events.filter((event) => event.id === "by-hand");
      expect(byHand).toHaveLength(i === 0 ? 1 : 0);
      expect(loaded.events.filter((event) => event.id !== "by-hand")).toEqual(events);
      const expected = reduceSession([...events, ...byHand]);
      expect(summariseSession(loaded.record)).toEqual(summariseSession(expected));
    }
    expect(await store.models.eventLog.count({ where: { id: "by-hand" } })).toBe(1);
    expect(await eventReach(store.models)).toBe(sessions.reduce((sum, { events }) => sum + events.length, 0) + 1);
    await closeStore(store);
  });

  it("cut off half way leaves the store as it was, and is done whole at the next start", async () => {
    const sessions = await storeOf040();
    const { sequelize } = connect(file);
    await migrate(sequelize, MIGRATIONS.slice(0, 5));
    // Something is in the way of one of its last steps.
    await sequelize.query("CREATE TABLE stale (x TEXT)");
    await expect(migrate(sequelize)).rejects.toThrow(/stale/);
    const columns = async (table: string) =>
      ((await sequelize.query(`SELECT name FROM pragma_table_info('${table}')`))[0] as { name: string }[]).map(({ name }) => name);
    expect(await columns("event")).toContain("session_id");
    expect(await columns("session")).not.toContain("no");
    expect(await columns("trial")).toEqual([]);
    await sequelize.query("DROP TABLE stale");
    await sequelize.close();
    const store = await openStore(file, () => NOW);
    expect(await catchUp(store)).toBe(2);
    expect((await listSessions(store, "h", { limit: 9 })).map(({ session }) => session.id).sort()).toEqual(
      sessions.map(({ id }) => id).sort(),
    );
    await closeStore(store);
  });

  it("never lets the reach of the events fall, also where the last of them had been removed", async () => {
    await storeOf040();
    const { sequelize } = connect(file);
    const before = (await sequelize.query("SELECT MAX(position) AS n FROM event"))[0] as { n: number }[];
    await sequelize.query("DELETE FROM event WHERE position > 10");
    await sequelize.close();
    const store = await openStore(file, () => NOW);
    expect(await eventReach(store.models)).toBe(before[0]?.n);
    await closeStore(store);
  });
});

describe("what is kept of a session", () => {
  let store: Store;
  const taken = async (seed: number) => {
    const horseId = await addHorse(store, {
      name: "Bo",
      born_day: null,
      birth_year: null,
      sex: null,
      kind: "",
      height_cm: null,
      mass_kg: null,
      history: "",
      triggers: "",
      preferred_reinforcers: "",
      resting_breaths_per_min: null,
      resting_heart_per_min: null,
    });
    const { id, events } = randomSession(seed);
    await addSession(store, { id, horseId, ladderId: null, personId: null, placeId: null, startRung: null });
    await store.events.append({ recorder: "phone:ana", events, clocks: {} });
    return { horseId, id, events };
  };
  beforeEach(async () => {
    store = await openStore(file, () => NOW);
  });
  afterEach(() => closeStore(store));

  it("is a row for each trial, with what the trial says", async () => {
    const { id, events } = await taken(61);
    await rebuildCaches(store);
    const record = reduceSession(events);
    const [rows] = (await store.sequelize.query("SELECT * FROM trial ORDER BY number")) as [Record<string, unknown>[], unknown];
    expect(rows.map((row) => [row.number, row.outcome, row.phase, row.side, row.latency_s, row.ask_ms, row.zone, row.reinforcers])).toEqual(
      record.trials.map((t) => [t.number, t.outcome, t.phase, t.side, t.latencySeconds, t.askMs, t.zone, t.reinforcers]),
    );
    expect(rows.filter((row) => row.ladder_no !== null)).toHaveLength(evidenceOfSession(id, record, null).length);
    const [sums] = (await store.sequelize.query("SELECT drawing FROM session_summary")) as [{ drawing: string }[], unknown];
    // Eight letters of a check sum come first.
    expect(sums[0]?.drawing.slice(8)).toBe(compactRibbonOf(record));
  });

  it("may be made anew while the keeper is at the same sessions", async () => {
    await taken(65);
    // The keeper sums a session up between the moment the rebuild has worked it out and the moment it writes.
    const drop = store.writer.write.bind(store.writer);
    let writes = 0;
    store.writer.write = (async (work: never) => {
      // The first write marks everything stale, the second keeps what was worked out.
      if (++writes === 2) {
        const rows = (await store.models.session.findAll()).map((one) => ({
          no: Number(one.get("no")),
          id: String(one.get("id")),
          person_id: null,
        }));
        await drop(async (transaction) => {
          const kept = await workOut(store, rows, transaction);
          await writeKept(store, kept, new Map(rows.map(({ no }) => [no, { horse_id: "h", person_id: null }])), transaction);
        });
      }
      return drop(work);
    }) as never;
    expect(await rebuildCaches(store)).toBe(1);
    expect(await store.models.stale.count()).toBe(0);
  });

  it("goes with its session, and with the horse of it", async () => {
    const { horseId } = await taken(64);
    await rebuildCaches(store);
    const count = async () => ((await store.sequelize.query("SELECT COUNT(*) AS n FROM trial"))[0] as { n: number }[])[0]?.n;
    expect(await count()).toBeGreaterThan(5);
    await store.models.horse.destroy({ where: { id: horseId } });
    expect(await count()).toBe(0);
  });

  it("is read from the same events, one session at a time or many at once", async () => {
    const { id, events } = await taken(62);
    const [row] = await store.models.session.findAll();
    const no = Number(row?.get("no"));
    const found = (await eventsOfSessions(store, [{ no, id, person_id: null }])).bySession.get(no) ?? [];
    const byId = (list: readonly { id: string }[]) => [...list].sort((a, b) => (a.id < b.id ? -1 : 1));
    expect(byId(found)).toEqual(byId(events));
  });

  it("is made anew by every session where a silence counts otherwise, and stands in for nothing meanwhile", async () => {
    const { horseId } = await taken(63);
    await rebuildCaches(store);
    await store.caches.stop();
    expect(await store.models.stale.count()).toBe(0);
    await setSettings(store, { ...(await getSettings(store)), silenceMinutes: 2 });
    expect(await store.models.stale.count()).toBe(1);
    const [shown] = await listSessions(store, horseId, { limit: 1 });
    await rebuildCaches(store);
    expect((await listSessions(store, horseId, { limit: 1 }))[0]).toEqual(shown);
  });

  it("is made anew where what is derived has changed, with a copy made before", async () => {
    const { horseId } = await taken(64);
    await rebuildCaches(store);
    const rows = async () => (await store.sequelize.query("SELECT * FROM trial ORDER BY session_no, number"))[0];
    const [before, listed] = [await rows(), await listSessions(store, horseId, { limit: 1 })];
    expect(before.length).toBeGreaterThan(5);
    await closeStore(store);
    // As 0.7.0 left it: sums of another meaning, and the last migration not done.
    const { sequelize } = connect(file);
    await sequelize.query("DELETE FROM migration WHERE name = '0007-honest-numbers'");
    await sequelize.query("UPDATE trial SET flags = 0");
    await sequelize.query("UPDATE session_summary SET met = 999, digest = '{}'");
    await sequelize.close();
    store = await openStore(file, () => NOW);
    expect(existsSync(copyBefore(file, "0007-honest-numbers"))).toBe(true);
    await catchUp(store);
    expect(await rows()).toEqual(before);
    expect(await listSessions(store, horseId, { limit: 1 })).toEqual(listed);
  });

  it("takes no more than 1.25 kB a trial with its events at the mix of the demo", async () => {
    const { populateDemo } = await import("@/tests/support/demo");
    await populateDemo(store, NOW, 6);
    await store.sequelize.query("VACUUM");
    const [[size], [trials]] = (await Promise.all([
      store.sequelize
        .query("SELECT SUM(pgsize) AS bytes FROM dbstat WHERE name NOT IN ('ladder_plan', 'behaviour')")
        .then(([rows]) => rows),
      store.sequelize.query("SELECT COUNT(*) AS n FROM trial").then(([rows]) => rows),
    ])) as [[{ bytes: number }], [{ n: number }]];
    expect(trials.n).toBeGreaterThan(1500);
    expect(size.bytes / trials.n).toBeLessThan(1250);
  });
});

describe("evidence of a ladder", () => {
  it("is the same while its sums lag behind and once they are kept", async () => {
    await storeOf040();
    const store = await openStore(file, () => NOW);
    const ladder = await getLadder(store, "l");
    const lagging = await evidenceOfLadder(store, ladder);
    expect(lagging.length).toBeGreaterThan(10);
    await catchUp(store);
    expect(await evidenceOfLadder(store, ladder)).toEqual(lagging);
    await closeStore(store);
  });
});
