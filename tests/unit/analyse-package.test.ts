import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { QueryTypes } from "sequelize";
import { expect, it } from "vitest";
import { analysePackage } from "@/scripts/analyse-package";
import { catchUp, closeStore, openStore, writePackage } from "@/store";
import { populateDemo } from "@/tests/support/demo";

const NOW = Date.UTC(2026, 3, 1, 12);

it("counts every trial of a packed yard, transitions on the circle among them", async () => {
  const folder = mkdtempSync(join(tmpdir(), "analyse-package-"));
  const store = await openStore(join(folder, "yard.sqlite"), () => NOW);
  try {
    await populateDemo(store, NOW, 4);
    await catchUp(store);
    const kept = await store.sequelize.query<{ kind: string; trials: number; met: number }>(
      `SELECT s.kind, COUNT(*) AS trials, SUM(t.outcome = 'met') AS met FROM session s CROSS JOIN trial t ON t.session_no = s.no
       WHERE s.binned_ms IS NULL AND s.kind IN ('work', 'circle') GROUP BY s.kind`,
      { type: QueryTypes.SELECT },
    );
    expect(kept.map(({ kind }) => kind).sort()).toEqual(["circle", "work"]);
    const pieces: Uint8Array[] = [];
    for await (const piece of writePackage(store, { version: "test", nowMs: NOW })) pieces.push(piece);
    const file = join(folder, "yard.zip");
    writeFileSync(file, Buffer.concat(pieces));
    const { overall, over_sessions: over } = await analysePackage(file, {});
    const sum = (of: "trials" | "met") => kept.reduce((all, row) => all + row[of], 0);
    expect([overall.met, overall.n]).toEqual([sum("met"), sum("trials")]);
    // And over sessions, horse by horse: as many sessions as hold a trial, circle work without a ladder aside as on the screens, and every part that a package has.
    const worked = await store.sequelize.query<{ name: string; sessions: number }>(
      `SELECT h.name, COUNT(DISTINCT s.id) AS sessions FROM session s CROSS JOIN trial t ON t.session_no = s.no JOIN horse h ON h.id = s.horse_id
       WHERE s.binned_ms IS NULL AND (s.kind = 'work' OR (s.kind = 'circle' AND s.ladder_id IS NOT NULL)) GROUP BY h.id`,
      { type: QueryTypes.SELECT },
    );
    expect(over?.map(({ horse }) => horse).sort()).toEqual(worked.map(({ name }) => name).sort());
    for (const { horse, sessions, sides, places, before_it_goes: before, turns, trends } of over ?? []) {
      expect(sessions, horse ?? "").toBeGreaterThanOrEqual(worked.find(({ name }) => name === horse)?.sessions ?? Number.NaN);
      expect([places, before], horse ?? "").not.toContain(null);
      expect(turns.sentence.length).toBeGreaterThan(0);
      expect(trends.length).toBeGreaterThan(0);
      for (const { p } of sides) expect(p === null || (p >= 0 && p <= 1)).toBe(true);
    }
  } finally {
    await closeStore(store);
    rmSync(folder, { recursive: true, force: true });
  }
});
