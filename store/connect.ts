import { Sequelize, Transaction } from "sequelize";
import type { Database } from "sqlite3";
import { storeFailure } from "./failure";

/** How long a write waits for another program's lock before it is answered as held. */
export const BUSY_MS = 5000;

/**
 * Set on every connection: WAL so that readers do not wait for the writer,
 * FULL so that what was acknowledged survives a power cut, a busy timeout for
 * the backup command, foreign keys always.
 */
const pragmas = (busyMs: number) =>
  `PRAGMA busy_timeout=${busyMs}; PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA foreign_keys=ON;`;

const prepare = (database: Database, busyMs: number) =>
  new Promise<void>((resolve, reject) => {
    database.exec(pragmas(busyMs), (error) => (error === null ? resolve() : reject(error)));
  });

const shut = (database: Database) => new Promise<void>((resolve) => database.close(() => resolve()));

interface PooledDatabase extends Database {
  /** The dialect writes the transaction's id here. */
  uuid?: string;
}

interface ConnectionSource {
  readonly connections: Record<string, PooledDatabase>;
  getConnection(options?: { uuid?: string }): Promise<PooledDatabase>;
  releaseConnection(connection: PooledDatabase, force?: boolean): unknown;
  destroyConnection(connection: PooledDatabase): Promise<unknown>;
}

/** A store's file, opened: what reads and writes it, and how to begin again after a failure. */
export interface Connected {
  readonly sequelize: Sequelize;
  /** Closes the connections kept for writing, so that the next transaction opens a new one. */
  startAfresh(): Promise<void>;
}

/**
 * Opens a store's file. The dialect opens a connection for each transaction
 * and closes it after; opening costs more than a small write, so a
 * transaction's connection is kept for the next one. One that failed, at
 * opening, at BEGIN or at COMMIT, is closed and never used again: SQLite
 * remembers on a connection that the disk was read-only when it was opened.
 */
export function connect(file: string, busyMs = BUSY_MS): Connected {
  const sequelize = new Sequelize({
    dialect: "sqlite",
    storage: file,
    logging: false,
    define: { timestamps: false, freezeTableName: true },
    // A held lock has been waited for already; the dialect would wait five times over.
    retry: { max: 1 },
    // The write lock is taken at BEGIN, where nothing has been read yet that could have gone stale.
    transactionType: Transaction.TYPES.IMMEDIATE,
  });
  const manager = (sequelize as unknown as { connectionManager: ConnectionSource }).connectionManager;
  const open = manager.getConnection.bind(manager);
  const ready = new WeakMap<Database, Promise<void>>();
  const idle: PooledDatabase[] = [];
  const forget = (uuid: string) => {
    delete manager.connections[uuid];
  };
  manager.getConnection = async (options) => {
    const uuid = options?.uuid ?? "default";
    if (uuid !== "default" && manager.connections[uuid] === undefined) {
      const kept = idle.pop();
      if (kept !== undefined) manager.connections[uuid] = kept;
    }
    let database: PooledDatabase;
    try {
      database = await open(options);
    } catch (error) {
      forget(uuid);
      throw error;
    }
    let prepared = ready.get(database);
    if (prepared === undefined) {
      prepared = prepare(database, busyMs);
      ready.set(database, prepared);
    }
    try {
      await prepared;
    } catch (error) {
      forget(uuid);
      await shut(database);
      throw error;
    }
    return database;
  };
  manager.releaseConnection = (connection) => {
    if (connection.uuid === undefined) return;
    forget(connection.uuid);
    connection.uuid = undefined;
    idle.push(connection);
  };
  manager.destroyConnection = async (connection) => {
    if (connection.uuid !== undefined) forget(connection.uuid);
    await shut(connection);
  };
  const startAfresh = async () => {
    await Promise.all(idle.splice(0).map(shut));
  };
  const close = sequelize.close.bind(sequelize);
  sequelize.close = async () => {
    await startAfresh();
    await close();
  };
  // A page that fails is told to the browser by a digest alone: what kind of failure it was stands in it.
  const query = sequelize.query.bind(sequelize) as (...asked: unknown[]) => Promise<unknown>;
  sequelize.query = ((...asked: unknown[]) =>
    query(...asked).catch((error: unknown) => {
      const failure = storeFailure(error);
      if (failure !== null && error instanceof Error) Object.assign(error, { digest: `store-${failure}` });
      throw error;
    })) as typeof sequelize.query;
  return { sequelize, startAfresh };
}
