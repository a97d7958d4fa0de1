// For npm run bench: how many trials a second come in from a table, beside SQLite's own prepared inserts; and the product-limit estimate of a million times. Prints JSON.
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sqlite3 from "sqlite3";
import { mixedChance } from "@/core/chance";
import { survival } from "@/core/evidence";
import { guessMapping } from "@/core/formats";
import { EMPTY_BEHAVIOUR } from "@/core/schemas";
import { addHorse, addLadder, bringTrials, closeStore, openStore } from "@/store";
import { emptyDraft } from "@/tests/support/plan";

const TRIALS = 200_000;
const A_SESSION = 50;
/** Asks on one side before the other's turn. */
const A_BLOCK = 5;
const folder = mkdtempSync(join(tmpdir(), "deft-import-"));
const chance = mixedChance("bench, import");

const head = "session,started_at,behaviour,rung,block,trial,t_s,outcome,side,phase,latency_s";
const lines = Array.from({ length: TRIALS }, (_, i) => {
  const session = Math.floor(i / A_SESSION);
  const started = new Date(Date.UTC(2020, 0, 1, 10) + session * 8 * 3_600_000).toISOString();
  const at = i % A_SESSION;
  const met = chance() < 0.7;
  const block = Math.floor(at / A_BLOCK);
  return `s${session},${started},Plate,1,${block + 1},${at + 1},${at * 12},${met ? "met" : "miss"},${block % 2 === 0 ? "L" : "R"},1,${(chance() * 3).toFixed(2)}`;
});
const file = join(folder, "trials.csv");
writeFileSync(file, [head, ...lines].join("\n"));

const store = await openStore(join(folder, "yard.sqlite"));
const horse = await addHorse(store, { name: "Bench", kind: "", history: "" } as never);
await addLadder(store, horse, { ...EMPTY_BEHAVIOUR, name: "Plate" }, emptyDraft().plan);
const started = performance.now();
const { trials } = await bringTrials(store, file, { horse }, guessMapping(head.split(",")));
const seconds = (performance.now() - started) / 1000;
await closeStore(store);

/** The same rows into an empty table of events by prepared statements, in the same parts. */
const bare = new sqlite3.Database(join(folder, "bare.sqlite"));
const run = (sql: string, values: unknown[] = []) =>
  new Promise<void>((resolve, reject) => bare.run(sql, values, (error) => (error === null ? resolve() : reject(error))));
await run("PRAGMA journal_mode = WAL");
await run("PRAGMA synchronous = FULL");
await run(
  "CREATE TABLE event (position INTEGER PRIMARY KEY AUTOINCREMENT, id BLOB NOT NULL UNIQUE, session_no INTEGER, seq INTEGER, wall_ms REAL, type TEXT, payload TEXT)",
);
const bareStarted = performance.now();
const statement = bare.prepare("INSERT INTO event (id, session_no, seq, wall_ms, type, payload) VALUES (?, ?, ?, ?, ?, ?)");
for (let at = 0; at < TRIALS; at += 2000) {
  await run("BEGIN");
  await new Promise<void>((resolve, reject) => {
    let left = Math.min(2000, TRIALS - at);
    for (let i = at; i < at + Math.min(2000, TRIALS - at); i++) {
      const id = Buffer.alloc(16);
      id.writeUInt32BE(i, 0);
      id.writeUInt32BE(Math.floor(chance() * 2 ** 32), 4);
      statement.run(
        [id, Math.floor(i / A_SESSION), i % A_SESSION, i, "trial", '{"outcome":"met","side":"L","phase":1,"latency_s":1.25}'],
        (error: Error | null) => {
          if (error !== null) reject(error);
          else if (--left === 0) resolve();
        },
      );
    }
  });
  await run("COMMIT");
}
const bareSeconds = (performance.now() - bareStarted) / 1000;
statement.finalize();
await new Promise((resolve) => bare.close(resolve));
rmSync(folder, { recursive: true, force: true });

const waitings = Array.from({ length: 1_000_000 }, () => ({ seconds: chance() * 10, answered: chance() < 0.8 }));
const kmStarted = performance.now();
survival(waitings);
const kmMs = performance.now() - kmStarted;
process.stdout.write(JSON.stringify({ trials, perSecond: trials / seconds, barePerSecond: TRIALS / bareSeconds, kmMs }));
