import type { StoreParts } from "../store";

type Of = Pick<StoreParts, "sequelize">;
const KNOWN = Symbol.for("deft damaged sums");
const of = ({ sequelize }: Of): Set<number> => {
  const holder = sequelize as typeof sequelize & { [KNOWN]?: Set<number> };
  holder[KNOWN] ??= new Set();
  return holder[KNOWN];
};

/** Sessions whose kept sums are damaged and could not be written anew: they are taken for stale. */
export const damagedNos = (store: Of): readonly number[] => [...of(store)];
export const setDamaged = (store: Of, sessions: readonly { readonly no: number }[]): void => {
  for (const { no } of sessions) of(store).add(no);
};
/** They were written anew. */
export const setWhole = (store: Of, nos: readonly number[]): void => {
  for (const no of nos) of(store).delete(no);
};
