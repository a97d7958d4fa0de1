import { type QueryInterface, QueryTypes, type Sequelize } from "sequelize";
import { Umzug } from "umzug";
import { BEGUN_TABLES, StoreFileError } from "../file";
import * as theLine from "./0001-the-line";
import * as know from "./0002-know";
import * as shape from "./0003-shape";
import * as nothingLost from "./0004-nothing-lost";
import * as putRight from "./0005-put-right";
import * as house from "./0006-house";
import * as honestNumbers from "./0007-honest-numbers";
import * as phoneInThePen from "./0008-phone-in-the-pen";
import * as wholeConversation from "./0009-whole-conversation";
import * as libraryAndDates from "./0010-library-and-dates";
import * as overWeeks from "./0011-over-weeks";
import * as circle from "./0012-circle";
import * as soundAdvice from "./0013-sound-advice";
import * as waysAndKit from "./0014-ways-and-kit";
import * as nothingLostAgain from "./0015-nothing-lost-again";
import * as wholeOrNone from "./0016-whole-or-none";
import * as planDocuments from "./0017-plan-documents";

interface Migration {
  readonly name: string;
  readonly up: (query: QueryInterface) => Promise<void>;
  /**
   * A column or table that only this migration makes. Version 0.4.0 wrote the record of a migration after its commit:
   * killed in between, the change is there and its record is not.
   */
  readonly mark?: { readonly table: string; readonly column: string };
}

/** Every migration, in order. They only go forward; what one does is never changed once it has shipped. */
export const MIGRATIONS: readonly Migration[] = [
  { name: "0001-the-line", up: theLine.up },
  { name: "0002-know", up: know.up, mark: { table: "horse", column: "born_day" } },
  { name: "0003-shape", up: shape.up, mark: { table: "chain", column: "direction" } },
  { name: "0004-nothing-lost", up: nothingLost.up },
  { name: "0005-put-right", up: putRight.up },
  { name: "0006-house", up: house.up },
  { name: "0007-honest-numbers", up: honestNumbers.up },
  { name: "0008-phone-in-the-pen", up: phoneInThePen.up },
  { name: "0009-whole-conversation", up: wholeConversation.up },
  { name: "0010-library-and-dates", up: libraryAndDates.up },
  { name: "0011-over-weeks", up: overWeeks.up },
  { name: "0012-circle", up: circle.up },
  { name: "0013-sound-advice", up: soundAdvice.up },
  { name: "0014-ways-and-kit", up: waysAndKit.up },
  { name: "0015-nothing-lost-again", up: nothingLostAgain.up },
  { name: "0016-whole-or-none", up: wholeOrNone.up },
  { name: "0017-plan-documents", up: planDocuments.up },
];

export const MIGRATION_NAMES: readonly string[] = MIGRATIONS.map(({ name }) => name);

/**
 * Brings a store up to the present shape. Each migration and its record are
 * one transaction, so a cut leaves either both or neither. Foreign keys are
 * off meanwhile, since tables are rebuilt, and are checked before each commit.
 * @throws StoreFileError where the rows of a store do not fit together; nothing of that migration is then kept.
 */
export async function migrate(sequelize: Sequelize, migrations: readonly Migration[] = MIGRATIONS): Promise<void> {
  const run = (sql: string, replacements: Record<string, string> = {}) => sequelize.query(sql, { replacements });
  const select = <Row extends object>(sql: string) => sequelize.query<Row>(sql, { type: QueryTypes.SELECT });
  const record = (name: string) => run("INSERT INTO migration (name) VALUES (:name)", { name });
  const whole = async (work: () => Promise<unknown>) => {
    await run("BEGIN IMMEDIATE");
    try {
      await work();
      if ((await select("PRAGMA foreign_key_check")).length > 0)
        throw new StoreFileError(
          "The data's rows do not fit together after the change of version; nothing was changed. Go back to a backup.",
        );
      await run("COMMIT");
    } catch (error) {
      await run("ROLLBACK").catch(() => undefined);
      throw error;
    }
  };
  const executed = async () => (await select<{ name: string }>("SELECT name FROM migration ORDER BY name")).map(({ name }) => name);

  await run("PRAGMA foreign_keys = OFF");
  try {
    await run("CREATE TABLE IF NOT EXISTS migration (name VARCHAR(255) NOT NULL UNIQUE PRIMARY KEY)");
    const done = await executed();
    for (const { name, mark } of migrations) {
      if (done.length === 0 || done.includes(name) || mark === undefined) continue;
      const columns = await select<{ name: string }>(`PRAGMA table_info(${mark.table})`);
      if (columns.some((column) => column.name === mark.column)) await whole(() => record(name));
    }
    const umzug = new Umzug<QueryInterface>({
      migrations: migrations.map(({ name, up }) => ({
        name,
        up: ({ context }) =>
          whole(async () => {
            // What a first start before 0.5 had begun and lost; it is empty, the look at the file has seen to that.
            if (name === migrations[0]?.name)
              for (const table of BEGUN_TABLES.filter((one) => one !== "migration")) await run(`DROP TABLE IF EXISTS ${table}`);
            await up(context);
            await record(name);
          }),
      })),
      context: sequelize.getQueryInterface(),
      storage: { executed, logMigration: async () => undefined, unlogMigration: async () => undefined },
      logger: undefined,
    });
    await umzug.up();
  } finally {
    await run("PRAGMA foreign_keys = ON");
  }
}
