// Prints what is derived from events, a line each: of the whole demo, and of random event logs.
// For comparing two versions of the inside: npm run -s derived > before, and again > after.
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { analyseEvents, readEventsCsv, writeEventsCsv, writeSessionsCsv, writeTrialsCsv } from "@/core/formats";
import { knowDigest } from "@/core/know";
import { cornerStands, evidenceOfSession, freeWork, reduceSession, summariseSession, whereNow } from "@/core/record";
import { populateDemo } from "@/demo/populate";
import { closeStore, derivedSeconds, evidenceOfLadder, listLadders, loadSession, openStore, rungEvidence } from "@/store";
import { randomSession } from "@/tests/support/random-session";
import { analyseTrialsFile } from "./read-trials-file";

const END_WALL_MS = Date.UTC(2026, 3, 1, 12);
const RANDOM_LOGS = 200;

const say = (name: string, value: unknown) => process.stdout.write(`${name} ${JSON.stringify(value)}\n`);

type RecordOf = ReturnType<typeof reduceSession>;

function sayRecord(name: string, record: RecordOf): void {
  const { trials, facts, ...rest } = record;
  say(`${name} record`, rest);
  for (const trial of trials) say(`${name} trial`, trial);
  say(`${name} facts`, facts);
  say(`${name} summary`, summariseSession(record));
  say(`${name} evidence`, evidenceOfSession(name, record, null));
  say(`${name} digest`, knowDigest(record));
  say(`${name} free`, [freeWork(record), whereNow(record), cornerStands(record, new Set(["corner", "gate", "far corner"]))]);
}

const folder = mkdtempSync(join(tmpdir(), "derived-"));
try {
  const store = await openStore(join(folder, "demo.sqlite"), () => END_WALL_MS);
  await populateDemo(store, END_WALL_MS);
  const ids = (await store.models.session.findAll({ attributes: ["id"], order: [["id", "ASC"]] })).map((row) => String(row.get("id")));
  const all: { id: string; record: RecordOf }[] = [];
  for (const id of ids) {
    const loaded = await loadSession(store, id);
    all.push({ id, record: loaded.record });
    sayRecord(id, loaded.record);
    say(`${id} analyse`, analyseEvents(readEventsCsv(writeEventsCsv(loaded.events, derivedSeconds(loaded))), {}));
  }
  const horses = (await store.models.horse.findAll({ order: [["id", "ASC"]] })).map((row) => String(row.get("id")));
  for (const horse of horses) {
    for (const ladder of await listLadders(store, horse)) {
      say(`${ladder.id} ladder`, await evidenceOfLadder(store, ladder));
      for (let version = 1; version <= ladder.presentVersion; version++)
        say(`${ladder.id} rungs ${version}`, await rungEvidence(store, ladder, version));
    }
  }
  const file = join(folder, "trials.csv");
  writeFileSync(file, writeTrialsCsv(all));
  say("trials.csv", writeTrialsCsv(all));
  say("sessions.csv", writeSessionsCsv(all));
  say("analyse", await analyseTrialsFile(file, {}));
  await closeStore(store);
} finally {
  rmSync(folder, { recursive: true, force: true });
}
for (let seed = 1; seed <= RANDOM_LOGS; seed++) sayRecord(`random-${seed}`, reduceSession(randomSession(seed).events, {}));
