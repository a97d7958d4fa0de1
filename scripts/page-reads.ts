// node scripts/run.mjs page-reads FILE ADDRESSES: what SQLite alone needs to read the rows each page shows, by the addresses of
// each in JSON. A yardstick for npm run bench: each page's own queries, asked again over a bare connection.
import sqlite3 from "sqlite3";
import { medianOf } from "@/core/evidence";
import { closeStore, openStore } from "@/store";
import { visit } from "@/tests/support/visit";

const RUNS = 5;
/** Of how many horses each page is asked. */
const HORSES = 4;

const [file = "", given = "{}"] = process.argv.slice(2);
const store = await openStore(file);
const asked: { sql: string; bind: Record<string, unknown> }[] = [];
// What is asked with its values written in is taken down as it is run; what is asked with values bound, where it is asked.
Object.assign(Reflect.get(store.sequelize, "options") as object, {
  logging: (text: string) => {
    const sql = text.replace(/^Executing \([^)]*\): /, "");
    if (/^\s*SELECT/i.test(sql) && !/\$[a-z]/.test(sql)) asked.push({ sql, bind: {} });
  },
});
const query = store.sequelize.query.bind(store.sequelize);
store.sequelize.query = ((sql: string, options: { bind?: Record<string, unknown> }) => {
  const text = typeof sql === "string" ? sql : "";
  if (options?.bind !== undefined && /^\s*SELECT/i.test(text)) asked.push({ sql: text, bind: options.bind });
  return query(sql, options);
}) as never;

const raw = new sqlite3.Database(file, sqlite3.OPEN_READONLY);
const all = (sql: string, bind: Record<string, unknown>) =>
  new Promise<unknown[]>((resolve, reject) => raw.all(sql, bind, (error, rows) => (error === null ? resolve(rows) : reject(error))));

const pages = JSON.parse(given) as Record<string, readonly string[]>;
const found: Record<string, { readMs: number; rows: number; questions: number }> = {};
for (const [name, addresses] of Object.entries(pages)) {
  const times: number[] = [];
  let rows = 0;
  let questions = 0;
  for (const address of addresses.slice(0, HORSES)) {
    asked.length = 0;
    await visit(store, address);
    const list = [...asked];
    questions = list.length;
    for (let run = 0; run < RUNS; run++) {
      const started = performance.now();
      rows = 0;
      for (const { sql, bind } of list)
        rows += (await all(sql, Object.fromEntries(Object.entries(bind).map(([key, value]) => [`$${key}`, value])))).length;
      times.push(performance.now() - started);
    }
  }
  found[name] = { readMs: medianOf(times) ?? 0, rows, questions };
}
raw.close();
await closeStore(store);
process.stdout.write(`${JSON.stringify(found)}\n`);
