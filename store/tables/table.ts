import * as is from "./checks";
import { type Column, orNull, real, text } from "./column";

export type Columns = Readonly<Record<string, Column<unknown, boolean>>>;

/** A table, declared once: model, row type, columns of a package and their checks are made of it. */
export interface Table<Of extends Columns = Columns> {
  readonly name: string;
  readonly columns: Of;
  /** Whether its rows can lie in the bin: they are in no list and under no address until they come back. */
  readonly bin: boolean;
  /** What tells its rows apart in a package; null where it is in none. */
  readonly packed: readonly string[] | null;
  /** Columns that never leave this computer. */
  readonly stays: readonly string[];
}

/** What can go to the bin: since when it lies there, and with what it went; null where it does not. */
export interface Binnable {
  binned_ms?: number | null;
  binned_with?: string | null;
}

const BINNED = { binned_ms: orNull(real(is.time)), binned_with: orNull(text(is.text(100))) };

interface Traits {
  readonly packed?: readonly string[];
  readonly stays?: readonly string[];
}

export const table = <Of extends Columns>(name: string, { packed, stays = [] }: Traits, columns: Of): Table<Of> => ({
  name,
  columns,
  bin: false,
  packed: packed ?? null,
  stays,
});

/** A table whose rows can lie in the bin. */
export const binnable = <Of extends Columns>(name: string, traits: Traits, columns: Of): Table<Of> & { readonly bin: true } => ({
  ...table(name, traits, columns),
  bin: true,
});

/** Every column as it is stored, those of the bin with them. */
export const allColumns = ({ columns, bin }: Table): Columns => (bin ? { ...columns, ...BINNED } : columns);

type ValueOf<C> = C extends Column<infer Value, boolean> ? Value : never;
type OptionalKeys<Of> = { [K in keyof Of]: Of[K] extends Column<unknown, true> ? K : never }[keyof Of];
type Plain<Of> = { [K in keyof Of as K extends OptionalKeys<Of> ? never : K]: ValueOf<Of[K]> } & {
  [K in OptionalKeys<Of>]?: ValueOf<Of[K]>;
};

/** A row as the program holds it. JSON columns are text. */
export type RowOf<T> = T extends Table<infer Of> ? (T extends { readonly bin: true } ? Plain<Of> & Binnable : Plain<Of>) : never;
