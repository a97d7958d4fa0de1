import { DataTypes, type Model, type ModelStatic, QueryTypes, type Transaction } from "sequelize";

/** A model instance as its plain row. */
export const plain = <Row extends object>(model: Model<Row, Partial<Row>>): Row => model.get({ plain: true });

type Table<Row extends object> = ModelStatic<Model<Row, Partial<Row>>>;

const flagColumns = new WeakMap<object, readonly string[]>();

/** Columns that hold yes or no, as SQLite keeps them: 1 or 0. */
function flagsOf(table: object & { getAttributes(): Record<string, { type: unknown }> }): readonly string[] {
  const known = flagColumns.get(table);
  if (known !== undefined) return known;
  const found = Object.entries(table.getAttributes()).flatMap(([name, { type }]) => (type instanceof DataTypes.BOOLEAN ? [name] : []));
  flagColumns.set(table, found);
  return found;
}

/**
 * Plain rows of a table, those in the bin left out. For what every page reads:
 * a model around each row, and its question to the table for its columns, cost more than the reading.
 * @param where a condition with named values, and what follows it.
 * @example rowsOf(store.models.horse, "id = :id", { id })
 */
export async function rowsOf<Row extends object>(
  table: Table<Row>,
  where = "1",
  values: Record<string, unknown> = {},
  transaction?: Transaction,
): Promise<Row[]> {
  const { sequelize } = table;
  if (sequelize === undefined) throw new Error("The model has no store.");
  const flags = flagsOf(table as never);
  const binnable = "binned_ms" in table.getAttributes();
  const rows = await sequelize.query<Row & Record<string, unknown>>(
    `SELECT * FROM ${table.getTableName()} WHERE ${binnable ? "binned_ms IS NULL AND " : ""}${where}`,
    { replacements: values, type: QueryTypes.SELECT, transaction },
  );
  for (const row of rows) for (const flag of flags) if (row[flag] !== null) Object.assign(row, { [flag]: Boolean(row[flag]) });
  return rows;
}

/** Only these columns of an input: what a caller adds beside them reaches no table. */
export const pick = <Row extends object, Key extends keyof Row>(input: Row, keys: readonly Key[]): Pick<Row, Key> =>
  Object.fromEntries(keys.filter((key) => key in input).map((key) => [key, input[key]])) as Pick<Row, Key>;

/**
 * An error of a kind that is known. What a program tells it by is its `code`:
 * a class may be there twice, in two bundles of one process, and its name changed by a minifier.
 */
abstract class KnownError extends Error {
  abstract readonly code: string;
}

/** Whether an error is of a kind, by its code. */
export const isOfCode = <Code extends string>(error: unknown, code: Code): error is Error & { readonly code: Code } =>
  error instanceof Error && "code" in error && error.code === code;

/** Thrown where an id names nothing in the store. */
export class NotFoundError extends KnownError {
  readonly code = "not-found";
}

/** Thrown where an id is taken by something that says otherwise. */
export class ConflictError extends KnownError {
  readonly code: string = "conflict";
}

/** Thrown where a row says something this version cannot read. */
export class UnreadError extends KnownError {
  readonly code = "unread";
  /** What an error page knows it by. */
  readonly digest = "row-unread";
  constructor(what: string) {
    super(`This version cannot read ${what}. Nothing of it is lost.`);
  }
}

/** Thrown where something a form names has been removed meanwhile, in another window. */
export class GoneError extends KnownError {
  readonly code = "gone";
}
