import { AsyncLocalStorage } from "node:async_hooks";
import { mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { QueryTypes } from "sequelize";
import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import { COUNTED, type TryBothInput, tryBothSchema } from "@/core/experiment";
import {
  addChain,
  addHorse,
  addLadder,
  asBehaviour,
  beginTry,
  closeStore,
  getHorse,
  listChains,
  listHorses,
  listLadders,
  openStore,
  type Store,
} from "@/store";
import { populateDemo } from "../support/demo";
import { addressesFor, PAGES, visit } from "../support/visit";

/** Pages that need nothing of the data. */
const ASK_NOTHING = ["/horses/new", "/moved"];
/** Tables that grow with the years: no page may read through one of them. */
const LARGE = ["event", "trial", "block", "session", "session_summary", "rung_side_summary"];
const NOW = Date.UTC(2026, 3, 1, 12);

let folder: string;
let store: Store;
let horse: string;
/** What is asked within one visit: what an earlier page left running in the background is not this page's. */
const withinVisit = new AsyncLocalStorage<string[]>();

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "pages-"));
  store = await openStore(join(folder, "yard.sqlite"), () => NOW);
  await populateDemo(store, NOW, 6);
  // What is asked is read where it is asked: at the one door to SQLite.
  const query = store.sequelize.query.bind(store.sequelize);
  vi.spyOn(store.sequelize, "query").mockImplementation(((sql: string | { query: string }, options: never) => {
    withinVisit.getStore()?.push(typeof sql === "string" ? sql : sql.query);
    return query(sql as string, options);
  }) as never);
  const [withChain] = (await store.models.chain.findAll()).map((row) => String(row.get("horse_id")));
  horse = withChain ?? "";
  const [ladder] = await listLadders(store, horse);
  if (ladder === undefined) throw new Error("a horse with a chain has a ladder");
  const tried = {
    ladder: ladder.id,
    rung: 1,
    way_a: "A hand target",
    way_b: "A cone",
    counts: COUNTED[0],
    blocks: 6,
    most_alike: 2,
    asks_each: 4,
  };
  await beginTry(store, horse, tryBothSchema.cast(tried, { assert: false }) as TryBothInput);
});
afterAll(async () => {
  await closeStore(store);
  rmSync(folder, { recursive: true, force: true });
});

/** What a page asks, of the horse with a chain or else of the first that has what the page shows. */
async function questionsOf(page: string): Promise<string[]> {
  let address: string | undefined;
  for (const id of [horse, ...(await listHorses(store)).map((one) => one.id)]) address ??= (await addressesFor(store, id)).get(page);
  if (address === undefined) throw new Error(`no horse has what ${page} shows`);
  const asked: string[] = [];
  const at = address;
  await withinVisit.run(asked, () => visit(store, at));
  return asked.filter((sql) => /^\s*SELECT/i.test(sql));
}

const files = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, encoding: "utf8" }).filter((file) => /(^|\/)page\.tsx$/.test(file));

describe("the pages that are visited", () => {
  it("are all that ask the store", () => {
    const visited = Object.keys(PAGES);
    const asking = files("app").filter((file) => /server\//.test(readFileSync(join("app", file), "utf8")));
    const pageOf = (file: string) => `/${file.replaceAll(/\([a-z]+\)\//g, "").replace(/\/?page\.tsx$/, "")}`;
    expect(asking.map(pageOf).filter((page) => !visited.includes(page))).toEqual([]);
  });
});

describe("a page", () => {
  it.each(Object.keys(PAGES))("%s reads through no large table", async (page) => {
    const questions = await questionsOf(page);
    expect(questions.length > 0).toBe(!ASK_NOTHING.includes(page));
    for (const sql of questions) {
      const plan = await store.sequelize.query<{ detail: string }>(`EXPLAIN QUERY PLAN ${sql.replaceAll(/\$[a-z_]+/g, "'[]'")}`, {
        type: QueryTypes.SELECT,
      });
      const names = new Map(
        [...sql.matchAll(/(?:FROM|JOIN)\s+`?([a-z_]+)`?\s+(?:AS\s+)?`?([a-z_]+)`?/gi)].map(([, table, name]) => [name, table]),
      );
      for (const { detail } of plan) {
        const scanned = /^SCAN (?:`)?([a-z_]+)/.exec(detail)?.[1];
        // A partial index holds the few rows it is made for.
        if (scanned === undefined || detail.includes("session_summary_open") || detail.includes("session_summary_struck")) continue;
        expect(LARGE, `${sql}\n${detail}`).not.toContain(names.get(scanned) ?? scanned);
      }
    }
  });

  it("asks no more of a yard with many horses, ladders and chains than of one with few", async () => {
    const count = async () => {
      const counts: Record<string, number> = {};
      for (const page of Object.keys(PAGES)) counts[page] = (await questionsOf(page)).length;
      return counts;
    };
    const few = await count();
    const [ladder] = await listLadders(store, horse);
    const [chain] = await listChains(store, horse);
    if (ladder === undefined || chain === undefined) throw new Error("the demo has a horse with a chain");
    for (let i = 0; i < 4; i++) {
      await addLadder(store, horse, { ...asBehaviour(ladder.behaviour), name: `Another ${i}` }, ladder.plan);
      await addChain(store, horse, { name: `Another ${i}`, direction: chain.direction, links: [...chain.links] });
    }
    const { created_ms: _, ...row } = await getHorse(store, horse);
    for (let i = 0; i < 6; i++) {
      const id = await addHorse(store, { ...row, name: `More ${i}` } as never);
      await addLadder(store, id, asBehaviour(ladder.behaviour), ladder.plan);
    }
    const many = await count();
    // Ladders without a trial ask once for the last there may be, and what they carry over: twice and not for each.
    for (const page of Object.keys(PAGES)) expect((many[page] ?? 0) - (few[page] ?? 0), page).toBeLessThanOrEqual(6);
    expect(many["/"]).toBeLessThanOrEqual(28);
    expect(Math.max(...Object.values(many))).toBeLessThanOrEqual(60);
  });
});
