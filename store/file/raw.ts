import sqlite3 from "sqlite3";

/** A connection of its own to a file, without the models: for looking, copying and restoring. */
export interface RawDatabase {
  all<Row>(sql: string, values?: readonly unknown[]): Promise<Row[]>;
  exec(sql: string): Promise<void>;
  close(): Promise<void>;
}

/** Opens a file as it is. @throws where it is not there or cannot be opened. */
export function openRaw(file: string, way: "read" | "write" = "read"): Promise<RawDatabase> {
  return new Promise((resolve, reject) => {
    const database = new sqlite3.Database(file, way === "read" ? sqlite3.OPEN_READONLY : sqlite3.OPEN_READWRITE, (failed) => {
      if (failed !== null) return reject(failed);
      database.configure("busyTimeout", 5000);
      resolve({
        all: <Row>(sql: string, values: readonly unknown[] = []) =>
          new Promise<Row[]>((done, fail) => database.all<Row>(sql, values, (error, rows) => (error === null ? done(rows) : fail(error)))),
        exec: (sql) => new Promise((done, fail) => database.exec(sql, (error) => (error === null ? done() : fail(error)))),
        close: () => new Promise((done) => database.close(() => done())),
      });
    });
  });
}

/** Runs something over a connection and closes it in every case. */
export async function withRaw<T>(file: string, way: "read" | "write", work: (database: RawDatabase) => Promise<T>): Promise<T> {
  const database = await openRaw(file, way);
  try {
    return await work(database);
  } finally {
    await database.close();
  }
}
