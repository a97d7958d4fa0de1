import { parentPort, workerData } from "node:worker_threads";
import { analysePart, type FilePart, type PartState } from "./read-trials-file";

const { analysis } = await analysePart(workerData as FilePart);
const state = analysis.analysis.state();
const seen = analysis.seen.state();
const groups = [state.overall, state.left, state.right, ...state.byRung.map(({ group }) => group)];
const buffers = new Set(groups.flatMap((group) => group.tally.columns.map((column) => column.buffer as ArrayBuffer)));
for (const [, keys] of seen) buffers.add(keys.buffer as ArrayBuffer);
parentPort?.postMessage({ state, seen } satisfies PartState, [...buffers]);
