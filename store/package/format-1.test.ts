import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gunzipSync } from "node:zlib";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { QueryTypes } from "sequelize";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type * as z from "zod";
import { prerequisitesDocument } from "@/core/behaviour/document";
import { circleSetupDocument } from "@/core/circle/document";
import { toLog } from "@/core/events/circle-log";
import { packageLine, parseCsv } from "@/core/formats";
import { involvementsDocument } from "@/core/welfare/document";
import { closeStore, keptJson, listHorses, listVersions, openStore, readPackage, type Store, unreadLadders, unreadPlan } from "..";
import { connect } from "../connect";
import { MIGRATIONS, migrate } from "../migrations";
import { columnsOf, PACKED_TABLES } from "./tables";

// One yard, written by version 0.14.0: as its store, as its package, and its plans as that version read them.
const FIXTURE = "tests/fixtures/yard-0.14.0";
const NOW = Date.UTC(2026, 3, 1, 12);
const plans = JSON.parse(readFileSync(join(FIXTURE, "plans.json"), "utf8")) as Record<string, { version: number }[]>;

let folder: string;
let files: Record<string, Uint8Array>;
let n = 0;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "format-1-"));
  const { "datapackage.json": descriptor, ...tables } = unzipSync(readFileSync(join(FIXTURE, "package.zip")));
  const whole = JSON.parse(strFromU8(descriptor as Uint8Array)) as { resources: object[] };
  const resources = whole.resources.map((one) => ({ ...one, hash: undefined, bytes: undefined }));
  files = { "datapackage.json": strToU8(JSON.stringify({ ...whole, resources })), ...tables };
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const file = (name: string) => join(folder, `${++n}-${name}`);

function oldStore(): string {
  const path = file("old.sqlite");
  writeFileSync(path, gunzipSync(readFileSync(join(FIXTURE, "store.sqlite.gz"))));
  return path;
}

async function broughtIn(path = join(FIXTURE, "package.zip")): Promise<Store> {
  const store = await openStore(file("brought.sqlite"), () => NOW);
  await readPackage(store, path);
  return store;
}

/** The package with one cell of the first row of a table set to a text. */
function withCell(table: string, column: string, text: string): string {
  const rows = parseCsv(strFromU8(files[`${table}.csv`] as Uint8Array)).map(({ cells }) => [...cells]);
  const at = rows[0]?.indexOf(column) ?? -1;
  if (rows[1] === undefined || at < 0) throw new Error(`${table}.${column} has no row`);
  rows[1][at] = text;
  const path = file("odd.zip");
  writeFileSync(path, zipSync({ ...files, [`${table}.csv`]: strToU8(rows.map(packageLine).join("")) }, { level: 1 }));
  return path;
}

const rowsOf = async (store: Store) =>
  Object.fromEntries(
    await Promise.all(
      PACKED_TABLES.map(async (table) => {
        const columns = (await columnsOf(store.sequelize, table)).map(({ name }) => `"${name}"`);
        const rows = await store.sequelize.query<object>(
          `SELECT ${columns.join(", ")} FROM "${table.name}" ORDER BY ${table.key.join(", ")}`,
          {
            type: QueryTypes.SELECT,
          },
        );
        return [table.name, rows] as const;
      }),
    ),
  );

const allPlans = async (store: Store) =>
  Object.fromEntries(await Promise.all(Object.keys(plans).map(async (id) => [id, await listVersions(store, id)] as const)));

describe("a plan that stood in four tables", () => {
  it("is the same plan after the migration, in every version", async () => {
    const store = await openStore(oldStore(), () => NOW);
    expect(Object.values(plans).flat().length).toBeGreaterThan(10);
    expect(await allPlans(store)).toEqual(plans);
    expect(await unreadLadders(store)).toEqual([]);
    await closeStore(store);
  });

  it("lets go on a wrong answer where it did before", async () => {
    const path = oldStore();
    const old = connect(path).sequelize;
    const [id = ""] = Object.keys(plans);
    await old.query("UPDATE ladder_version SET hold_on_wrong = 0 WHERE ladder_id = :id", { replacements: { id } });
    await old.close();
    const store = await openStore(path, () => NOW);
    for (const key of Object.keys(plans))
      for (const { plan } of await listVersions(store, key)) expect(plan.holdOnWrong, key).toBe(key !== id);
    await closeStore(store);
  });

  it("stands beside set-ups on the circle and prerequisites that are read as they were", async () => {
    const store = await openStore(oldStore(), () => NOW);
    const every = async (column: string, table: string, schema: z.ZodType) => {
      const rows = await store.sequelize.query<{ text: string }>(`SELECT ${column} AS text FROM ${table} WHERE ${column} IS NOT NULL`, {
        type: QueryTypes.SELECT,
      });
      expect(rows.length, column).toBeGreaterThan(0);
      for (const { text } of rows) expect(toLog(keptJson(text, schema)), text).toEqual(JSON.parse(text));
    };
    await every("body", "circle_setup", circleSetupDocument);
    await every("prerequisites", "behaviour", prerequisitesDocument);
    await every("involves", "behaviour", involvementsDocument);
    await closeStore(store);
  });

  it("is the same plan out of an old package, and the whole yard is the migrated one", async () => {
    const [migrated, brought] = [await openStore(oldStore(), () => NOW), await broughtIn()];
    expect(await allPlans(brought)).toEqual(plans);
    expect(await rowsOf(brought)).toEqual(await rowsOf(migrated));
    const [left] = await brought.sequelize.query<{ n: number }>(
      "SELECT COUNT(*) AS n FROM sqlite_master WHERE name IN ('ladder_version', 'strand', 'rung', 'cue_phase')",
      { type: QueryTypes.SELECT },
    );
    expect(left?.n).toBe(0);
    await closeStore(migrated);
    await closeStore(brought);
  });

  it("that could not be read keeps its text, is named, and stops nothing: migrated and brought in alike", async () => {
    const path = oldStore();
    const old = connect(path).sequelize;
    const [first] = await old.query<{ ladder_id: string; version: number }>(
      "SELECT ladder_id, version FROM ladder_version ORDER BY ladder_id, version LIMIT 1",
      { type: QueryTypes.SELECT },
    );
    if (first === undefined) throw new Error("a ladder");
    await old.query("UPDATE rung SET rung_values = '{\"stay\": 1' WHERE ladder_id = :id AND version = :version AND number = 1", {
      replacements: { id: first.ladder_id, version: first.version },
    });
    await old.close();
    const store = await openStore(path, () => NOW);
    const unread = await unreadPlan(store, first.ladder_id, first.version);
    expect(unread?.text).toContain('{\\"stay\\": 1');
    expect(unread?.problems[0]?.path).toBe("rungs[0].values");
    expect(await unreadLadders(store)).toHaveLength(1);
    expect((await listHorses(store)).length).toBeGreaterThan(1);
    await closeStore(store);

    // A word that no version knows, which only the plan as a whole can tell.
    const brought = await broughtIn(withCell("cue_phase", "kind", "shout"));
    expect(await unreadLadders(brought)).toHaveLength(1);
    await closeStore(brought);
  });

  it("of an import that was cut off is taken away with its ladder at the first start", async () => {
    const path = oldStore();
    const old = connect(path).sequelize;
    const row = (name: string, place: number, ...key: (string | number)[]) =>
      old.query("INSERT INTO import_row (mark, place, name, key) VALUES ('import:x', :place, :name, :key)", {
        replacements: { place, name, key: JSON.stringify(key) },
      });
    const [horse] = await old.query<{ id: string }>("SELECT id FROM horse LIMIT 1", { type: QueryTypes.SELECT });
    await old.query("INSERT INTO behaviour (id, name, finished, cue, why, involves, sample) VALUES ('new', 'n', '', '', '', '[]', 0)");
    await old.query(
      `INSERT INTO ladder (id, horse_id, behaviour_id, version, revision, sample, created_ms) VALUES ('new', '${horse?.id}', 'new', 1, 1, 0, 5)`,
    );
    await old.query(
      `INSERT INTO ladder_version (ladder_id, version, method, maximum_s, mastery, schedule, offers, planned, created_ms)
       VALUES ('new', 1, 'combined', 20, '{}', '{}', 'ignore', 8, 7)`,
    );
    await old.query("INSERT INTO rung (ladder_id, version, number, rung_values) VALUES ('new', 1, 1, '{}')");
    await row("behaviour", 1, "new");
    await row("ladder", 2, "new");
    await row("ladder_version", 3, "new", 1);
    await row("rung", 4, "new", 1, 1);
    await old.close();
    const store = await openStore(path, () => NOW);
    for (const table of ["ladder", "behaviour", "ladder_plan"])
      expect(
        await store.sequelize.query(`SELECT 1 FROM ${table} WHERE ${table === "ladder_plan" ? "ladder_id" : "id"} = 'new'`, {
          type: QueryTypes.SELECT,
        }),
        table,
      ).toEqual([]);
    await closeStore(store);
  });

  it("stays in its tables where the change cannot be finished", async () => {
    const path = oldStore();
    const old = connect(path).sequelize;
    await old.query("CREATE TABLE ladder_plan (x TEXT)");
    await expect(migrate(old, MIGRATIONS)).rejects.toThrow();
    const [rungs] = await old.query<{ n: number }>("SELECT COUNT(*) AS n FROM rung", { type: QueryTypes.SELECT });
    expect(rungs?.n).toBeGreaterThan(20);
    await old.query("DROP TABLE ladder_plan");
    await old.close();
    const store = await openStore(path, () => NOW);
    expect(await allPlans(store)).toEqual(plans);
    await closeStore(store);
  });

  it.each<[table: string, column: string, value: string]>([
    ["ladder_version", "mastery", "[]"],
    ["ladder_version", "method", "magic"],
    ["ladder_version", "maximum_s", "-1"],
    ["strand", "levels", "[1]"],
    ["strand", "kind", "colour"],
    ["rung", "rung_values", "7"],
    ["rung", "least_movement", "9"],
    ["cue_phase", "dwell_s", "1e12"],
  ])("%s.%s = %s is refused by name, with its file and line", async (table, column, value) => {
    await expect(broughtIn(withCell(table, column, value))).rejects.toThrow(new RegExp(`${table}.csv, line 2.*“${column}”`));
  });

  it("belongs in no package of the present format", async () => {
    const text = strFromU8(files["datapackage.json"] as Uint8Array).replace('"format":1', '"format":2');
    const path = file("mixed.zip");
    writeFileSync(path, zipSync({ ...files, "datapackage.json": strToU8(text) }));
    await expect(broughtIn(path)).rejects.toThrow(/belongs in no package/);
  });
});
