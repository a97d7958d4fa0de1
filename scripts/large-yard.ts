// npm run -s large-yard -- FILE [--horses N] [--sessions N] [--trials N] [--years N]: an invented yard of many years, for measuring.
import { existsSync } from "node:fs";
import sqlite3 from "sqlite3";
import { closeStore, openStore, rebuildCaches } from "@/store";
import { makeLargeYard } from "./make-large-yard";
import { fail } from "./said";

/** Sessions read at once. */
const AT_ONCE = 200;

/** How long SQLite alone and the JSON of the language take to read every event, session after session: what no summing up can go below. */
async function bareReadMs(of: string): Promise<number> {
  const raw = new sqlite3.Database(of, sqlite3.OPEN_READONLY);
  const all = <Row>(sql: string, bind: readonly unknown[] = []) =>
    new Promise<Row[]>((resolve, reject) => raw.all<Row>(sql, bind, (error, rows) => (error === null ? resolve(rows) : reject(error))));
  const sessions = await all<{ no: number }>("SELECT no FROM session ORDER BY no");
  const started = performance.now();
  let keys = 0;
  for (let at = 0; at < sessions.length; at += AT_ONCE) {
    const [first, last] = [sessions[at], sessions[Math.min(sessions.length, at + AT_ONCE) - 1]];
    const rows = await all<{ payload: string }>("SELECT * FROM event WHERE session_no BETWEEN ? AND ? ORDER BY session_no, position", [
      first?.no,
      last?.no,
    ]);
    for (const { payload } of rows) keys += Object.keys(JSON.parse(payload)).length;
  }
  const ms = performance.now() - started;
  await new Promise((resolve) => raw.close(resolve));
  // Used, so that the reading is not left out.
  if (keys === 0) fail("The yard that was made holds no event.");
  return ms;
}

const words = process.argv.slice(2);
const file = words.find((word) => !word.startsWith("--") && word.endsWith(".sqlite"));
const numberOf = (name: string, usual: number) => {
  const at = words.indexOf(`--${name}`);
  const given = at < 0 ? usual : Number(words[at + 1]);
  if (!Number.isInteger(given) || given < 1) fail(`--${name} takes a whole number from 1.`);
  return given;
};
if (file === undefined) fail("Name the file to make: npm run -s large-yard -- yard.sqlite");
if (existsSync(file)) fail(`There is a file already at ${file}; it was left alone.`);
const trials = numberOf("trials", 1_000_000);
const sessions = numberOf("sessions", Math.max(1, Math.round(trials / 50)));
const yard = { horses: numberOf("horses", 40), sessions, trials, years: numberOf("years", 10), endWallMs: Date.now(), seed: 1 };
const say = (text: string) => process.stderr.write(`${text}\n`);
const started = performance.now();
const store = await openStore(file);
const made = await makeLargeYard(store, yard, say);
const writtenMs = performance.now() - started;
say(`${made.trials} trials in ${made.events} events written in ${Math.round(writtenMs / 1000)} s`);
const before = performance.now();
await rebuildCaches(store, (done) => done % 4000 === 0 && say(`${done} sessions summed up`));
const rebuiltMs = performance.now() - before;
await closeStore(store);
const bareMs = await bareReadMs(file);
process.stdout.write(
  `${JSON.stringify({ ...made, sessions, bare_s: bareMs / 1000, written_s: writtenMs / 1000, rebuilt_s: rebuiltMs / 1000, trials_per_s: made.trials / (rebuiltMs / 1000) })}\n`,
);
