import type { NumberedSession } from "../events";
import type { StoreParts } from "../store";

/** A session whose events cannot be summed up, with why. */
export interface NotSummed {
  readonly id: string;
  readonly why: string;
}

type Of = Pick<StoreParts, "sequelize">;
/** The launcher and the pages each have this module once, and one store between them: what is known lies with the store. */
const KNOWN = Symbol.for("deft not summed");
const of = ({ sequelize }: Of): Map<number, NotSummed> => {
  const holder = sequelize as typeof sequelize & { [KNOWN]?: Map<number, NotSummed> };
  holder[KNOWN] ??= new Map();
  return holder[KNOWN];
};

/** Sessions that could not be summed up, named: the page of the data shows them. What was kept of them before stays. */
export const notSummedIn = (store: Of): readonly NotSummed[] => [...of(store).values()];
/** Their numbers: they stand in nobody's way, and are tried again once something is tapped in them. */
export const notSummedNos = (store: Of): readonly number[] => [...of(store).keys()];

/** It can be summed up, or is to be tried again. */
export const setSummed = (store: Of, no: number): void => {
  of(store).delete(no);
};

export function setNotSummed(store: Of, { no, id }: NumberedSession, error: unknown): void {
  const found = of(store);
  if (!found.has(no)) console.error(`Session ${id} cannot be summed up.`, error);
  found.set(no, { id, why: error instanceof Error ? error.message : String(error) });
}
