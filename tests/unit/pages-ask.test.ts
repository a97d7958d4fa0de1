import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { QueryTypes } from "sequelize";
import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import { addChain, addHorse, addLadder, asBehaviour, closeStore, getHorse, listChains, listLadders, openStore, type Store } from "@/store";
import { populateDemo } from "../support/demo";
import { pagesOf } from "../support/pages";

/** Tables that grow with the years: no page may read through one of them. */
const LARGE = ["event", "trial", "block", "session", "session_summary", "rung_side_summary"];
const NOW = Date.UTC(2026, 3, 1, 12);

let folder: string;
let store: Store;
let horse: string;
let asked: string[] = [];

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "pages-"));
  store = await openStore(join(folder, "yard.sqlite"), () => NOW);
  await populateDemo(store, NOW, 6);
  // What is asked is read where it is asked: at the one door to SQLite.
  const query = store.sequelize.query.bind(store.sequelize);
  vi.spyOn(store.sequelize, "query").mockImplementation(((sql: string | { query: string }, options: never) => {
    asked.push(typeof sql === "string" ? sql : sql.query);
    return query(sql as string, options);
  }) as never);
  const [withChain] = (await store.models.chain.findAll()).map((row) => String(row.get("horse_id")));
  horse = withChain ?? "";
});
afterAll(async () => {
  await closeStore(store);
  rmSync(folder, { recursive: true, force: true });
});

const PAGES = Object.keys(pagesOf({} as Store, NOW));

async function questionsOf(page: string, id: string): Promise<string[]> {
  asked = [];
  await pagesOf(store, NOW)[page]?.(id);
  return asked.filter((sql) => /^\s*SELECT/i.test(sql));
}

describe("a page", () => {
  it.each(PAGES)("%s reads through no large table", async (page) => {
    const questions = await questionsOf(page, horse);
    expect(questions.length).toBeGreaterThan(0);
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
      for (const page of PAGES) counts[page] = (await questionsOf(page, horse)).length;
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
    for (const page of PAGES) expect((many[page] ?? 0) - (few[page] ?? 0), page).toBeLessThanOrEqual(6);
    expect(many.yard).toBeLessThanOrEqual(28);
    expect(Math.max(...Object.values(many))).toBeLessThanOrEqual(60);
  });
});
