import { createReadStream } from "node:fs";
import { open, stat } from "node:fs/promises";
import { Worker } from "node:worker_threads";
import { type AnalyseOptions, type AnalysisState, CsvPieces, parseCsv, type SeenState, TrialsFileAnalysis } from "@/core/formats";

/** A stretch of a file in bytes; `end` is exclusive. */
export interface FilePart {
  readonly file: string;
  readonly start: number;
  readonly end: number;
  readonly headerCells: readonly string[] | null;
  readonly withoutLate: boolean;
  /** Whether its rows are kept for what is said over sessions. */
  readonly overSessions: boolean;
}

/** Below this a second thread costs more than it saves. */
const WORTH_SPLITTING_BYTES = 16 * 1024 * 1024;
const QUOTE = 0x22;
const LINE_FEED = 0x0a;

/** Analyses a stretch of a trials.csv on this thread. */
export async function analysePart(
  part: FilePart,
  workSeconds?: ReadonlyMap<string, number>,
): Promise<{ analysis: TrialsFileAnalysis; lines: number }> {
  const analysis = new TrialsFileAnalysis(
    { withoutLate: part.withoutLate, workSeconds, overSessions: part.overSessions },
    part.headerCells,
  );
  const pieces = new CsvPieces((record) => analysis.take(record));
  const decoder = new TextDecoder("utf-8", { fatal: true, ignoreBOM: true });
  if (part.end > part.start) {
    for await (const bytes of createReadStream(part.file, { start: part.start, end: part.end - 1, highWaterMark: 1 << 20 })) {
      pieces.push(decoder.decode(bytes, { stream: true }));
    }
  }
  pieces.push(decoder.decode());
  pieces.end();
  return { analysis, lines: pieces.linesTaken };
}

/**
 * A line start near the middle, where the file can be cut in two; null for a
 * small file, or one with a quote anywhere: a line feed may then stand inside a cell.
 */
async function middleOf(file: string, size: number): Promise<number | null> {
  if (size < WORTH_SPLITTING_BYTES) return null;
  let at = 0;
  let middle: number | null = null;
  for await (const bytes of createReadStream(file, { highWaterMark: 4 << 20 })) {
    const piece = bytes as Buffer;
    if (piece.includes(QUOTE)) return null;
    if (middle === null && at + piece.length > size / 2) {
      const found = piece.indexOf(LINE_FEED, Math.max(0, Math.floor(size / 2) - at));
      if (found >= 0) middle = at + found + 1;
    }
    at += piece.length;
  }
  return middle;
}

async function headerCellsOf(file: string): Promise<readonly string[]> {
  const handle = await open(file);
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(65_536), 0, 65_536, 0);
    return parseCsv(buffer.toString("utf8", 0, bytesRead))[0]?.cells ?? [];
  } finally {
    await handle.close();
  }
}

/** What a part of a file comes to, as it is sent from thread to thread. */
export interface PartState {
  readonly state: AnalysisState;
  readonly seen: SeenState;
}

function analyseInWorker(part: FilePart): Promise<PartState> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL("./analyse-worker.mjs", import.meta.url), {
      workerData: part,
      // Rows live for a moment only: room for them to die young halves the time spent collecting.
      resourceLimits: { maxYoungGenerationSizeMb: 64 },
    });
    worker.once("message", resolve);
    worker.once("error", reject);
  });
}

/**
 * Analyses a trials.csv of any size. A large file is cut in two at a line,
 * and the second half is read on another thread; the sums are then joined.
 */
export async function analyseTrialsFile(file: string, options: AnalyseOptions) {
  const { size } = await stat(file);
  const withoutLate = options.withoutLate ?? false;
  const middle = await middleOf(file, size);
  // Rows of a large file are not kept: they would take more than the measures do.
  const whole: FilePart = { file, start: 0, end: size, headerCells: null, withoutLate, overSessions: size < WORTH_SPLITTING_BYTES };
  const alone = async () => (await analysePart(whole, options.workSeconds)).analysis.finish();
  if (middle === null) return alone();
  const later = analyseInWorker({ ...whole, start: middle, headerCells: await headerCellsOf(file) });
  const [{ analysis, lines }, { state, seen }] = await Promise.all([analysePart({ ...whole, end: middle }, options.workSeconds), later]);
  // A trial that stands in both halves is counted once: only one who reads the whole can tell.
  if (analysis.seen.sharesWith(seen)) return alone();
  analysis.analysis.absorb(state, lines);
  return analysis.finish();
}
