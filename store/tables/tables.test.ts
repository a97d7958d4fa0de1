import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { QueryTypes } from "sequelize";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { closeStore, openStore, type Store } from "..";
import { allColumns, TABLES, type Table } from ".";

let folder: string;
let store: Store;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "tables-"));
  store = await openStore(join(folder, "store.sqlite"), () => Date.UTC(2026, 3, 1));
});
afterAll(async () => {
  await closeStore(store);
  rmSync(folder, { recursive: true });
});

const KINDS = [
  [/BLOB/i, "blob"],
  [/BOOL|TINYINT/i, "flag"],
  [/INT/i, "whole"],
  [/REAL|DOUBLE|FLOAT/i, "real"],
] as const;

const tables = Object.values<Table>(TABLES);

describe("a table declared once", () => {
  it.each(tables.map((table) => [table.name, table] as const))("%s has the columns the migrations made", async (name, table) => {
    const found = await store.sequelize.query<{ name: string; type: string; notnull: number }>(
      'SELECT name, type, "notnull" FROM pragma_table_info($name)',
      { bind: { name }, type: QueryTypes.SELECT },
    );
    const declared = Object.keys(allColumns(table));
    // What stays at home may be another model's, such as a helper's secrets.
    expect(declared.filter((column) => !found.some((one) => one.name === column))).toEqual([]);
    expect(found.map((one) => one.name).filter((column) => !declared.includes(column) && !table.stays.includes(column))).toEqual([]);
    if (name === "event_log") return;
    for (const { name: column, type } of found) {
      const kind = allColumns(table)[column]?.kind;
      const stored = KINDS.find(([pattern]) => pattern.test(type))?.[1] ?? "text";
      // A flag may be stored as a whole number.
      if (kind !== undefined && !(kind === "flag" && stored === "whole")) expect(`${column} ${kind}`).toBe(`${column} ${stored}`);
    }
  });

  it("says of each column that travels what it may hold", () => {
    const unsaid = tables
      .filter(({ packed }) => packed !== null)
      .flatMap((table) =>
        Object.entries(allColumns(table))
          .filter(([column, { check, kind }]) => check === null && kind !== "flag" && !table.stays.includes(column))
          .map(([column]) => `${table.name}.${column}`),
      );
    expect(unsaid).toEqual([]);
  });

  it("is told apart in a package by columns it has", () => {
    for (const table of tables) for (const column of table.packed ?? []) expect(Object.keys(allColumns(table))).toContain(column);
  });
});
