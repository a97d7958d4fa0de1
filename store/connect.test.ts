import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, it } from "vitest";
import { connect } from "./connect";

/** The version whose connection manager connect.ts was written to; another one is to be read before it is taken. */
const WRITTEN_TO = "6.37.8";

it("leans on the connection manager of the version it was written to", async () => {
  const { version } = JSON.parse(readFileSync("node_modules/sequelize/package.json", "utf8")) as { version: string };
  expect(version).toBe(WRITTEN_TO);
  const folder = mkdtempSync(join(tmpdir(), "connect-"));
  const { sequelize } = connect(join(folder, "x.sqlite"));
  const manager = (sequelize as unknown as { connectionManager: Record<string, unknown> }).connectionManager;
  // What it puts its own in place of, and reads: where one of them is gone the patch would do nothing and say so nowhere.
  for (const method of ["getConnection", "releaseConnection", "destroyConnection"])
    expect(
      typeof Reflect.get(Object.getPrototypeOf(manager) as object, method) === "function" || typeof manager[method] === "function",
    ).toBe(true);
  expect(typeof manager.connections).toBe("object");
  // A transaction's connection is kept for the next one: opening costs more than a small write.
  const seen = new Set<unknown>();
  for (let i = 0; i < 3; i++)
    await sequelize.transaction(async (transaction) => {
      seen.add(Reflect.get(transaction, "connection"));
    });
  expect(seen.size).toBe(1);
  await sequelize.close();
  rmSync(folder, { recursive: true, force: true });
});
