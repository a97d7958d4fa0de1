import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { placeEvents, reduceSession, summariseSession, workSeconds } from "@/core/record";
import { check } from "@/core/schemas";
import { randomSession } from "@/tests/support/random-session";
import { CALCULATIONS, CalcInputError } from "../calc";
import { analyseEvents, analyseTrialsText, TrialsFileAnalysis } from "./analyse";
import { groupOutput } from "./analysis";
import { type Column, cellProblem, parseIsoTime, rowSchema } from "./column";
import { NotSuchAFileError, parseCsv, writeCsv } from "./csv";
import { CsvPieces } from "./csv-stream";
import { readHeader } from "./header";
import { readEventsCsv } from "./read-events";
import { readSessionsCsv } from "./read-sessions";
import { writeEventsCsv, writeSessionsCsv, writeTrialsCsv } from "./session-files";
import { guardText, unguardText } from "./text-cell";
import { isRefused, TrialRowReader } from "./trial-row";
import { TRIALS_COLUMNS } from "./trials-columns";

const HEAD = "session,started_at,behaviour,rung,trial,t_s,outcome";
const ROW = "s1,2026-05-01T10:00:00+02:00,plate,1,1,0,met";

describe("text cells", () => {
  it("guard what a spreadsheet would take for a formula, and come back whole", () => {
    for (const risky of ["=1+1", "+x", "-x", "−x", "@x", "\tx", "'x"]) expect(guardText(risky)).toBe(`'${risky}`);
    expect(guardText("plain = text")).toBe("plain = text");
    fc.assert(fc.property(fc.string(), (text) => unguardText(guardText(text)) === text));
  });
});

describe("CSV", () => {
  it("reads a byte-order mark, either line ending, quotes, and gives physical lines", () => {
    const records = parseCsv('\ufeffa,b\r\n1,"two\nlines"\r\n\r\n3,"say ""so"""\n');
    expect(records.map(({ line, cells }) => [line, cells])).toEqual([
      [1, ["a", "b"]],
      [2, ["1", "two\nlines"]],
      [5, ["3", 'say "so"']],
    ]);
  });

  it("marks a record whose quotes never close", () => {
    expect(parseCsv('a,b\n1,"open\n').at(-1)?.malformed).toBe(true);
  });

  it("comes back from writing as it was", () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.array(
            fc.string({ unit: "binary" }).map((s) => s.replace(/\r\n?/g, "\n")),
            { minLength: 2, maxLength: 2 },
          ),
          { maxLength: 8 },
        ),
        (rows) => {
          const cells = parseCsv(writeCsv(["a", "b"], rows))
            .slice(1)
            .map((r) => r.cells);
          expect(cells).toEqual(rows.filter((row) => !(row.length === 1 && row[0] === "")));
        },
      ),
    );
  });

  it("refuses the line of a quote that does not close, and swallows none after it", () => {
    // The second row opens a quote; the next quote stands in the fourth, which would close it in mid-word.
    const lines = ["a,b", '1,"open', "2,fine", "", '3,"also ""fine"""', '4,"two', 'lines"', '5,"open to the end', "6,fine"];
    const read = (text: string) => parseCsv(text).map(({ line, cells, malformed }) => [line, malformed, cells.at(-1)]);
    const wanted = [
      [1, false, "b"],
      [2, true, '1,"open'],
      [3, false, "fine"],
      [5, false, 'also "fine"'],
      [6, false, "two\nlines"],
      [8, true, '5,"open to the end'],
      [9, false, "fine"],
    ];
    expect(read(lines.join("\n"))).toEqual(wanted);
    const whole = parseCsv(lines.join("\n"));
    for (let size = 1; size < 30; size++) {
      const records: unknown[] = [];
      const pieces = new CsvPieces((record) => records.push(record));
      const text = lines.join("\n");
      for (let at = 0; at < text.length; at += size) pieces.push(text.slice(at, at + size));
      pieces.end();
      expect(records, `pieces of ${size}`).toEqual(whole);
    }
    // Many bad quotes in a long file cost no more than reading it a few times over.
    const long = Array.from({ length: 40_000 }, (_, i) => (i % 2 === 0 ? `${i},"bad` : `${i},"x"y`)).join("\n");
    expect(parseCsv(long)).toHaveLength(40_000);
  });

  it("in pieces cut anywhere gives the same as whole", () => {
    const text = '\ufeffa,b\r\n1,"two\r\nlines"\r\n"x, ""y""",2\n\n5,6';
    const whole = parseCsv(text);
    for (let size = 1; size < 12; size++) {
      const records: unknown[] = [];
      const pieces = new CsvPieces((record) => records.push(record));
      for (let at = 0; at < text.length; at += size) pieces.push(text.slice(at, at + size));
      pieces.end();
      expect(records).toEqual(whole);
    }
  });
});

describe("columns", () => {
  it("the quick reader refuses exactly what the schema refuses", () => {
    const columns: readonly Column[] = TRIALS_COLUMNS;
    const schema = rowSchema(columns);
    const cell = fc.oneof(
      fc.constantFrom(
        "",
        "0",
        "1",
        "-1",
        "1.5",
        "1e3",
        "0x10",
        ".",
        "1.",
        ".5",
        "+3",
        "1.2.3",
        "NaN",
        "Infinity",
        "met",
        "work",
        "L",
        "R",
        "tally",
        "left",
        "5",
        "2026-05-01T10:00:00Z",
        "2026-02-30T10:00:00Z",
        "nonsense",
        "12345678901234567890",
        "00012",
        "1,5",
        "１",
      ),
      fc.double({ noNaN: true, noDefaultInfinity: true }).map(String),
      fc.integer().map(String),
    );
    const good: Record<string, string> = {
      session: "s",
      started_at: "2026-05-01T10:00:00Z",
      behaviour: "b",
      rung: "1",
      trial: "1",
      t_s: "0",
      outcome: "met",
    };
    const header = readHeader(
      columns,
      columns.map((c) => c.name),
      "trials.csv",
    );
    fc.assert(
      fc.property(fc.array(fc.record({ at: fc.nat(columns.length - 1), cell }), { maxLength: 3 }), (changes) => {
        const row: Record<string, string> = Object.fromEntries(columns.map((c) => [c.name, good[c.name] ?? ""]));
        for (const { at, cell } of changes) row[(columns[at] as Column).name] = cell;
        const read = new TrialRowReader(header, columns.length).read({
          line: 2,
          cells: columns.map((c) => row[c.name] ?? ""),
          malformed: false,
        });
        expect(isRefused(read)).toBe(!check(schema, row, { strict: true }).ok);
        if (!isRefused(read) && row.latency_s !== "") expect(read.latencySeconds).toBe(Number(row.latency_s));
      }),
      { numRuns: 600 },
    );
  });

  it.each([
    ["2026-05-01T10:00:00+02:00", Date.UTC(2026, 4, 1, 8)],
    ["2026-05-01T10:00:00.250Z", Date.UTC(2026, 4, 1, 10, 0, 0, 250)],
    ["2026-05-01T10:00Z", Date.UTC(2026, 4, 1, 10)],
    ["2026-05-01T10:00:00+0200", Date.UTC(2026, 4, 1, 8)],
    ["2026-05-01T10:00:00-05", Date.UTC(2026, 4, 1, 15)],
    ["2026-05-01T10:00:00", null],
    ["2026-05-01", null],
    ["2026-04-31T10:00:00Z", null],
    ["2026-13-01T10:00:00Z", null],
    ["yesterday", null],
  ])("time %s", (text, ms) => {
    expect(parseIsoTime(text)).toBe(ms);
  });

  it("names the fault", () => {
    expect(cellProblem({ name: "x", type: "integer", least: 1 }, "0")).toBe("is below 1");
    expect(cellProblem({ name: "x", type: "integer" }, "1.5")).toBe("is not a whole number");
    expect(cellProblem({ name: "x", type: "number", above: 0 }, "0")).toBe("is not above 0");
    expect(cellProblem({ name: "x", type: "number" }, "1e999")).toBe("is not a number");
    expect(cellProblem({ name: "x", type: "text", required: true }, "")).toBe("is missing");
  });
});

describe("analyse", () => {
  it("computes a hand-worked file", () => {
    const text = [
      "session,started_at,behaviour,rung,trial,t_s,outcome,phase,side,latency_s,waited_s,reinforced,reinforcers,release_lag_s,released,marked",
      "a,2026-05-01T10:00:00Z,plate,1,1,0,met,1,L,2,2,1,2,0.4,1,1",
      "a,2026-05-01T10:00:00Z,plate,1,2,30,miss,2,L,,3,0,,,0,0",
      "a,2026-05-01T10:00:00Z,plate,2,3,58,try,2,R,2,2,,,,,",
      "b,2026-05-08T10:00:00Z,gate,1,1,110,met,3,R,10,10,1,,0.9,1,0",
    ].join("\n");
    const out = analyseTrialsText(text);
    expect([out.trials, out.sessions, out.work_time, out.work_min]).toEqual([4, 2, "estimated", 3]);
    expect(Object.keys(out.by_behaviour_rung)).toEqual(["gate|1", "plate|1", "plate|2"]);
    expect(out.overall).toMatchObject({
      n: 4,
      met: 2,
      try: 1,
      miss: 1,
      refused: 0,
      success: 0.5,
      asks_per_min: 4 / 3,
      responses_per_min: 2 / 3,
      tries_per_min: 1 / 3,
      reinforced_per_min: 2 / 3,
      releases_per_min: 2 / 3,
      marks_per_min: 1 / 3,
      food_per_min: 2 / 3,
      lightness: 0.5,
      mean_phase_met: 2,
    });
    // At risk 4: two answers at 2 s, the miss censored at 3 s, the last answer at 10 s.
    expect(out.overall.latency).toMatchObject({
      n: 4,
      censored: 1,
      km_median_s: 2,
      wrong: 1,
      // Half of the four had their answer at 2 s; the miss never will.
      half_answered_s: 2,
      km: [
        [2, 0.5, expect.closeTo(0.25)],
        [10, 0, null],
      ],
    });
    expect(out.overall.release_lag_s).toEqual({ median: expect.closeTo(0.65), p90: expect.closeTo(0.85), late_share: 0.5 });
    // plate|1 was worked in session a alone: one minute.
    expect(out.by_behaviour_rung["plate|1"]?.asks_per_min).toBe(2);
    expect(out.sides.index).toBe(0);
    // One met in 1 min and one in 2 min, a week apart.
    expect(out.trend.response_rate_per_week_factor).toBeCloseTo(0.5, 12);
  });

  it("gives the interval over sessions beside that of independent trials, none under two sessions", () => {
    const day = (session: string, met: number) =>
      Array.from({ length: 10 }, (_, i) => `${session},2026-05-01T10:00:00Z,plate,1,${i + 1},${i * 10},${i < met ? "met" : "miss"}`);
    const of = (...rows: string[][]) => analyseTrialsText([HEAD, ...rows.flat()].join("\n")).overall;
    expect(of(day("a", 8)).sessions95).toBeNull();
    // 2, 5 and 9 of 10, worked out apart to 2.965675 independent trials;
    // Wilson (1927) with as many about 16/30.
    const over = of(day("a", 2), day("b", 5), day("c", 9));
    const n = 2.965675;
    const z = 1.959964;
    const p = 16 / 30;
    const centre = (p + (z * z) / (2 * n)) / (1 + (z * z) / n);
    const half = (z * Math.sqrt((p * (1 - p)) / n + (z * z) / (4 * n * n))) / (1 + (z * z) / n);
    expect(over.sessions95?.[0]).toBeCloseTo(centre - half, 4);
    expect(over.sessions95?.[1]).toBeCloseTo(centre + half, 4);
    expect(over.wilson95?.[0]).toBeCloseTo(0.3614, 3);
    // Rows of one session need not stand together.
    const mixed = [...day("a", 2), ...day("b", 5), ...day("c", 9)].sort((x, y) => (x.slice(-8) < y.slice(-8) ? -1 : 1));
    expect(of(mixed).sessions95).toEqual(over.sessions95);
  });

  it("keeps groups apart whose names hold the sign between them", () => {
    const row = (behaviour: string, rung: string) => `s1,2026-05-01T10:00:00Z,${behaviour},${rung},1,0,met`;
    const out = analyseTrialsText([HEAD, row("a|b", "c"), row("a", "b|c"), row("a", "b")].join("\n"));
    expect(Object.entries(out.by_behaviour_rung).map(([key, { n }]) => [key, n])).toEqual([
      ["a\\|b|c", 1],
      ["a|b", 1],
      ["a|b\\|c", 1],
    ]);
  });

  it("refuses a second row of a session in sessions.csv", () => {
    const { workSeconds, refused } = readSessionsCsv("session,work_s\ns1,120\ns2,60\ns1,90\n");
    expect([...workSeconds]).toEqual([
      ["s1", 120],
      ["s2", 60],
    ]);
    expect(refused).toEqual([{ line: 4, column: "session", reason: "sessions.csv: the session stands in line 2 already" }]);
  });

  it("takes the working time of sessions.csv: given, estimated, mixed", () => {
    const trials = `${HEAD}\n${ROW}\ns2,2026-05-02T10:00:00+02:00,plate,1,1,60,met`;
    const given = (text: string) => analyseTrialsText(trials, { workSeconds: readSessionsCsv(text).workSeconds });
    expect(given("session,work_s\ns1,120\ns2,60\n")).toMatchObject({ work_time: "given", work_min: 3 });
    expect(given("session,work_s\ns1,120\n")).toMatchObject({ work_time: "mixed", work_min: 3 });
    expect(given("session,work_s\ns9,1\n")).toMatchObject({ work_time: "estimated" });
  });

  it("refuses bad rows with line, column and reason, and takes the good ones", () => {
    const out = analyseTrialsText(
      [
        `${HEAD},side,phase,colour`,
        `${ROW},,1,red`,
        "s1,2026-05-01T10:00:00+02:00,plate,1,two,0,met",
        "s1,never,plate,1,2,0,met",
        "s1,2026-05-01T10:00:00+02:00,,1,2,0,met",
        "s1,2026-05-01T10:00:00+02:00,plate,1,2,-1,met",
        "s1,2026-05-01T10:00:00+02:00,plate,1,2,0,won",
        '"s\n1",2026-05-01T10:00:00+02:00,plate,1,2,0,met,left',
        "s1,2026-05-01T10:00:00+02:00,plate,1,2,0,met,,,,surplus",
        `${ROW},L,0`,
      ].join("\n"),
    );
    expect(out.trials).toBe(1);
    expect(out.unknown_columns).toEqual(["colour"]);
    expect(out.rows_refused.map(({ line, column }) => [line, column])).toEqual([
      [3, "trial"],
      [4, "started_at"],
      [5, "behaviour"],
      [6, "t_s"],
      [7, "outcome"],
      [8, "side"],
      [10, ""],
      [11, "phase"],
    ]);
  });

  it("has nulls and never NaN where there is nothing", () => {
    const out = analyseTrialsText(`${HEAD}\n`);
    expect(out).toMatchObject({
      trials: 0,
      sessions: 0,
      work_time: "estimated",
      overall: { success: null, wilson95: null, asks_per_min: null },
      trend: { response_rate_per_week_factor: null, points: 0 },
    });
    expect(JSON.stringify(out)).not.toContain("NaN");
  });

  it("sorts groups by code point, beyond the sixteen-bit plane too", () => {
    const row = (name: string) => `s,2026-05-01T10:00:00Z,${name},1,1,0,met`;
    const out = analyseTrialsText([HEAD, row("\u{1F40E}"), row("\uFB00"), row("a"), row("B")].join("\n"));
    expect(Object.keys(out.by_behaviour_rung)).toEqual(["B|1", "a|1", "\uFB00|1", "\u{1F40E}|1"]);
  });

  it("leaves late entries out when asked", () => {
    const text = `${HEAD},logged\n${ROW},late\ns1,2026-05-01T10:00:00+02:00,plate,1,2,9,met,timed`;
    expect(analyseTrialsText(text, { withoutLate: true }).trials).toBe(1);
    expect(analyseTrialsText(text).trials).toBe(2);
  });

  it("counts a row that stands twice once, and says so", () => {
    const other = ROW.replace(",1,1,", ",1,2,");
    const out = analyseTrialsText(`${HEAD}\n${ROW}\n${other}\n${ROW}`);
    expect(out.trials).toBe(2);
    expect(out.rows_refused).toEqual([{ line: 4, column: "trial", reason: "the same trial of its session stands in the file before" }]);
    // Rows from memory may share a moment, and a behaviour may count for itself.
    const late = Array.from({ length: 300 }, (_, i) => ROW.replace(",1,1,0,", `,1,${i + 1},0,`));
    expect(analyseTrialsText([HEAD, ...late, ...late.map((row) => row.replace("plate", "back"))].join("\n")).trials).toBe(600);
    // The same number at another moment is another trial: some tables count by block.
    expect(analyseTrialsText(`${HEAD}\n${ROW}\n${ROW.replace(",1,1,0,", ",1,1,6,")}`).rows_refused).toEqual([]);
  });

  it("sees a trial that stands in both parts of a file", () => {
    const part = (rows: string) => {
      const file = new TrialsFileAnalysis();
      for (const record of parseCsv(`${HEAD}\n${rows}`)) file.take(record);
      return file.seen;
    };
    expect(part(ROW).sharesWith(part(ROW).state())).toBe(true);
    expect(part(ROW).sharesWith(part(ROW.replace("s1", "s2")).state())).toBe(false);
    expect(part(ROW).sharesWith(part(ROW.replace(",1,1,", ",1,2,")).state())).toBe(false);
  });

  it.each([
    ["nothing", ""],
    ["another table", "a,b\n1,2\n"],
    ["a column twice", `${HEAD},phase,phase\n`],
  ])("says plainly that %s is no trials.csv", (_, text) => {
    expect(() => analyseTrialsText(text)).toThrow(NotSuchAFileError);
  });
});

describe("export and back, on sessions from random seeds", () => {
  const seeds = Array.from({ length: 25 }, (_, i) => 31 * i + 7);

  it.each(seeds)("seed %i: trials.csv, events.csv and the screen give the same numbers", (seed) => {
    const { id, events } = randomSession(seed);
    const record = reduceSession(events);
    const session = { id, record };
    const start = record.startWallMs ?? 0;
    const seconds = new Map(placeEvents(events).map(({ event, ms }) => [event.id, (ms - start) / 1000]));
    const sessions = readSessionsCsv(writeSessionsCsv([session]));
    expect(sessions.refused).toEqual([]);
    expect(sessions.workSeconds.get(id)).toBe(workSeconds(record));

    const fromTrials = analyseTrialsText(writeTrialsCsv([session]), { workSeconds: sessions.workSeconds });
    expect(fromTrials.rows_refused).toEqual([]);
    expect(fromTrials.unknown_columns).toEqual([]);
    expect(fromTrials.overall).toEqual(groupOutput(summariseSession(record).measures));

    const eventsText = writeEventsCsv(events, seconds);
    const file = readEventsCsv(eventsText);
    expect(file.refused).toEqual([]);
    expect(file.events).toEqual(events);
    // Over sessions events hold more than trials do: what both can say is the same.
    const { over_sessions: byEvents, ...measures } = analyseEvents(file);
    const { over_sessions: byTrials, ...measuresOfTrials } = fromTrials;
    expect(measures).toEqual(measuresOfTrials);
    expect(byEvents?.map((horse) => horse.sessions)).toEqual(byTrials?.map((horse) => horse.sessions));
    expect(byEvents?.[0]?.turns).toEqual(byTrials?.[0]?.turns);

    const again = reduceSession(file.events, { givenSeconds: file.givenSeconds });
    expect(again.trials).toEqual(record.trials);
    expect(writeTrialsCsv([{ id, record: again }])).toBe(writeTrialsCsv([session]));
    expect(writeEventsCsv(file.events, file.givenSeconds)).toBe(eventsText);
  });
});

describe("calc rule-check, percentile and layout", () => {
  const calc = (name: string, input: unknown) => CALCULATIONS.get(name)?.(input);
  it("answer in the shapes of the formats document", () => {
    const rule = { kind: "share", met: 8, of: 10, window: "moving" };
    const { rows } = calc("rule-check", { rule, p: [0.6, 0], within: 20 }) as {
      rows: { pass_within: number; mean_trials: number | null }[];
    };
    expect(rows[0]?.pass_within).toBeCloseTo(0.454094, 6);
    expect(rows[1]).toEqual({ p: 0, pass_within: 0, mean_trials: null });
    expect(calc("percentile", { values: [1, 2, 2, 2], m: 10, w: 0.4, harder: "more" })).toEqual({
      m_used: 4,
      k: 3,
      ranks: [[3, 1]],
      criteria: [2],
      on_equal: [0.5],
    });
    expect(
      calc("layout", {
        strands: [
          { id: "stay", kind: "number", start: 1, goal: 4 },
          { id: "form", kind: "levels", levels: ["one", "two"], start: "one", goal: "two" },
        ],
        order: "one-by-one",
        ease_on_new: 0.5,
      }),
    ).toEqual({
      rungs: [
        { stay: 1, form: "one" },
        { stay: 2, form: "one" },
        { stay: 4, form: "one" },
        { stay: 2, form: "two" },
        { stay: 4, form: "two" },
      ],
    });
  });
  it.each([
    ["rule-check", { rule: { kind: "mood" }, p: [0.5], within: 5 }, "rule.kind"],
    ["rule-check", { rule: { kind: "share", met: 9, of: 13, window: "moving" }, p: [0.5], within: 5 }, "rule.of"],
    ["rule-check", { rule: { kind: "share", met: 9, of: 8, window: "block" }, p: [0.5], within: 5 }, "rule.met"],
    ["rule-check", { rule: { kind: "run", length: 0 }, p: [0.5], within: 5 }, "rule.length"],
    ["rule-check", { rule: { kind: "run", length: 3 }, p: [2], within: 5 }, "p"],
    ["rule-check", { rule: { kind: "run", length: 3 }, p: [0.5], within: 2.5 }, "within"],
    ["rule-check", null, "input"],
    ["percentile", { values: ["x"], m: 4, w: 0.2, harder: "more" }, "values"],
    ["percentile", { values: [1], m: 0, w: 0.2, harder: "more" }, "m"],
    ["percentile", { values: [1], m: 4, w: 2, harder: "more" }, "w"],
    ["percentile", { values: [1], m: 4, w: 0.2, harder: "softer" }, "harder"],
    ["layout", { strands: [], order: "in-turn" }, "strands"],
    ["layout", { strands: [{ id: "a", kind: "number", start: 1 }], order: "in-turn" }, "strands"],
    ["layout", { strands: [{ id: "a", kind: "levels", levels: ["x"], start: "x", goal: "y" }], order: "in-turn" }, "strands"],
    ["layout", { strands: [{ id: "a", kind: "number", start: 1, goal: 3 }], order: "backwards" }, "order"],
  ])("%s refuses %j at %s", (name, input, field) => {
    expect(() => calc(name, input)).toThrow(CalcInputError);
    expect(() => calc(name, input)).toThrow(new RegExp(`^${field}`));
  });
});

describe("calc agreement", () => {
  const agreement = CALCULATIONS.get("agreement");
  it("takes a table, or two lists of moments", () => {
    expect(
      agreement?.({
        table: [
          [20, 5],
          [10, 15],
        ],
      }),
    ).toMatchObject({ observed: 0.7, expected: 0.5 });
    expect(agreement?.({ table: [[0]] })).toEqual({ kappa: null, observed: null, expected: null });
    expect(agreement?.({ a: [1, 12, 25], b: [2, 14, 26, 38], tolerance_s: 2, duration_s: 40, interval_s: 10 })).toEqual({
      total: 0.75,
      exact_interval: 0.75,
      mean_interval: 0.75,
      point: 0.75,
    });
  });
  it.each([
    [{ table: [] }, "table"],
    [{ table: [[1, 2]] }, "table"],
    [{ table: [[1.5]] }, "table"],
    [{ table: "x" }, "table"],
    [{}, "interval_s"],
    [null, "input"],
    [{ a: [1], b: [50], tolerance_s: 1, duration_s: 40, interval_s: 10 }, "b"],
    [{ a: [1], b: [2], tolerance_s: -1, duration_s: 40, interval_s: 10 }, "tolerance_s"],
    [{ a: [1], b: [2], tolerance_s: 1, duration_s: 0, interval_s: 10 }, "duration_s"],
  ])("refuses %j at %s", (input, field) => {
    expect(() => agreement?.(input)).toThrow(CalcInputError);
    expect(() => agreement?.(input)).toThrow(new RegExp(`^${field}`));
  });
});

describe("calc", () => {
  const run = (name: string, input: unknown) => CALCULATIONS.get(name)?.(input);

  it("share and latency give what the core gives", () => {
    expect(run("share", { met: 8, of: 10 })).toEqual({
      share: 0.8,
      wilson95: [expect.closeTo(0.490162, 6), expect.closeTo(0.943318, 6)],
      p_at_least_080: expect.closeTo(0.466504, 6),
    });
    expect(run("share", { met: 0, of: 0 })).toEqual({ share: null, wilson95: null, p_at_least_080: null });
    expect(run("latency", { times: [1, 2, 3], answered: [true, true, false] })).toMatchObject({
      km: { all: { median_s: 2 } },
      logrank: null,
    });
    expect(run("latency", { times: [1, 2, 3, 4], answered: [true, true, true, true], group: ["a", "a", "b", "b"] })).toMatchObject({
      logrank: { df: 1 },
    });
  });

  it.each([
    ["share", { met: 3, of: 2 }, "met"],
    ["share", { met: -1, of: 2 }, "met"],
    ["share", { met: "1", of: 2 }, "met"],
    ["share", { of: 2 }, "met"],
    ["share", null, "input"],
    ["share", [], "input"],
    ["latency", {}, "times"],
    ["latency", { times: [1, -2], answered: [true, true] }, "times[1]"],
    ["latency", { times: [1], answered: [true, false] }, "answered"],
    ["latency", { times: [1], answered: ["yes"] }, "answered[0]"],
    ["latency", { times: [], answered: [] }, "times"],
    ["latency", { times: [1], answered: [true], group: [] }, "group"],
  ])("%s of %j names the field", (name, input, field) => {
    expect(() => run(name, input)).toThrow(CalcInputError);
    expect(() => run(name, input)).toThrow(new RegExp(`^${field.replace(/[[\]]/g, "\\$&")}:`));
  });
});
