import { parentPort, workerData } from "node:worker_threads";
import { analysePart, type FilePart } from "./read-trials-file";

const { analysis } = await analysePart(workerData as FilePart);
const state = analysis.analysis.state();
const groups = [state.overall, state.left, state.right, ...state.byRung.map(({ group }) => group)];
const buffers = new Set(groups.flatMap((group) => group.tally.columns.map((column) => column.buffer as ArrayBuffer)));
parentPort?.postMessage(state, [...buffers]);
