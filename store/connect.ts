import { Sequelize } from "sequelize";
import type { Database } from "sqlite3";

/**
 * Set on every connection: WAL so that readers do not wait for the writer,
 * FULL so that what was acknowledged survives a power cut, a busy timeout for
 * the backup command, foreign keys always.
 */
const PRAGMAS = "PRAGMA busy_timeout=5000; PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA foreign_keys=ON;";

const prepare = (database: Database) =>
  new Promise<void>((resolve, reject) => {
    database.exec(PRAGMAS, (error) => (error === null ? resolve() : reject(error)));
  });

interface PooledDatabase extends Database {
  /** The dialect writes the transaction's id here. */
  uuid?: string;
}

interface ConnectionSource {
  readonly connections: Record<string, PooledDatabase>;
  getConnection(options?: { uuid?: string }): Promise<PooledDatabase>;
  releaseConnection(connection: PooledDatabase, force?: boolean): unknown;
}

/**
 * Opens a store's file. The dialect opens a connection for each transaction
 * and closes it after; opening costs more than a small write, so a
 * transaction's connection is kept for the next one.
 */
export function connect(file: string): Sequelize {
  const sequelize = new Sequelize({
    dialect: "sqlite",
    storage: file,
    logging: false,
    define: { timestamps: false, freezeTableName: true },
  });
  const manager = (sequelize as unknown as { connectionManager: ConnectionSource }).connectionManager;
  const open = manager.getConnection.bind(manager);
  const release = manager.releaseConnection.bind(manager);
  const ready = new WeakMap<Database, Promise<void>>();
  const idle: PooledDatabase[] = [];
  manager.getConnection = async (options) => {
    const uuid = options?.uuid;
    if (uuid !== undefined && manager.connections[uuid] === undefined) {
      const kept = idle.pop();
      if (kept !== undefined) manager.connections[uuid] = kept;
    }
    const database = await open(options);
    let prepared = ready.get(database);
    if (prepared === undefined) {
      prepared = prepare(database);
      ready.set(database, prepared);
    }
    await prepared;
    return database;
  };
  manager.releaseConnection = (connection, force) => {
    const uuid = connection.uuid;
    if (uuid === undefined || force === true) return release(connection, force);
    delete manager.connections[uuid];
    connection.uuid = undefined;
    idle.push(connection);
  };
  const close = sequelize.close.bind(sequelize);
  sequelize.close = async () => {
    await Promise.all(idle.splice(0).map((database) => new Promise<void>((resolve) => database.close(() => resolve()))));
    await close();
  };
  return sequelize;
}
