import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { plansIn } from "@/app/server/past-of";
import {
  changeCosts,
  contrastSets,
  filterText,
  onlyWorked,
  overWeeks,
  type Past,
  type PastFilter,
  type PastTrial,
  raisesOf,
  readFilter,
  sidesOverTime,
  trialsFor,
} from "@/core/past";
import { closeStore, listHorses, listLadders, openStore, pastOfHorse, type Store } from "@/store";
import { populateDemo } from "../support/demo";

const NOW = Date.UTC(2026, 3, 1, 12);
let folder: string;
let store: Store;
let pasts: { past: Past; ladders: Awaited<ReturnType<typeof listLadders>> }[];

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "figures-"));
  store = await openStore(join(folder, "yard.sqlite"), () => NOW);
  await populateDemo(store, NOW, 12);
  pasts = await Promise.all(
    (await listHorses(store)).map(async ({ id }) => {
      const ladders = await listLadders(store, id);
      return { ladders, past: await pastOfHorse(store, id, { fromMs: 0, ladders }) };
    }),
  );
});
afterAll(async () => {
  await closeStore(store);
  rmSync(folder, { recursive: true, force: true });
});

/** The trials an address lists, by nothing but the address: what the page of trials shows. */
const listed = (past: Past, filter: PastFilter) => trialsFor(past, readFilter(filterText(filter)));
const met = (trials: readonly PastTrial[]) => trials.filter(({ outcome }) => outcome === "met").length;

/** When half of all asks were answered, by walking over every moment: a second implementation. */
function halfByHand(trials: readonly PastTrial[]): number | null {
  const asks = trials.flatMap(({ outcome, latencySeconds, waitedSeconds }) => {
    if ((outcome === "met" || outcome === "try") && latencySeconds !== null) return [{ at: latencySeconds, how: "right" }];
    const at = waitedSeconds ?? latencySeconds;
    return at === null ? [] : [{ at, how: outcome === "miss" ? "wrong" : "cut" }];
  });
  let unanswered = 1;
  let answered = 0;
  for (const at of [...new Set(asks.map((ask) => ask.at))].sort((a, b) => a - b)) {
    const risk = asks.filter((ask) => ask.at >= at).length;
    const right = asks.filter((ask) => ask.at === at && ask.how === "right").length;
    const wrong = asks.filter((ask) => ask.at === at && ask.how === "wrong").length;
    answered += (unanswered * right) / risk;
    unanswered *= 1 - (right + wrong) / risk;
    if (answered >= 0.5 - 1e-12) return at;
  }
  return null;
}

describe("a figure and the trials it lists", () => {
  it("are the same, worked out again from the list: a behaviour over weeks", () => {
    let figures = 0;
    for (const { past, ladders } of pasts)
      for (const { id } of ladders) {
        const filter: PastFilter = { ladder: id };
        const over = overWeeks(onlyWorked({ ...past, trials: trialsFor(past, filter) }), filter, new Map());
        if (over.points.length === 0) continue;
        const all = listed(past, over.filter);
        expect([over.all.met, over.all.n]).toEqual([met(all), all.length]);
        const bright = listed(past, { ...over.filter, holds: "phase" });
        expect(over.lightness.share).toBe(bright.length === 0 ? null : bright.filter(({ phase }) => phase === 1).length / bright.length);
        const timed = listed(past, { ...over.filter, holds: "timed" });
        expect(over.half?.seconds ?? null).toBe(halfByHand(timed));
        expect(over.half?.n ?? 0).toBe(timed.length);
        expect(over.all.reinforced).toBe(listed(past, { ...over.filter, holds: "reinforced" }).length);
        // Minutes are those of the blocks the listed trials lie in.
        const blocks = new Set(all.filter(({ logged }) => logged !== "late").map(({ session, block }) => `${session} ${block}`));
        const minutes = [...blocks].reduce((sum, key) => {
          const [session, block] = key.split(" ").map(Number);
          return sum + (past.sessions[session ?? 0]?.facts.blocks[block ?? 0]?.seconds ?? 0) / 60;
        }, 0);
        expect(over.all.responsesPerMinute).toBeCloseTo(met(all) / minutes, 9);
        figures += 6;
      }
    expect(figures).toBeGreaterThan(40);
  });

  it("are the same for sides, for two sets and for what a change costs", async () => {
    for (const { past, ladders } of pasts) {
      const { picture } = sidesOverTime(past);
      for (const [side, sums] of [
        ["L", picture.left],
        ["R", picture.right],
      ] as const) {
        const own = listed(past, { holds: "sides", side });
        expect([sums.met, sums.of]).toEqual([met(own), own.length]);
      }
      const [a, b] = [listed(past, { rungs: "new" }), listed(past, { rungs: "known" })];
      expect(a.length + b.length).toBe(past.trials.length);
      if (a.length > 0 && b.length > 0) {
        const contrast = contrastSets({ past, trials: a }, { past, trials: b });
        expect([contrast.first.share, contrast.second.share]).toEqual([
          { met: met(a), of: a.length },
          { met: met(b), of: b.length },
        ]);
        expect(contrast.plain.share?.difference).toBeCloseTo(met(b) / b.length - met(a) / a.length, 12);
      }
      const planOf = await plansIn(store, past);
      const raises = raisesOf(past, planOf);
      for (const raise of raises) {
        const rung = (n: number) =>
          listed(past, { ladder: raise.ladder, version: String(raise.version), rung: String(n), kind: "work" }).filter(
            ({ side, session, askMs }) =>
              side === raise.side &&
              (past.sessions[session]?.startedMs ?? 0) + askMs < (n === raise.from ? raise.wallMs : Number.POSITIVE_INFINITY),
          );
        expect(met(rung(raise.from).slice(-raise.before.of))).toBe(raise.before.met);
        const after = rung(raise.to).filter(({ session, askMs }) => (past.sessions[session]?.startedMs ?? 0) + askMs >= raise.wallMs);
        expect(met(after.slice(0, raise.after.of))).toBe(raise.after.met);
      }
      expect(changeCosts(raises)?.raises ?? 0).toBeLessThanOrEqual(listed(past, { kind: "work" }).length);
      expect(ladders.length).toBeGreaterThan(0);
    }
  });
});
