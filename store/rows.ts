import type { Model } from "sequelize";

/** A model instance as its plain row. */
export const plain = <Row extends object>(model: Model<Row, Partial<Row>>): Row => model.get({ plain: true });

/** Only these columns of an input: what a caller adds beside them reaches no table. */
export const pick = <Row extends object, Key extends keyof Row>(input: Row, keys: readonly Key[]): Pick<Row, Key> =>
  Object.fromEntries(keys.filter((key) => key in input).map((key) => [key, input[key]])) as Pick<Row, Key>;

/** Thrown where an id names nothing in the store. */
export class NotFoundError extends Error {
  override readonly name = "NotFoundError";
}

/** Thrown where an id is taken by something that says otherwise. */
export class ConflictError extends Error {
  override readonly name = "ConflictError";
}

/** Thrown where something a form names has been removed meanwhile, in another window. */
export class GoneError extends Error {
  override readonly name = "GoneError";
}
