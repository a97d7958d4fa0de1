import { createHash } from "node:crypto";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { QueryTypes } from "sequelize";
import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import { seededChance } from "@/core/chance";
import { NotSuchAFileError } from "@/core/formats";
import { check, type HorseInput, horseSchema, type RestrictionInput, restrictionSchema } from "@/core/schemas";
import { populateDemo } from "@/tests/support/demo";
import { newStore } from "@/tests/support/new-store";
import {
  addHorse,
  addRestriction,
  catchUp,
  closeStore,
  LEFT_OUT,
  listHorses,
  listLadders,
  mergeStore,
  openStore,
  PACKED_TABLES,
  pastOfHorse,
  readPackage,
  type Store,
  writePackage,
} from "..";

const NOW = Date.UTC(2026, 3, 1, 12);
let folder: string;
let demo: Store;
let file: string;

const made = { version: "test", nowMs: NOW };
let stores = 0;
const fresh = () => newStore(join(folder, `store-${++stores}.sqlite`), () => NOW);

async function packed(store: Store, nowMs = NOW): Promise<Uint8Array> {
  const pieces: Uint8Array[] = [];
  for await (const piece of writePackage(store, { ...made, nowMs })) pieces.push(piece);
  return Buffer.concat(pieces);
}

const put = (name: string, bytes: Uint8Array) => {
  const path = join(folder, name);
  writeFileSync(path, bytes);
  return path;
};

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "package-"));
  demo = await fresh();
  await populateDemo(demo, NOW, 4);
  file = put("demo.zip", await packed(demo));
});
afterAll(async () => {
  await closeStore(demo);
  rmSync(folder, { recursive: true, force: true });
});

const count = async (store: Store, table: string) =>
  (await store.sequelize.query<{ n: number }>(`SELECT COUNT(*) AS n FROM "${table}"`, { type: QueryTypes.SELECT }))[0]?.n ?? 0;

describe("a package", () => {
  it("holds every table of the store, or says why not", async () => {
    const tables = await demo.sequelize.query<{ name: string }>(
      "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' ORDER BY name",
      { type: QueryTypes.SELECT },
    );
    expect(tables.map(({ name }) => name).sort()).toEqual(
      [...PACKED_TABLES.map(({ name }) => name), "event", ...Object.keys(LEFT_OUT)].sort(),
    );
    const found = unzipSync(readFileSync(file));
    const descriptor = JSON.parse(strFromU8(found["datapackage.json"] as Uint8Array)) as {
      resources: { path: string; schema: { fields: { name: string }[] } }[];
    };
    for (const { path, schema } of descriptor.resources) {
      const [head] = strFromU8(found[path] as Uint8Array).split("\r\n");
      expect(head, path).toBe(schema.fields.map(({ name }) => name).join(","));
    }
    expect(Object.keys(found).sort()).toEqual(["datapackage.json", ...descriptor.resources.map(({ path }) => path)].sort());
  });

  it("keeps secrets at home", () => {
    const text = Object.values(unzipSync(readFileSync(file)))
      .map((bytes) => strFromU8(bytes))
      .join("\n");
    expect(text).not.toMatch(/passphrase|token_hash/);
  });

  it("goes out and in again byte for byte, apart from the time it was made", async () => {
    const other = await fresh();
    await readPackage(other, file);
    const again = await packed(other);
    const digest = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");
    expect(digest(again)).toBe(digest(readFileSync(file)));
    const later = unzipSync(await packed(other, NOW + 1000));
    const first = unzipSync(readFileSync(file));
    for (const name of Object.keys(first))
      if (name !== "datapackage.json") expect(digest(later[name] as Uint8Array), name).toBe(digest(first[name] as Uint8Array));
    // And the figures are the same as where it came from.
    for (const { id } of (await listHorses(demo)).slice(0, 2)) {
      await catchUp(other);
      const of = async (store: Store) => pastOfHorse(store, id, { fromMs: 0, ladders: await listLadders(store, id) });
      const [a, b] = [await of(other), await of(demo)];
      expect(a.trials).toEqual(b.trials);
      expect(a.sessions).toEqual(b.sessions);
    }
    await closeStore(other);
  });

  it("is merged by its ids, nothing doubled, what is here kept as it is here", async () => {
    const into = await fresh();
    const from = await fresh();
    await readPackage(from, file);
    const [horse] = await listHorses(from);
    const merged = await mergeStore(into, from);
    expect(merged.events).toBe(await count(demo, "event"));
    expect(merged.sessions).toBe(await count(demo, "session"));
    expect(merged.kept).toBe(0);
    await into.sequelize.query("UPDATE horse SET name = 'Here' WHERE id = $id", { bind: { id: horse?.id } });
    const again = await mergeStore(into, from);
    expect(again).toEqual({ sessions: 0, events: 0, rows: 0, kept: 1 });
    expect((await listHorses(into)).some(({ name }) => name === "Here")).toBe(true);
    expect(await count(into, "event")).toBe(await count(demo, "event"));
    // Everything is in sight, and what is worked out of it is the same.
    const sum = async (store: Store) => {
      await catchUp(store);
      return (
        await store.sequelize.query<{ n: number; met: number }>("SELECT COUNT(*) AS n, SUM(outcome = 'met') AS met FROM trial", {
          type: QueryTypes.SELECT,
        })
      )[0];
    };
    expect(await sum(into)).toEqual(await sum(demo));
    await closeStore(into);
    await closeStore(from);
  });

  it("that fails in the middle is taken away whole, and another import shows nothing of it", async () => {
    const into = await fresh();
    const from = await fresh();
    const small = await fresh();
    await readPackage(from, file);
    await addHorse(small, (check(horseSchema, { name: "Fenna" }) as { value: HorseInput }).value);
    const tables = [...PACKED_TABLES.map(({ name }) => name), "event", "import_row"];
    const counts = async () =>
      Object.fromEntries(await Promise.all(tables.map(async (table) => [table, await count(into, table)] as const)));
    const before = await counts();
    const middle = Math.floor((await count(demo, "event")) / 2);
    await into.sequelize.query(
      `CREATE TRIGGER boom BEFORE INSERT ON event WHEN (SELECT COUNT(*) FROM event) > ${middle} BEGIN SELECT RAISE(ABORT, 'no more'); END`,
    );
    await expect(mergeStore(into, from)).rejects.toThrow();
    expect(await counts()).toEqual(before);
    // One that is killed there is taken away by the next start, whatever somebody has begun to use meanwhile.
    const write = into.writer.write.bind(into.writer);
    let dead = false;
    vi.spyOn(into.writer, "write").mockImplementation((async (work: never, kind: never) => {
      if (dead) throw new Error("killed");
      try {
        return await write(work, kind);
      } catch (error) {
        dead = true;
        throw error;
      }
    }) as never);
    await expect(mergeStore(into, from)).rejects.toThrow();
    vi.restoreAllMocks();
    const [used] = await listHorses(from);
    await addRestriction(
      into,
      used?.id ?? "",
      (check(restrictionSchema, { kind: "no-tying", reason: "pulls back" }) as { value: RestrictionInput }).value,
    );
    expect(await count(into, "session")).toBeGreaterThan(0);
    await into.sequelize.query("DROP TRIGGER boom");
    // Another import meanwhile shows nothing of what was left.
    await mergeStore(into, small);
    expect(await into.models.session.count()).toBe(0);
    await closeStore(into);
    const again = await openStore(into.file, () => NOW);
    expect(await count(again, "session")).toBe(0);
    expect((await listHorses(again)).map(({ name }) => name).sort()).toEqual(["Fenna", used?.name ?? ""].sort());
    expect(await count(again, "import_row")).toBe(0);
    // And done again it is whole.
    await mergeStore(again, from);
    expect(await count(again, "event")).toBe(await count(demo, "event"));
    for (const store of [again, from, small]) await closeStore(store);
  });

  it("of one horse worked on two computers comes together", async () => {
    const here = await fresh();
    const there = await fresh();
    await readPackage(here, file);
    await readPackage(there, file);
    // Each loses another half of the taps of one session.
    const [session] = await there.sequelize.query<{ no: number }>(
      "SELECT session_no AS no FROM event GROUP BY session_no ORDER BY COUNT(*) DESC LIMIT 1",
      { type: QueryTypes.SELECT },
    );
    await here.sequelize.query("DELETE FROM event WHERE session_no = $no AND seq % 2 = 0", { bind: { no: session?.no } });
    await there.sequelize.query("DELETE FROM event WHERE session_no = $no AND seq % 2 = 1", { bind: { no: session?.no } });
    // Where it fails midway, what came to the session that is here is summed up all the same.
    await catchUp(here);
    const sums = async () =>
      (
        await here.sequelize.query<{ n: number; stale: number }>(
          "SELECT (SELECT COUNT(*) FROM event WHERE session_no = $no) AS n, (SELECT COUNT(*) FROM stale WHERE session_no = $no) AS stale",
          { bind: { no: session?.no }, type: QueryTypes.SELECT },
        )
      )[0];
    const before = await sums();
    expect(before?.stale).toBe(0);
    await here.sequelize.query(`CREATE TRIGGER boom BEFORE INSERT ON store_meta BEGIN SELECT RAISE(ABORT, 'no more'); END`);
    await here.sequelize.query("DELETE FROM store_meta WHERE key IN ('word-settings', 'import-mapping')");
    await there.sequelize.query("INSERT OR REPLACE INTO store_meta (key, value) VALUES ('word-settings', '{}')");
    await expect(mergeStore(here, there)).rejects.toThrow();
    const after = await sums();
    expect(after?.n).toBeGreaterThan(before?.n ?? 0);
    expect(after?.stale).toBe(1);
    await here.sequelize.query("DROP TRIGGER boom");
    const merged = await mergeStore(here, there);
    expect(merged.sessions).toBe(0);
    expect(await count(here, "event")).toBe(await count(demo, "event"));
    await closeStore(here);
    await closeStore(there);
  });
});

describe("what is no package", () => {
  // As an older version made it: nothing but the zip holds its files to what they were.
  const files = (): Record<string, Uint8Array> => {
    const { "datapackage.json": descriptor, ...tables } = unzipSync(readFileSync(file));
    const whole = JSON.parse(strFromU8(descriptor as Uint8Array)) as { resources: object[] };
    const resources = whole.resources.map((one) => ({ ...one, hash: undefined, bytes: undefined }));
    return { "datapackage.json": strToU8(JSON.stringify({ ...whole, resources }, null, 1)), ...tables };
  };
  const without = (name: string) => Object.fromEntries(Object.entries(files()).filter(([key]) => key !== name));
  const withText = (name: string, change: (text: string) => string) => ({
    ...files(),
    [name]: strToU8(change(strFromU8(files()[name] as Uint8Array))),
  });
  it.each<[string, () => Uint8Array, RegExp]>([
    ["a text", () => strToU8("hello"), /no zip file/],
    ["nothing", () => new Uint8Array(0), /datapackage|no zip|damaged/],
    ["a zip of something else", () => zipSync({ "letter.txt": strToU8("hi") }), /“letter.txt” belongs in no package/],
    ["a way out of the folder", () => zipSync({ ...files(), "../../etc/passwd": strToU8("x") }), /belongs in no package/],
    ["no descriptor", () => zipSync(without("datapackage.json")), /no datapackage.json/],
    ["another descriptor", () => zipSync({ ...files(), "datapackage.json": strToU8("{}") }), /no package of Deft Tether/],
    ["a newer format", () => zipSync(withText("datapackage.json", (text) => text.replace('"format": 2', '"format": 3'))), /newer version/],
    ["a missing table", () => zipSync(without("ladder_plan.csv")), /“ladder_plan.csv” is missing/],
    [
      "a column from later",
      () => zipSync(withText("horse.csv", (text) => text.replace("id,name", "id,wings"))),
      /horse.csv, line 1: made by a newer version, it has “wings”/,
    ],
    [
      "a number that is none",
      () => zipSync(withText("ladder_plan.csv", (text) => text.replace(/^([^\r]*\r\n[^,]*,)\d+/, "$1many"))),
      /ladder_plan.csv, line 2: “version” is no whole number/,
    ],
    [
      "an event there is not",
      () => zipSync(withText("event.csv", (text) => text.replace("block.start", "block.bang"))),
      /event.csv, line \d+: there is no event “block.bang”/,
    ],
    [
      "a payload that is wrong",
      () => zipSync(withText("event.csv", (text) => text.replace('""outcome"":""met""', '""outcome"":""grand""'))),
      /event.csv, line \d+: outcome/,
    ],
    [
      "a row that points at nothing",
      () => zipSync(withText("restriction.csv", (text) => `${text}${"x,nobody,other,,d,r,g,,,1,,,'[]".split(",").join(",")}\r\n`)),
      /restriction.csv/,
    ],
    [
      "another encoding",
      () => zipSync({ ...files(), "person.csv": new Uint8Array([0x69, 0x64, 0xff, 0xfe, 0xe9]) }),
      /“person.csv” is not UTF-8/,
    ],
    ["a quote that never closes", () => zipSync(withText("place.csv", (text) => `${text}"open`)), /place.csv, line \d+/],
    ["a file cut off", () => readFileSync(file).subarray(0, 40_000), /damaged|missing|cut off|datapackage/],
  ])("%s is refused with a line", async (_, bytes, words) => {
    const path = put("bad.zip", bytes());
    const store = await fresh();
    await expect(readPackage(store, path)).rejects.toThrow(words);
    await closeStore(store);
  });

  it("a small file that swells is refused before it fills anything", async () => {
    const bomb = zipSync({ ...files(), "person.csv": strToU8("a".repeat(90 * 1024 * 1024)) }, { level: 9 });
    const path = put("bomb.zip", bomb);
    const store = await fresh();
    const before = process.memoryUsage().rss;
    await expect(readPackage(store, path)).rejects.toThrow(/swells|too long|person.csv/);
    expect(process.memoryUsage().rss - before).toBeLessThan(600 * 1024 * 1024);
    await closeStore(store);
  });

  it("of an older version is read: descriptor first, no hashes", async () => {
    const store = await fresh();
    await readPackage(store, put("older.zip", zipSync(files(), { level: 6 })));
    expect(Buffer.from(await packed(store))).toEqual(readFileSync(file));
    await closeStore(store);
  });

  it("with a file that is not what its descriptor says is refused", async () => {
    const whole = unzipSync(readFileSync(file));
    const swapped = { ...whole, "person.csv": strToU8(strFromU8(whole["person.csv"] as Uint8Array).replace(/,handler,/, ",helper,")) };
    const store = await fresh();
    await expect(readPackage(store, put("swapped.zip", zipSync(swapped)))).rejects.toThrow(/person.csv” is (not what|damaged)/);
    await closeStore(store);
  });

  it("with one bit turned is refused, or says what it said", { timeout: 240_000 }, async () => {
    const small = await fresh();
    const horse = await addHorse(small, { ...(check(horseSchema, { name: "Fenna" }) as { value: HorseInput }).value });
    await addRestriction(
      small,
      horse,
      (check(restrictionSchema, { kind: "no-tying", reason: "pulls back" }) as { value: RestrictionInput }).value,
    );
    const whole = Buffer.from(await packed(small));
    await closeStore(small);
    const chance = seededChance(271);
    let refused = 0;
    const draws = Array.from({ length: 28 }, () => Math.floor(chance() * whole.length * 8));
    // The directory at the end is where a reader that goes by the bytes alone looks last.
    const ends = Array.from({ length: 20 }, (_, i) => (whole.length - 1 - i * 69) * 8 + (i % 8)).filter((bit) => bit > 0);
    for (const bit of [...draws, ...ends]) {
      const turned = Buffer.from(whole);
      turned[bit >> 3] = (turned[bit >> 3] as number) ^ (1 << (bit & 7));
      const store = await fresh();
      try {
        await readPackage(store, put("turned.zip", turned));
        const again = unzipSync(await packed(store));
        for (const [name, bytes] of Object.entries(unzipSync(whole)))
          expect(Buffer.from(again[name] as Uint8Array).equals(Buffer.from(bytes)), `${name} with bit ${bit} turned`).toBe(true);
      } catch (error) {
        if (!(error instanceof NotSuchAFileError)) throw error;
        refused++;
      } finally {
        await closeStore(store);
      }
    }
    expect(refused).toBeGreaterThan(25);
  });

  it("is given up where whoever asked gives up", async () => {
    const store = await fresh();
    let asked = 0;
    await expect(readPackage(store, file, { cancelled: () => ++asked > 2 })).rejects.toThrow("Given up");
    await closeStore(store);
  });
});
