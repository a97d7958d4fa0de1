import type { Model } from "sequelize";

/** A model instance as its plain row. */
export const plain = <Row extends object>(model: Model<Row, Partial<Row>>): Row => model.get({ plain: true });

/** Thrown where an id names nothing in the store. */
export class NotFoundError extends Error {
  override readonly name = "NotFoundError";
}
