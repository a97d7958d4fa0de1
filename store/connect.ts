import { Sequelize } from "sequelize";
import type { Database } from "sqlite3";

/**
 * Set on every connection: WAL so that readers do not wait for the writer,
 * FULL so that what was acknowledged survives a power cut, a busy timeout for
 * the backup command, foreign keys always.
 */
const PRAGMAS = ["PRAGMA journal_mode=WAL", "PRAGMA synchronous=FULL", "PRAGMA foreign_keys=ON", "PRAGMA busy_timeout=5000"];

const run = (database: Database, sql: string) =>
  new Promise<void>((resolve, reject) => {
    database.run(sql, (error) => (error === null ? resolve() : reject(error)));
  });

interface ConnectionSource {
  getConnection(options?: unknown): Promise<Database>;
}

/** Opens a store's file. The dialect opens a connection of its own for each transaction, so the pragmas go on each. */
export function connect(file: string): Sequelize {
  const sequelize = new Sequelize({
    dialect: "sqlite",
    storage: file,
    logging: false,
    define: { timestamps: false, freezeTableName: true },
  });
  const manager = (sequelize as unknown as { connectionManager: ConnectionSource }).connectionManager;
  const open = manager.getConnection.bind(manager);
  const ready = new WeakMap<Database, Promise<void>>();
  manager.getConnection = async (options?: unknown) => {
    const database = await open(options);
    let prepared = ready.get(database);
    if (prepared === undefined) {
      prepared = (async () => {
        for (const pragma of PRAGMAS) await run(database, pragma);
      })();
      ready.set(database, prepared);
    }
    await prepared;
    return database;
  };
  return sequelize;
}
