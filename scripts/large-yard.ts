// npm run -s large-yard -- FILE [--horses N] [--sessions N] [--trials N] [--years N]: an invented yard of many years, for measuring.
import { existsSync } from "node:fs";
import { closeStore, openStore, rebuildCaches } from "@/store";
import { makeLargeYard } from "./make-large-yard";
import { fail } from "./said";

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
process.stdout.write(
  `${JSON.stringify({ ...made, sessions, written_s: writtenMs / 1000, rebuilt_s: rebuiltMs / 1000, trials_per_s: made.trials / (rebuiltMs / 1000) })}\n`,
);
