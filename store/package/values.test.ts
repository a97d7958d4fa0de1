import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { packageLine, parseCsv } from "@/core/formats";
import { populateDemo } from "@/tests/support/demo";
import { closeStore, openStore, PACKED_TABLES, readPackage, type Store, writePackage } from "..";
import { columnsOf, EVENT_COLUMNS } from "./tables";
import { VALUES } from "./values";

const NOW = Date.UTC(2026, 3, 1, 12);
let folder: string;
let demo: Store;
let files: Record<string, Uint8Array>;
let stores = 0;
const fresh = () => openStore(join(folder, `store-${++stores}.sqlite`), () => NOW);

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "values-"));
  demo = await fresh();
  await populateDemo(demo, NOW, 1);
  const pieces: Uint8Array[] = [];
  for await (const piece of writePackage(demo, { version: "test", nowMs: NOW })) pieces.push(piece);
  const { "datapackage.json": descriptor, ...tables } = unzipSync(Buffer.concat(pieces));
  const whole = JSON.parse(strFromU8(descriptor as Uint8Array)) as { resources: object[] };
  const resources = whole.resources.map((one) => ({ ...one, hash: undefined, bytes: undefined }));
  // Of the log three taps are enough; what nothing is tried in stays short.
  const lines = (name: string, most: number) =>
    strToU8(
      parseCsv(strFromU8(tables[name] as Uint8Array))
        .slice(0, most + 1)
        .map(({ cells }) => packageLine(cells))
        .join(""),
    );
  const clock = packageLine(["load", "recorder", "offset_ms"]) + packageLine(["3f9a1c52-7a55-4c1e-9a53-6d3d3f0f7a10", "phone", "12"]);
  files = {
    "datapackage.json": strToU8(JSON.stringify({ ...whole, resources })),
    ...tables,
    "event.csv": lines("event.csv", 3),
    "recorder_clock.csv": strToU8(clock),
  };
});
afterAll(async () => {
  await closeStore(demo);
  rmSync(folder, { recursive: true, force: true });
});

/** The package with one cell of a table's first row set to a text; a row is added where the table has none. */
function withCell(table: string, column: string, text: string): string {
  const rows = parseCsv(strFromU8(files[`${table}.csv`] as Uint8Array)).map(({ cells }) => [...cells]);
  const [head, first] = rows;
  const at = head?.indexOf(column) ?? -1;
  if (first === undefined || at < 0) throw new Error(`${table}.${column} has no row`);
  first[at] = text;
  const path = join(folder, "odd.zip");
  writeFileSync(path, zipSync({ ...files, [`${table}.csv`]: strToU8(rows.map(packageLine).join("")) }, { level: 1 }));
  return path;
}

describe("what a package's columns may hold", () => {
  it("is said of every column there is", async () => {
    for (const table of PACKED_TABLES)
      expect(Object.keys(VALUES[table.name] ?? {}).sort(), table.name).toEqual(
        (await columnsOf(demo.sequelize, table)).map(({ name }) => name).sort(),
      );
    expect(Object.keys(VALUES.event ?? {}).sort()).toEqual(EVENT_COLUMNS.map(({ name }) => name).sort());
  });

  it("is so of everything the demo yard holds", async () => {
    const path = join(folder, "whole.zip");
    writeFileSync(path, zipSync(files));
    const store = await fresh();
    await readPackage(store, path);
    await closeStore(store);
    expect(readFileSync(path).length).toBeGreaterThan(1000);
  });

  it.each<[table: string, column: string, value: string]>([
    ["recorder_clock", "offset_ms", "1e300"],
    ["horse", "pinned_signs", "null"],
    ["horse", "pinned_signs", '[{"name":7,"class":"tension"}]'],
    ["horse", "gone_against", '[{"day":"9999-01-01","reason":"x"}]'],
    ["horse", "birth_year", "99999"],
    ["horse", "born_day", "2026-02-31"],
    ["horse", "sex", "horse"],
    ["horse", "away_since", "soon"],
    ["horse", "created_ms", "1e300"],
    ["horse", "height_cm", "-4"],
    ["horse", "bears_heat_badly", "2"],
    ["horse", "name", `${"x".repeat(81)}`],
    ["horse", "name", "a\u0001b"],
    ["place", "shape", "heart"],
    ["place", "length_m", "1e9"],
    ["place_item", "kind", "trapdoor"],
    ["kit", "kind", "rocket"],
    ["kit", "mass_g", "-1"],
    ["behaviour", "involves", "{}"],
    ["behaviour", "prerequisites", "null"],
    ["behaviour", "free", "yes"],
    ["ladder", "version", "0"],
    ["ladder", "away_ms", "-1e16"],
    ["ladder_plan", "version", "0"],
    ["ladder_plan", "format", "0"],
    ["ladder_plan", "document", "x".repeat(500_001)],
    ["ladder_plan", "created_ms", "9e15"],
    ["chain_link", "rung", "0"],
    ["session", "kind", "race"],
    ["session", "kit", '{"a":1}'],
    ["session", "circle", "null"],
    ["session", "start_rung", "1001"],
    ["session", "created_ms", "9e15"],
    ["session", "id", "x".repeat(101)],
    ["event", "seq", "-1"],
    ["event", "mono_ms", "1e300"],
    ["event", "wall_ms", "1e13"],
    ["event", "payload", '{"__proto__":{"outcome":"met"}}'],
    ["event", "type", "constructor"],
    ["circle_setup", "body", '{"ways":"both","caps":{"session_minutes":-3}}'],
    ["circle_setup", "body", "null"],
  ])("%s.%s = %s is refused by name, with its file and line", async (table, column, value) => {
    const store = await fresh();
    const wanted = new RegExp(`${table}.csv, line 2.*(“${column}”|constructor|required field|__proto__)`);
    await expect(readPackage(store, withCell(table, column, value))).rejects.toThrow(wanted);
    await closeStore(store);
  });
});
