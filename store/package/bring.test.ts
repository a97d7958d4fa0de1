import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import { QueryTypes } from "sequelize";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { guessMapping, NotSuchAFileError, parseCsv, TrialsReader, writeEventsCsv, writeTrialsCsv } from "@/core/formats";
import { EMPTY_BEHAVIOUR, type HorseInput } from "@/core/schemas";
import { emptyDraft } from "@/tests/support/plan";
import {
  addHorse,
  addLadder,
  bringEvents,
  bringTrials,
  CancelledError,
  catchUp,
  closeStore,
  listLadders,
  listSessions,
  loadSession,
  openStore,
  pastOfHorse,
  type Store,
} from "..";

const NOW = Date.UTC(2026, 5, 1, 12);
const HORSE = { name: "Bo", kind: "", history: "" } as HorseInput;
let folder: string;
let store: Store;
let horse: string;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "bring-"));
  store = await openStore(join(folder, "yard.sqlite"), () => NOW);
  horse = await addHorse(store, HORSE);
  await addLadder(store, horse, { ...EMPTY_BEHAVIOUR, name: "Plate" }, emptyDraft().plan);
});
afterAll(async () => {
  await closeStore(store);
  rmSync(folder, { recursive: true, force: true });
});

const put = (name: string, text: string) => {
  const path = join(folder, name);
  writeFileSync(path, text);
  return path;
};
const header = (text: string) => (parseCsv(text)[0]?.cells ?? []).map((cell) => cell.trim());
const bring = (text: string, more: object = {}) => bringTrials(store, put("file.csv", text), horse, guessMapping(header(text)), more);
const rows = async (table: string) =>
  (await store.sequelize.query<{ n: number }>(`SELECT COUNT(*) AS n FROM ${table}`, { type: QueryTypes.SELECT }))[0]?.n ?? 0;

describe("a table of trials", () => {
  it.each(["constructor", "__proto__", "toString", "hasOwnProperty"])(
    "takes %s for no answer and no side: by own names alone",
    async (word) => {
      const reader = (columns: string, cells: string) =>
        new TrialsReader(columns.split(","), guessMapping(columns.split(",")), "Etc/UTC").read({
          cells: cells.split(","),
          line: 2,
          malformed: false,
        });
      expect(reader("started_at,behaviour,outcome", `2026-05-01,Plate,${word}`)).toMatchObject({ column: "outcome" });
      expect(reader("started_at,behaviour,outcome,side", `2026-05-01,Plate,met,${word}`)).toMatchObject({ column: "side" });
    },
  );

  it("takes no value a recorder could not have logged", () => {
    const columns = ["started_at", "behaviour", "outcome", "phase"];
    const read = (phase: string) =>
      new TrialsReader(columns, guessMapping(columns), "Etc/UTC").read({
        cells: ["2026-05-01", "Plate", "met", phase],
        line: 2,
        malformed: false,
      });
    expect(read("21")).toMatchObject({ line: 2, column: "phase" });
    expect(read("20")).toMatchObject({ payload: { outcome: "met", phase: 20 } });
  });

  it("goes out of one session and comes in for another horse as the same trials", async () => {
    const text = [
      "session,started_at,behaviour,rung,trial,t_s,outcome,side,phase,latency_s,note",
      "one,2026-05-01T10:00:00Z,Plate,1,1,5,met,L,1,1.25,'=sum(1)",
      "one,2026-05-01T10:00:00Z,Plate,1,2,15,miss,L,2,,",
      "one,2026-05-01T10:00:00Z,Plate,1,3,30,met,R,1,2,",
    ].join("\n");
    expect(await bring(text)).toMatchObject({ sessions: 1, trials: 3, known: 0, refusedCount: 0 });
    const [listed] = await listSessions(store, horse, { limit: 1 });
    const { record } = await loadSession(store, listed?.session.id ?? "");
    const back = parseCsv(writeTrialsCsv([{ id: "x", record }]));
    const at = (name: string) => (back[0]?.cells ?? []).indexOf(name);
    expect(
      back.slice(1).map(({ cells }) => ["outcome", "side", "phase", "latency_s", "t_s", "note"].map((name) => cells[at(name)])),
    ).toEqual([
      ["met", "L", "1", "1.25", "5", "'=sum(1)"],
      ["miss", "L", "2", "", "15", ""],
      ["met", "R", "1", "2", "30", ""],
    ]);
    await catchUp(store);
    const past = await pastOfHorse(store, horse, { fromMs: 0, ladders: await listLadders(store, horse) });
    expect(past.trials.filter(({ ladder }) => ladder !== null)).toHaveLength(3);
    // The same file again, and one with a row more.
    expect(await bring(text)).toMatchObject({ trials: 0, known: 3 });
    expect(await bring(`${text}\none,2026-05-01T10:00:00Z,Plate,1,4,40,met,R,1,2,`)).toMatchObject({ trials: 1, known: 3 });
  });

  it("is taken from what a spreadsheet calls things, days for times, commas for points", async () => {
    const text = 'Date;x,Behavior,Result,Reaction time,Trainer\n2026-04-03,Sends,yes,"1,5",Ana\n2026-04-03 16:20,Sends,no,,Ana';
    const named = text.replace("Date;x", "Date");
    expect(guessMapping(header(named)).columns).toEqual({
      started_at: "Date",
      behaviour: "Behavior",
      outcome: "Result",
      latency_s: "Reaction time",
      handler: "Trainer",
    });
    expect(await bring(named)).toMatchObject({ sessions: 1, trials: 2 });
    await expect(bring(text)).rejects.toThrow("Say which column is started_at.");
  });

  it("given up leaves nothing, and neither does one that breaks in the middle", async () => {
    const before = [await rows("session"), await rows("event")];
    const many = `session,started_at,behaviour,rung,trial,t_s,outcome\n${Array.from({ length: 400 }, (_, i) => `s${i},2026-02-01T10:00:00Z,Plate,1,1,5,met`).join("\n")}`;
    let asked = 0;
    await expect(bring(many, { cancelled: () => ++asked > 3 })).rejects.toThrow(CancelledError);
    expect([await rows("session"), await rows("event")]).toEqual(before);
    const path = join(folder, "broken.csv");
    writeFileSync(path, Buffer.concat([Buffer.from(`${many}\n`), Buffer.from([0xff, 0xfe, 0xc3])]));
    await expect(bringTrials(store, path, horse, guessMapping(header(many)))).rejects.toThrow(NotSuchAFileError);
    expect([await rows("session"), await rows("event")]).toEqual(before);
  });

  it("what an import cut off left out of sight is gone at the next start", async () => {
    await store.sequelize.query(
      "INSERT INTO session (id, horse_id, kind, kit, created_ms, binned_ms, binned_with, no) VALUES ('half', $horse, 'work', '[]', 1, 1, 'import', 9999)",
      { bind: { horse } },
    );
    const again = await openStore(store.file, () => NOW);
    expect((await again.sequelize.query("SELECT id FROM session WHERE id = 'half'", { type: QueryTypes.SELECT })).length).toBe(0);
    await closeStore(again);
  });
});

describe("taps of sessions", () => {
  it("come in by their ids, once", async () => {
    const [listed] = (await listSessions(store, horse, { limit: 50 })).toReversed();
    const { events } = await loadSession(store, listed?.session.id ?? "");
    const text = writeEventsCsv(events, new Map());
    const other = await openStore(join(folder, "other.sqlite"), () => NOW);
    const there = await addHorse(other, HORSE);
    const first = await bringEvents(other, put("events.csv", text), there);
    expect(first.trials).toBeGreaterThan(0);
    expect(first.refusedCount).toBe(0);
    expect(await bringEvents(other, put("events.csv", text), there)).toMatchObject({ trials: 0, known: first.trials });
    expect((await loadSession(other, listed?.session.id ?? "")).events.map(({ id, payload }) => [id, payload])).toEqual(
      events.map(({ id, payload }) => [id, payload]),
    );
    await closeStore(other);
  });
});

describe("two thousand files of any kind", () => {
  it("are read without a crash, a half import or a wrong count", async () => {
    const before = [await rows("session"), await rows("event")];
    const cell = fc.oneof(
      fc.constantFrom(
        "met",
        "miss",
        "yes",
        "2026-03-01",
        "2026-03-01T10:00:00Z",
        "Plate",
        "1",
        "-1",
        "1e9",
        "L",
        "",
        "'",
        "=1+1",
        '"',
        "\u0000",
        "é",
        "9".repeat(40),
      ),
      fc.string({ maxLength: 12 }),
    );
    const names = fc.constantFrom(
      "session",
      "started_at",
      "behaviour",
      "rung",
      "trial",
      "t_s",
      "outcome",
      "side",
      "phase",
      "latency_s",
      "date",
      "result",
      "x",
      "",
    );
    const table = fc.tuple(
      fc.array(names, { minLength: 1, maxLength: 12 }),
      fc.array(fc.array(cell, { maxLength: 14 }), { maxLength: 8 }),
      fc.constantFrom("\n", "\r\n", "\r"),
    );
    let read = 0;
    fc.assert(
      fc.property(table, ([head, lines, end]) => {
        const text = [head, ...lines].map((row) => row.join(",")).join(end);
        const [first, ...records] = parseCsv(text);
        const cells = (first?.cells ?? []).map((one) => one.trim());
        const reader = new TrialsReader(cells, guessMapping(cells), "UTC");
        if (reader.missing.length > 0) return;
        let good = 0;
        let refused = 0;
        for (const record of records) {
          const row = reader.read(record);
          if ("reason" in row) refused++;
          else {
            good++;
            if (!Number.isFinite(row.startedMs) || !(row.seconds >= 0) || row.behaviour === "")
              throw new Error("a row that is none was taken");
          }
        }
        if (good + refused !== records.length) throw new Error("a row was lost");
        read++;
      }),
      { numRuns: 2000, seed: 17 },
    );
    expect(read).toBeGreaterThan(50);
    // And some of them by the whole way, each wholly in or wholly out.
    for (const text of [
      "started_at,behaviour,outcome\n2026-01-01,Plate,met\nbad,Plate,met\n2026-01-01,,met",
      "started_at,behaviour,outcome\n\u0000,\u0000,\u0000",
      "started_at,behaviour,outcome",
    ]) {
      const came = await bring(text);
      expect(came.trials + came.known + came.refusedCount).toBe(Math.max(0, text.split("\n").length - 1));
    }
    expect((await rows("session")) - (before[0] ?? 0)).toBe(1);
  });
});
