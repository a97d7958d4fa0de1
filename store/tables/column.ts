import { DataTypes } from "sequelize";
import type { Check } from "./checks";
import * as is from "./checks";

type Kind = "text" | "whole" | "real" | "flag" | "blob";

/**
 * A column, declared once: how it is stored, what its values are in the
 * program, and what it may hold in a package. An empty cell of a package is
 * judged by whether the column may be empty, and by nothing here.
 */
export interface Column<Value, Optional extends boolean = false> {
  readonly kind: Kind;
  readonly key: boolean;
  /** Numbered by the store itself. */
  readonly numbered: boolean;
  readonly check: Check | null;
  /** Never there: they carry the types. */
  readonly value?: Value;
  readonly optional?: Optional;
}

const column =
  <Usual>(kind: Kind) =>
  <Value extends Usual = Usual>(check: Check | null = null): Column<Value> => ({ kind, key: false, numbered: false, check });

export const text = column<string>("text");
export const whole = column<number>("whole");
export const real = column<number>("real");
export const flag = column<boolean>("flag");
export const blob = column<Buffer | string>("blob");

/** One of some words. */
export const choice = <const Word extends string>(words: readonly Word[]): Column<Word> => text<Word>(is.oneOf(words));
/** May be empty. */
export const orNull = <Value>(of: Column<Value>): Column<Value | null> => of;
/** Left out where the store fills it in. */
export const optional = <Value>(of: Column<Value>): Column<Value, true> => ({
  kind: of.kind,
  key: of.key,
  numbered: of.numbered,
  check: of.check,
});
/** Tells rows apart. */
export const key = <One extends Column<unknown, boolean>>(of: One): One => ({ ...of, key: true });
/** Tells rows apart, and is numbered by the store. */
export const numbered = <One extends Column<unknown, boolean>>(of: One): One => ({ ...of, key: true, numbered: true });

const STORED = {
  text: DataTypes.TEXT,
  whole: DataTypes.INTEGER,
  real: DataTypes.DOUBLE,
  flag: DataTypes.BOOLEAN,
  blob: DataTypes.BLOB,
} as const;

/** A column as the database library describes it. */
export const stored = ({ kind, key: isKey, numbered: byStore }: Column<unknown, boolean>) => ({
  type: STORED[kind],
  ...(isKey ? { primaryKey: true } : {}),
  ...(byStore ? { autoIncrement: true } : {}),
});
