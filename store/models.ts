import type { Model, ModelStatic, Sequelize } from "sequelize";
import { allColumns, type RowOf, TABLES, type Table } from "./tables";
import { stored } from "./tables/column";

export type * from "./tables";

type Tables = typeof TABLES;
/** The models of one open store, one for each table. */
export type Models = { readonly [K in keyof Tables]: ModelStatic<Model<RowOf<Tables[K]>, Partial<RowOf<Tables[K]>>>> };

/** A model of a table; of one whose rows can lie in the bin it sees those that do not. */
function modelOf(sequelize: Sequelize, table: Table) {
  // Sequelize writes into the descriptions it is given, so each model gets its own.
  const columns = Object.fromEntries(Object.entries(allColumns(table)).map(([name, column]) => [name, stored(column)]));
  return sequelize.define(table.name, columns, table.bin ? { defaultScope: { where: { binned_ms: null } } } : {});
}

/** Makes the models of one open store. */
export const defineModels = (sequelize: Sequelize): Models =>
  Object.fromEntries(Object.entries(TABLES).map(([key, table]) => [key, modelOf(sequelize, table)])) as unknown as Models;
