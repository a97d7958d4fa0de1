import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import { QueryTypes } from "sequelize";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { delimiterOf, guessMapping, NotSuchAFileError, parseCsv, TrialsReader, writeEventsCsv, writeTrialsCsv } from "@/core/formats";
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
  listHorses,
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
const header = (text: string) => (parseCsv(text, delimiterOf(text))[0]?.cells ?? []).map((cell) => cell.trim());
const bring = (text: string, more: object = {}) => bringTrials(store, put("file.csv", text), { horse }, guessMapping(header(text)), more);
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
    // The day alone, and a time of that day.
    expect(await bring(named)).toMatchObject({ sessions: 2, trials: 2 });
    await expect(bring(text)).rejects.toThrow("Say which column is started_at.");
  });

  it("goes to the horse each row names: to one of this yard, to one that is said, to a new one, or it is left out and said", async () => {
    const two = await addHorse(store, { ...HORSE, name: "Two" });
    const text = [
      "date,horse,behavior,result",
      "2026-04-10,bo,Sends,yes",
      "2026-04-10,TWO,Sends,yes",
      "2026-04-10,Two,Sends,no",
      "2026-04-10,Stranger,Sends,yes",
      "2026-04-10,Filly,Sends,yes",
      "2026-04-10,,Sends,yes",
    ].join("\n");
    const path = put("horses.csv", text);
    const mapping = guessMapping(header(text));
    const before = [await rows("session"), await rows("event"), await rows("horse")];
    const dry = await bringTrials(store, path, { horse }, mapping, { dry: true });
    expect([await rows("session"), await rows("event"), await rows("horse")]).toEqual(before);
    expect(dry).toMatchObject({ trials: 4, leftOut: 2, known: 0 });
    expect(dry.horses).toEqual([
      { name: "bo", to: { horse }, sessions: 1, trials: 1 },
      { name: "TWO", to: { horse: two }, sessions: 1, trials: 2 },
      { name: "Stranger", to: "out", sessions: 0, trials: 1 },
      { name: "Filly", to: "out", sessions: 0, trials: 1 },
    ]);
    const came = await bringTrials(store, path, { horse, byName: { filly: "new", stranger: "out" } }, mapping);
    expect(came).toMatchObject({ trials: 5, leftOut: 1 });
    const filly = (await listHorses(store)).find(({ name }) => name === "Filly");
    const counts = async (id: string) =>
      (await listSessions(store, id, { limit: 50 }))
        .filter(({ session }) => session.created_ms === Date.UTC(2026, 3, 10, 12))
        .map(({ summary }) => summary.n);
    expect([await counts(two), await counts(filly?.id ?? "")]).toEqual([[2], [1]]);
    // The row without a name and the one of Bo are both Bo's.
    expect((await counts(horse)).reduce((sum, n) => sum + n, 0)).toBe(2);
    // What was meant to be new and is given up is gone with the rest.
    let asked = 0;
    await expect(
      bringTrials(store, path, { horse, byName: { stranger: "new" } }, mapping, { cancelled: () => ++asked > 1 }),
    ).rejects.toThrow(CancelledError);
    expect((await listHorses(store)).some(({ name }) => name === "Stranger")).toBe(false);
  });

  it("is cut into sessions by its own times", () => {
    const cut = (lines: readonly string[], columns = "started_at,behaviour,outcome") => {
      const reader = new TrialsReader(columns.split(","), guessMapping(columns.split(",")), "Etc/UTC");
      return lines.map((line) => {
        const row = reader.read({ cells: line.split(","), line: 2, malformed: false });
        return "reason" in row ? row.reason : `${new Date(row.startedMs).toISOString().slice(8, 16)} +${row.seconds}`;
      });
    };
    // Two visits of one day, each row with its time: an hour without a row ends one.
    expect(cut(["2026-05-01 10:30,a,met", "2026-05-01 10:31,a,met", "2026-05-01 11:20,a,met", "2026-05-01 16:00,a,met"])).toEqual([
      "01T10:30 +10",
      "01T10:30 +70",
      "01T10:30 +3010",
      "01T16:00 +10",
    ]);
    // Where seconds are given the time is the session's, to the minute.
    expect(
      cut(["2026-05-01 10:30,a,met,5", "2026-05-01 10:30,a,met,21", "2026-05-01 10:45,a,met,5"], "started_at,behaviour,outcome,t_s"),
    ).toEqual(["01T10:30 +5", "01T10:30 +21", "01T10:45 +5"]);
    // A visit's number begins anew every day, and two horses are never one session.
    expect(cut(["1,2026-05-01,a,met", "1,2026-05-02,a,met", "1,2026-05-01,a,met"], "session,started_at,behaviour,outcome")).toEqual([
      "01T12:00 +10",
      "02T12:00 +10",
      "01T12:00 +20",
    ]);
    expect(
      new Set(
        ["Bo", "Two"].map((name) => {
          const columns = ["started_at", "horse", "behaviour", "outcome"];
          const row = new TrialsReader(columns, guessMapping(columns), "Etc/UTC").read({
            cells: ["2026-05-01", name, "a", "met"],
            line: 2,
            malformed: false,
          });
          return "reason" in row ? "" : row.session;
        }),
      ).size,
    ).toBe(2);
  });

  it("may be parted by semicolons or tabs, and its decimals by commas", async () => {
    const lines = ["date;behavior;result;latency;note", '2026-04-20;Sends;yes;1,5;"a; b"', "2026-04-20;Sends;no;;"];
    expect(await bring(lines.join("\r\n"))).toMatchObject({ sessions: 1, trials: 2, refusedCount: 0 });
    const [listed] = (await listSessions(store, horse, { limit: 50 })).filter(
      ({ session }) => session.created_ms === Date.UTC(2026, 3, 20, 12),
    );
    const { record } = await loadSession(store, listed?.session.id ?? "");
    expect(record.trials.map(({ latencySeconds, outcome }) => [latencySeconds, outcome])).toEqual([
      [1.5, "met"],
      [null, "miss"],
    ]);
    expect(await bring("date\tbehavior\tresult\n2026-04-21\tSends\tyes\n")).toMatchObject({ trials: 1 });
  });

  it("says which value it could not take, and which trial stands there twice", async () => {
    const text = [
      "session,started_at,behaviour,rung,trial,t_s,outcome,side,phase,latency_s",
      "n,31.12.,Plate,1,1,5,met,L,1,1",
      "n,2026-04-25,Plate,1,1,5,met,up,1,1",
      "n,2026-04-25,Plate,1,2,5,met,L,1,soon",
      "n,2026-04-25,Plate,1,3,5,met,L,many,1",
      "n,2026-04-25,Plate,1,4,never,met,L,1,1",
      "n,2026-04-25,Plate,1,5,5,grand,L,1,1",
      "n,2026-04-25,Plate,1,6,5,met,L,1,1",
      "n,2026-04-25,Plate,1,6,9,miss,L,1,1",
      "n,2026-04-25,Plate,1,x,9,miss,L,1,1",
    ].join("\n");
    const { refused, trials } = await bring(text);
    expect(trials).toBe(1);
    for (const [i, words] of ["“31.12.”", "“up”", "“soon”", "“many”", "“never”", "“grand”"].entries()) {
      expect(refused[i]?.line).toBe(i + 2);
      expect(refused[i]?.reason, words).toContain(words);
    }
    expect(refused[6]).toEqual({ line: 9, column: "trial", reason: "“6” stands in this session already" });
    expect(refused[7]?.reason).toContain("“x”");
  });

  it("given up leaves nothing, and neither does one that breaks in the middle", async () => {
    const before = [await rows("session"), await rows("event")];
    const many = `session,started_at,behaviour,rung,trial,t_s,outcome\n${Array.from({ length: 400 }, (_, i) => `s${i},2026-02-01T10:00:00Z,Plate,1,1,5,met`).join("\n")}`;
    let asked = 0;
    await expect(bring(many, { cancelled: () => ++asked > 3 })).rejects.toThrow(CancelledError);
    expect([await rows("session"), await rows("event")]).toEqual(before);
    const path = join(folder, "broken.csv");
    writeFileSync(path, Buffer.concat([Buffer.from(`${many}\n`), Buffer.from([0xff, 0xfe, 0xc3])]));
    await expect(bringTrials(store, path, { horse }, guessMapping(header(many)))).rejects.toThrow(NotSuchAFileError);
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
