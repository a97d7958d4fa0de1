import { parentPort, workerData } from "node:worker_threads";
import { countPart, type Part } from "@/tests/truth/matrix";

const { seed, rows } = workerData as { readonly seed: number; readonly rows: readonly string[] };
const wanted = new Set(rows);
parentPort?.on("message", (part: Part) => {
  parentPort?.postMessage(countPart(part, seed, (row) => wanted.has(row)));
});
