import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { QueryTypes } from "sequelize";
import { isWork } from "@/core/events";
import {
  type AnalyseOptions,
  type AnalyseOutput,
  analyseTrialsText,
  readSessionsCsv,
  writeSessionsCsv,
  writeTrialsCsv,
} from "@/core/formats";
import { closeStore, loadSession, openStore, readPackage } from "@/store";

/** Every measure of a package: it is read into a store of its own, and its sessions come out as the tables `analyse` takes. */
export async function analysePackage(file: string, options: AnalyseOptions): Promise<AnalyseOutput> {
  const folder = mkdtempSync(join(tmpdir(), "deft-package-"));
  const store = await openStore(join(folder, "yard.sqlite"));
  try {
    await readPackage(store, file);
    const rows = await store.sequelize.query<{ id: string; kind: string }>(
      "SELECT id, kind FROM session WHERE binned_ms IS NULL ORDER BY created_ms, id",
      { type: QueryTypes.SELECT },
    );
    let trials = writeTrialsCsv([]);
    let sessions = writeSessionsCsv([]);
    const rest = (text: string) => text.slice(text.indexOf("\n") + 1);
    for (const { id, kind } of rows) {
      if (!isWork(kind)) continue;
      const { record } = await loadSession(store, id);
      if (record.trials.length === 0) continue;
      trials += rest(writeTrialsCsv([{ id, record }]));
      sessions += rest(writeSessionsCsv([{ id, record }]));
    }
    return analyseTrialsText(trials, { ...options, workSeconds: options.workSeconds ?? readSessionsCsv(sessions).workSeconds });
  } finally {
    await closeStore(store);
    rmSync(folder, { recursive: true, force: true });
  }
}
