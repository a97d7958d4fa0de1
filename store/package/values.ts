import { isRecord } from "@/core/typed";
import { allColumns, type Check, TABLES, type Table } from "../tables";
import * as is from "../tables/checks";
import { EVENTS_FILE, SETTINGS_FILE } from "./tables";

/** The check of each column; a flag needs none of its own. */
const checksOf = (table: Table): Readonly<Record<string, Check>> =>
  Object.fromEntries(
    Object.entries(allColumns(table)).flatMap(([name, { kind, check }]) => {
      const of = check ?? (kind === "flag" ? is.flag : null);
      return of === null ? [] : [[name, of]];
    }),
  );

/**
 * What each column of a package may hold. An empty cell is judged by whether
 * the column may be empty, and by nothing here.
 * A plan is judged whole, when it is read; a restriction whose kind this version does not know is
 * kept, and closes all work until somebody has read it.
 */
export const VALUES: Readonly<Record<string, Readonly<Record<string, Check>>>> = {
  ...Object.fromEntries(
    Object.values<Table>(TABLES)
      .filter(({ packed }) => packed !== null)
      .map((table) => [table.name, checksOf(table)]),
  ),
  [EVENTS_FILE]: checksOf(TABLES.eventLog),
  [SETTINGS_FILE]: { key: is.text(80), value: is.json(isRecord) },
};
