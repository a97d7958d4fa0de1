import { copyFileSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, truncateSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { connect } from "../connect";
import {
  accessOfPeople,
  addPerson,
  closeStore,
  copyBefore,
  listPeople,
  MIGRATION_NAMES,
  MIGRATIONS,
  migrate,
  openStore,
  setAccess,
} from "../index";
import { copyStore, finishRestore, lookAtStore, restoreStore, withRaw } from "./index";

let folder: string;
let file: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "deft-file-"));
  file = join(folder, "own.sqlite");
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

async function storeWith(name: string, at = file): Promise<void> {
  const store = await openStore(at);
  await addPerson(store, { name, role: "handler" });
  await closeStore(store);
}
const peopleIn = async (at = file) => {
  const store = await openStore(at);
  const names = (await listPeople(store)).map(({ name }) => name);
  await closeStore(store);
  return names;
};

describe("what is no store of ours is said in a sentence and left as it is", () => {
  const cases: [string, () => Promise<void> | void, RegExp][] = [
    ["emptied", () => writeFileSync(file, ""), /is empty/],
    ["text", () => writeFileSync(file, "not a database at all, but longer than a header"), /damaged/],
    [
      "cut short",
      async () => {
        await storeWith("Ana");
        truncateSync(file, 5000);
      },
      /damaged/,
    ],
    [
      "with a page overwritten",
      async () => {
        await storeWith("Ana");
        const bytes = readFileSync(file);
        bytes.fill(0x5a, 4096 * 2, 4096 * 6);
        writeFileSync(file, bytes);
      },
      /damaged/,
    ],
    [
      "newer",
      async () => {
        await storeWith("Ana");
        await withRaw(file, "write", (database) =>
          database.exec("INSERT INTO migration VALUES ('9999-later'); PRAGMA journal_mode=DELETE"),
        );
      },
      /newer version.*9999-later/,
    ],
    [
      "another program's",
      () => {
        writeFileSync(file, "");
        return withRaw(file, "write", (database) => database.exec("CREATE TABLE songs (title TEXT)"));
      },
      /another program/,
    ],
  ];
  it.each(cases)("%s", async (_, make, words) => {
    await make();
    const before = readFileSync(file);
    await expect(openStore(file)).rejects.toMatchObject({ code: "store-file", message: expect.stringMatching(words) });
    expect(readFileSync(file).equals(before)).toBe(true);
  });

  it("a file that is gone while its last writes are there", async () => {
    writeFileSync(`${file}-wal`, "something");
    await expect(openStore(file)).rejects.toThrow(/is gone, but what was last written/);
  });
});

describe("a new store", () => {
  it("takes its name only when it is whole, and a try cut off is made anew", async () => {
    await expect(
      openStore(file, Date.now, {
        fill: async (store) => {
          await addPerson(store, { name: "half", role: "handler" });
          throw new Error("killed");
        },
      }),
    ).rejects.toThrow("killed");
    expect(existsSync(file)).toBe(false);
    const store = await openStore(file, Date.now, { fill: async (one) => void (await addPerson(one, { name: "whole", role: "handler" })) });
    expect((await listPeople(store)).map(({ name }) => name)).toEqual(["whole"]);
    await closeStore(store);
  });

  it("begun by an earlier version and cut off after any table is finished", async () => {
    const whole = connect(join(folder, "whole.sqlite")).sequelize;
    await migrate(whole, MIGRATIONS.slice(0, 1));
    const statements = (
      await withRaw(join(folder, "whole.sqlite"), "read", (database) =>
        database.all<{ sql: string; name: string }>(
          "SELECT sql, name FROM sqlite_master WHERE sql IS NOT NULL AND name NOT LIKE 'sqlite_%'",
        ),
      )
    ).map(({ sql }) => sql);
    await whole.close();
    expect(statements.length).toBeGreaterThan(18);
    for (const made of [0, 1, 5, 12, statements.length]) {
      const begun = join(folder, `begun-${made}.sqlite`);
      writeFileSync(begun, "");
      await withRaw(begun, "write", (database) => database.exec(`PRAGMA journal_mode=WAL; ${statements.slice(0, made).join(";")}`));
      await storeWith("Ana", begun);
      expect(await peopleIn(begun)).toEqual(["Ana"]);
    }
  });
});

describe("a store of an earlier version", () => {
  const old = async (count: number, recorded: number) => {
    const { sequelize } = connect(file);
    await migrate(sequelize, MIGRATIONS.slice(0, count));
    await sequelize.query("INSERT INTO person (id, name, role, sample, created_ms) VALUES ('p', 'Ana', 'handler', 0, 1)");
    for (const { name } of MIGRATIONS.slice(recorded))
      await sequelize.query("DELETE FROM migration WHERE name = :name", { replacements: { name } });
    await sequelize.close();
  };

  it.each([
    [1, 1],
    [2, 2],
    [3, 3],
    // Killed after the commit and before the record, as version 0.4.0 did it.
    [2, 1],
    [3, 2],
    [3, 1],
  ])("with %i migrations done and %i recorded is brought up, and a copy of it as it was is kept", async (done, recorded) => {
    await old(done, recorded);
    expect(await peopleIn()).toEqual(["Ana"]);
    const next = MIGRATION_NAMES[recorded] ?? "";
    await withRaw(copyBefore(file, next), "read", async (database) => {
      expect((await database.all<{ name: string }>("SELECT name FROM migration ORDER BY name")).map(({ name }) => name)).toEqual(
        MIGRATION_NAMES.slice(0, recorded),
      );
      expect(await database.all("SELECT name FROM person")).toEqual([{ name: "Ana" }]);
    });
    expect(await lookAtStore(file, MIGRATION_NAMES, true)).toEqual({ state: "store", migrations: [...MIGRATION_NAMES] });
  });

  it("that is up to date is not copied again", async () => {
    await storeWith("Ana");
    await peopleIn();
    expect(existsSync(join(folder, "backups"))).toBe(false);
  });

  it("has its upper-case ids in one case after it, with everything still hanging on them", async () => {
    const { sequelize } = connect(file);
    await migrate(sequelize, MIGRATIONS.slice(0, 3));
    const run = (sql: string) => sequelize.query(sql);
    await run("INSERT INTO horse (id, name, kind, history, sample, created_ms) VALUES ('h', 'Bo', '', '', 0, 1)");
    for (const id of ["ABC", "DEF", "def"])
      await run(`INSERT INTO session (id, horse_id, kind, kit, created_ms) VALUES ('${id}', 'h', 'work', '[]', 1)`);
    for (const [id, session] of [
      ["E1", "ABC"],
      ["e2", "DEF"],
      ["e3", "def"],
    ])
      await run(`INSERT INTO event (id, session_id, recorder, load, seq, mono_ms, wall_ms, type, payload, received_ms)
        VALUES ('${id}', '${session}', 'r', 'l', 0, 0, 1, 'mark', '{}', 1)`);
    await sequelize.close();
    const store = await openStore(file);
    const rows = await store.models.eventLog.findAll({ raw: true, order: [["id", "ASC"]] });
    expect(rows.map((row) => [Reflect.get(row, "id"), Reflect.get(row, "session_id")])).toEqual([
      ["e1", "abc"],
      ["e2", "DEF"],
      ["e3", "def"],
    ]);
    await closeStore(store);
  });
});

describe("a copy", () => {
  it("holds what is in the -wal too, and never takes a name that is there", async () => {
    const store = await openStore(file);
    await addPerson(store, { name: "in the wal", role: "handler" });
    const copy = join(folder, "backups", "copy.sqlite");
    await copyStore(file, copy, MIGRATION_NAMES);
    expect(await peopleIn(copy)).toEqual(["in the wal"]);
    await expect(copyStore(file, copy, MIGRATION_NAMES)).rejects.toThrow(/left alone/);
    await closeStore(store);
  });

  it("that does not check out leaves nothing behind", async () => {
    await storeWith("Ana");
    await withRaw(file, "write", (database) => database.exec("PRAGMA journal_mode=DELETE; INSERT INTO migration VALUES ('9999-later')"));
    await expect(copyStore(file, join(folder, "copy.sqlite"), MIGRATION_NAMES)).rejects.toThrow(/newer/);
    expect(readdirSync(folder)).toEqual(["own.sqlite"]);
  });
});

describe("restoring", () => {
  /** A store as a kill leaves it: its last writes lie in the -wal beside it. */
  let made = 0;
  async function killedStore(): Promise<void> {
    const live = join(folder, `live-${made++}.sqlite`);
    await storeWith("first", live);
    const store = await openStore(live);
    await addPerson(store, { name: "in the wal", role: "handler" });
    for (const end of ["", "-wal"]) copyFileSync(`${live}${end}`, `${file}${end}`);
    await closeStore(store);
  }
  const backup = () => join(folder, "backup.sqlite");
  const restore = () => restoreStore(file, backup(), MIGRATION_NAMES, "stamp", () => "epoch-2");

  it("puts the backup in place, whatever a kill left beside the old file, and loses neither", async () => {
    await storeWith("from the backup", backup());
    await killedStore();
    const { aside, horses } = await restore();
    expect(horses).toBe(0);
    expect(await peopleIn()).toEqual(["from the backup"]);
    expect(await peopleIn(aside ?? "")).toEqual(["first", "in the wal"]);
    const store = await openStore(file);
    expect(store.epoch).toBe("epoch-2");
    await closeStore(store);
  });

  it("brings no old access back: who was shut out since stays out, and changed words stay changed", async () => {
    const old = await openStore(backup());
    const [ana, bea, cid] = await Promise.all(["Ana", "Bea", "Cid"].map((name) => addPerson(old, { name, role: "handler" })));
    for (const id of [ana, bea, cid]) await setAccess(old, id ?? "", "owner", "the old words then");
    await closeStore(old);
    copyFileSync(backup(), file);
    const now = await openStore(file);
    await setAccess(now, ana ?? "", null, null);
    await setAccess(now, bea ?? "", "helper", "other words since then");
    await closeStore(now);
    const { access } = await restore();
    expect(access).toBe("Access stays as it is now, not as the copy has it: Ana, Bea.");
    const after = await openStore(file);
    const found = await accessOfPeople(after);
    expect([found.get(ana ?? "") ?? "none", found.get(bea ?? ""), found.get(cid ?? "")]).toEqual(["none", "helper", "owner"]);
    await closeStore(after);
    // Where what is there now cannot be read, who may sign in again is said.
    rmSync(`${file}-wal`, { force: true });
    rmSync(`${file}-shm`, { force: true });
    writeFileSync(file, "no database any more, only a long enough line of text");
    expect((await restoreStore(file, backup(), MIGRATION_NAMES, "again", () => "epoch-3")).access).toBe(
      "These may sign in again, as the copy has it: Ana, Bea, Cid. Take away under People what is no longer meant.",
    );
  });

  it("refuses a backup that is damaged, newer or none, and changes nothing", async () => {
    await storeWith("present");
    await expect(restore()).rejects.toThrow(/no file/);
    writeFileSync(backup(), "no database, only a long enough line of text");
    await expect(restore()).rejects.toThrow(/damaged/);
    expect(await peopleIn()).toEqual(["present"]);
    expect(readdirSync(folder).filter((name) => name.includes("restor"))).toEqual([]);
  });

  it("cut off between any two of its steps is finished by the next start", async () => {
    await storeWith("from the backup", backup());
    // What is on the disk at each moment from the journal on: the steps are renames in this order.
    for (let done = 0; done <= 3; done++) {
      rmSync(file, { force: true });
      rmSync(`${file}-wal`, { force: true });
      await killedStore();
      const aside = join(folder, `aside-${done}.sqlite`);
      const move = (from: string, to: string) => {
        copyFileSync(from, to);
        rmSync(from);
      };
      await copyStore(backup(), `${file}.restoring`, MIGRATION_NAMES, true);
      writeFileSync(join(folder, ".own.sqlite.restore.json"), JSON.stringify({ aside }));
      if (done > 0) move(file, aside);
      if (done > 1) move(`${file}-wal`, `${aside}-wal`);
      if (done > 2) move(`${file}.restoring`, file);
      expect(await peopleIn()).toEqual(["from the backup"]);
      expect(await peopleIn(aside)).toEqual(["first", "in the wal"]);
      expect(existsSync(join(folder, ".own.sqlite.restore.json"))).toBe(false);
    }
    finishRestore(file);
    expect(await peopleIn()).toEqual(["from the backup"]);
  });
});
