import type { QueryInterface, Sequelize } from "sequelize";
import { SequelizeStorage, Umzug } from "umzug";
import * as theLine from "./0001-the-line";
import * as know from "./0002-know";
import * as shape from "./0003-shape";

interface Migration {
  readonly name: string;
  readonly up: (query: QueryInterface) => Promise<void>;
}

/** Every migration, in order. They only go forward; none is changed once it has shipped. */
export const MIGRATIONS: readonly Migration[] = [
  { name: "0001-the-line", up: theLine.up },
  { name: "0002-know", up: know.up },
  { name: "0003-shape", up: shape.up },
];

/** Brings a store up to the present shape. */
export async function migrate(sequelize: Sequelize, migrations: readonly Migration[] = MIGRATIONS): Promise<void> {
  const umzug = new Umzug<QueryInterface>({
    migrations: migrations.map(({ name, up }) => ({ name, up: ({ context }) => up(context) })),
    context: sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize, tableName: "migration" }),
    logger: undefined,
  });
  await umzug.up();
}
