import { spawn } from "node:child_process";
import { copyFileSync, existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, truncateSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { build } from "esbuild";
import { afterEach, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { addPerson, closeStore, copyBefore, copyStore, listPeople, MIGRATION_NAMES, MIGRATIONS, migrate, openStore } from "@/store";
import { connect } from "@/store/connect";
import { lookAtStore } from "@/store/file";
import { ROOT } from "../support/server";
import { reported } from "./report";

const LONG = process.env.DEFT_FAULTS === "long";
/** Some three hundred steps, each a start from nothing and a look at what is left. */
const LONG_MS = 2_400_000;
/** The short form tries so many of the moments, spread over all of them. */
const SHORT_CUTS = 3;
const CHILD = join(ROOT, ".cache", "faults", "cut-child.mjs");

let folder: string;
let file: string;
beforeAll(async () => {
  await build({
    absWorkingDir: ROOT,
    entryPoints: ["tests/faults/cut-child.ts"],
    outfile: CHILD,
    bundle: true,
    platform: "node",
    format: "esm",
    target: "node20",
    packages: "external",
    logLevel: "error",
  });
});
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "deft-cut-"));
  file = join(folder, "own.sqlite");
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** Runs the child. @returns the number of steps, or null where it was killed. */
function child(what: string, other: string, at: number): Promise<number | null> {
  return new Promise((resolve, reject) => {
    const run = spawn(process.execPath, [CHILD, what, file, other, String(at)], { cwd: ROOT, stdio: ["ignore", "pipe", "pipe"] });
    let said = "";
    let complaint = "";
    run.stdout.on("data", (piece) => {
      said += piece;
    });
    run.stderr.on("data", (piece) => {
      complaint += piece;
    });
    run.once("exit", (code, signal) => {
      if (signal === "SIGKILL") resolve(null);
      else if (code === 0) resolve(Number(said));
      else reject(new Error(complaint));
    });
  });
}

/** Cuts a thing off before each of its steps, from a fresh start each time, and looks at what is left. */
async function cutEverywhere(name: string, what: string, other: string, prepare: () => Promise<void>, look: (at: number) => Promise<void>) {
  const started = Date.now();
  const again = async () => {
    rmSync(folder, { recursive: true, force: true });
    mkdirSync(folder, { recursive: true });
    await prepare();
  };
  await again();
  const steps = await child(what, other, 0);
  if (steps === null) throw new Error("It was killed without being asked to be.");
  const every = LONG ? 1 : Math.max(1, Math.floor(steps / SHORT_CUTS));
  let cut = 0;
  for (let at = 1; at <= steps; at += every) {
    await again();
    expect(await child(what, other, at), `step ${at}`).toBeNull();
    cut++;
    await look(at);
  }
  reported({
    name,
    rounds: cut,
    found: `cut before ${cut} of ${steps} steps, whole each time`,
    ok: true,
    seconds: (Date.now() - started) / 1000,
  });
}

async function storeWith(names: readonly string[], at = file): Promise<void> {
  const store = await openStore(at);
  for (const name of names) await addPerson(store, { name, role: "handler" });
  await closeStore(store);
}
async function peopleIn(at = file): Promise<string[]> {
  const store = await openStore(at);
  const names = (await listPeople(store)).map(({ name }) => name);
  await closeStore(store);
  expect(await lookAtStore(at, MIGRATION_NAMES, true), at).toMatchObject({ state: "store", migrations: MIGRATION_NAMES });
  return names;
}
/** A store as a kill leaves it: its last writes are in the -wal alone. */
async function killedStore(): Promise<void> {
  const live = join(folder, "live", "own.sqlite");
  mkdirSync(join(folder, "live"), { recursive: true });
  await storeWith(["old"], live);
  const store = await openStore(live);
  await addPerson(store, { name: "old, in the wal", role: "handler" });
  for (const end of ["", "-wal"]) copyFileSync(`${live}${end}`, `${file}${end}`);
  await closeStore(store);
  rmSync(join(folder, "live"), { recursive: true });
}

describe("cut off before any step", () => {
  it(
    "a first start begins again and is whole",
    async () => {
      await cutEverywhere(
        "first start cut off",
        "fill",
        "",
        async () => undefined,
        async (at) => {
          if (existsSync(file)) expect(await peopleIn(), `step ${at}`).toEqual(["one", "three", "two"]);
          else {
            await storeWith(["begun again"]);
            expect(await peopleIn()).toEqual(["begun again"]);
          }
        },
      );
    },
    LONG_MS,
  );

  it.each(LONG ? [1, 2, 3] : [1, 3])(
    "a change of version from the %i. migration goes on and loses nothing",
    async (done) => {
      const old = async () => {
        const { sequelize } = connect(file);
        await migrate(sequelize, MIGRATIONS.slice(0, done));
        await sequelize.query("INSERT INTO person (id, name, role, sample, created_ms) VALUES ('p', 'Ana', 'handler', 0, 1)");
        await sequelize.close();
      };
      await cutEverywhere(`migration from ${MIGRATION_NAMES[done - 1]} cut off`, "open", "", old, async (at) => {
        expect(await peopleIn(), `step ${at}`).toEqual(["Ana"]);
        // Whatever was done before the cut, a copy of the file before its first change is there.
        expect(readdirSync(join(folder, "backups")).some((name) => name.includes(MIGRATION_NAMES[done] ?? "none"))).toBe(true);
        expect((await lookAtStore(copyBefore(file, MIGRATION_NAMES[done] ?? ""), MIGRATION_NAMES, true)).state).toBe("store");
      });
    },
    LONG_MS,
  );

  it("a backup leaves a readable file or none, and the data as it was", async () => {
    const target = join(folder, "copy.sqlite");
    await cutEverywhere(
      "backup cut off",
      "backup",
      target,
      () => storeWith(["a", "b"]),
      async (at) => {
        expect(await peopleIn(), `step ${at}`).toEqual(["a", "b"]);
        if (existsSync(target)) expect(await peopleIn(target), `step ${at}`).toEqual(["a", "b"]);
        rmSync(target, { force: true });
        await copyStore(file, target, MIGRATION_NAMES);
        expect(await peopleIn(target)).toEqual(["a", "b"]);
      },
    );
  });

  it("a restore leaves the old data or the new, each whole, and the other one beside it", async () => {
    const backup = join(folder, "backup.sqlite");
    const aside = join(folder, "own.before-restore-stamp.sqlite");
    const prepare = async () => {
      await storeWith(["new"], backup);
      await killedStore();
    };
    await cutEverywhere("restore cut off", "restore", backup, prepare, async (at) => {
      const now = await peopleIn();
      if (now.includes("new")) {
        expect(now, `step ${at}`).toEqual(["new"]);
        expect(await peopleIn(aside), `step ${at}`).toEqual(["old", "old, in the wal"]);
      } else expect(now, `step ${at}`).toEqual(["old", "old, in the wal"]);
      expect(await peopleIn(backup)).toEqual(["new"]);
    });
  });
});

describe("each of these checks bites", () => {
  it("a migration whose record comes after its commit fails when it is cut off between them", async () => {
    const { sequelize } = connect(file);
    await migrate(sequelize, MIGRATIONS.slice(0, 2));
    await sequelize.query("DELETE FROM migration WHERE name = '0002-know'");
    await expect(
      migrate(
        sequelize,
        MIGRATIONS.map(({ name, up }) => ({ name, up })),
      ),
    ).rejects.toThrow(/duplicate column/);
    await sequelize.close();
  });

  it("a backup written straight to its name is unreadable when it is cut off", async () => {
    await storeWith(["a"]);
    const target = join(folder, "copy.sqlite");
    copyFileSync(file, target);
    truncateSync(target, 20_000);
    await expect(peopleIn(target)).rejects.toThrow(/damaged/);
  });

  it("a backup copied over the file, its -wal left there, gives neither the one nor the other", async () => {
    const backup = join(folder, "backup.sqlite");
    await storeWith(["new"], backup);
    await killedStore();
    copyFileSync(backup, file);
    const found = await peopleIn().catch((error: Error) => [error.message]);
    expect(found).not.toEqual(["new"]);
  });
});
