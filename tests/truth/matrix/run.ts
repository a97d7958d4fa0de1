import { createHash } from "node:crypto";
import { once } from "node:events";
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import { availableParallelism } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { Worker } from "node:worker_threads";
import { addCounts, type Cell, type Count, cellsOf, keyOf, NO_COUNT, type Part, partsOf } from "./cells";
import { YARDS } from "./sentences";

type Counts = Readonly<Record<string, Count>>;

const nameOf = ({ yard, dial, from, to }: Part) => `${keyOf(yard, dial)} | ${from}-${to}`;

/**
 * Works out the matrix in as many workers as there are cores. What is done is
 * written down part by part and taken up again, as long as the code that worked
 * it out is the same, so that a run may be cut off anywhere.
 * @param worker file of the worker that counts a part.
 * @param folder where the parts are kept.
 */
export async function runMatrix({
  horses,
  seed,
  wanted,
  dialed,
  worker,
  folder,
  said,
}: {
  readonly horses: number;
  readonly seed: number;
  readonly wanted: (row: string) => boolean;
  readonly dialed: (dial: string) => boolean;
  readonly worker: URL;
  readonly folder: string;
  /** Told after each part how many of how many are done. */
  readonly said: (done: number, of: number) => void;
}): Promise<Cell[]> {
  const rows = YARDS.flatMap((yard) => yard.rows.map(({ name }) => name)).filter(wanted);
  const code = createHash("sha256")
    .update(readFileSync(fileURLToPath(worker)))
    .digest("hex")
    .slice(0, 16);
  const file = join(folder, `matrix-${seed}-${createHash("sha256").update(rows.join("\n")).digest("hex").slice(0, 8)}.json`);
  mkdirSync(folder, { recursive: true });
  const kept = existsSync(file) ? (JSON.parse(readFileSync(file, "utf8")) as { code: string; done: Record<string, Counts> }) : null;
  const done: Record<string, Counts> = kept?.code === code ? kept.done : {};
  const parts = partsOf(horses, wanted, dialed);
  const left = parts.filter((part) => done[nameOf(part)] === undefined).reverse();
  const save = () => {
    // Written beside and renamed: a cut leaves the old one whole.
    writeFileSync(`${file}.part`, JSON.stringify({ code, done }));
    renameSync(`${file}.part`, file);
  };
  await Promise.all(
    Array.from({ length: Math.min(availableParallelism(), left.length) }, async () => {
      const own = new Worker(worker, { workerData: { seed, rows } });
      try {
        for (let part = left.pop(); part !== undefined; part = left.pop()) {
          const of = part;
          const counted = once(own, "message");
          own.postMessage(of);
          [done[nameOf(of)]] = (await counted) as [Counts];
          save();
          said(parts.filter((one) => done[nameOf(one)] !== undefined).length, parts.length);
        }
      } finally {
        await own.terminate();
      }
    }),
  );
  const counted = new Map<string, Record<string, Count>>();
  for (const part of parts) {
    const key = keyOf(part.yard, part.dial);
    const all = counted.get(key) ?? {};
    for (const [row, count] of Object.entries(done[nameOf(part)] ?? {})) all[row] = addCounts(all[row] ?? NO_COUNT, count);
    counted.set(key, all);
  }
  return cellsOf(counted);
}
