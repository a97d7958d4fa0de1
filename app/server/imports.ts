import "server-only";
import { randomUUID as newId } from "node:crypto";
import { appendFileSync, closeSync, mkdirSync, openSync, readSync, rmSync, statSync } from "node:fs";
import { dirname, join } from "node:path";
import { delimiterOf, guessMapping, NotSuchAFileError, outcomeOf, parseCsv, type TrialsMapping } from "@/core/formats";
import { trialsMappingDocument } from "@/core/formats/mapping-document";
import type { ImportState } from "@/features/in-out/import-state";
import {
  bringEvents,
  bringTrials,
  CancelledError,
  closeStore,
  isOfCode,
  keptJson,
  mergeStore,
  openStore,
  type Reading,
  readMeta,
  readPackage,
  type Store,
  writeMeta,
} from "@/store";
import { inProcess } from "./in-process";

type Running = { -readonly [Key in keyof ImportState]: ImportState[Key] } & { path: string; cancelled: boolean };

/** Reads a package into a store at a path; the launcher has it, since it knows where its other program lies. */
export type ReadApart = (path: string, file: string, reading: Reading) => Promise<void>;

/** A yard of ten years is far smaller. */
export const MOST_IMPORT_BYTES = 2 * 1024 * 1024 * 1024;
/** A file is sent in pieces of this size at most. */
export const IMPORT_PIECE_BYTES = 4 * 1024 * 1024;
const LOOK_BYTES = 256 * 1024;
const SAMPLE_ROWS = 5;
const MAPPING_KEY = "import-mapping";

// One process serves pages and routes from several bundles: they share what goes on.
const shared = inProcess<{ deftImport?: Running | null; deftReadApart?: ReadApart }>();

const shown = ({ path: _, cancelled: __, ...state }: Running): ImportState => state;
const busy = (one: Running | null | undefined): one is Running =>
  one?.step === "reading" || one?.step === "bringing" || one?.step === "looking";

/** Thrown where one is going on. */
export class ImportBusyError extends Error {
  readonly code = "conflict";
}

const current = (id: string): Running => {
  const one = shared.deftImport;
  if (one?.id !== id) throw Object.assign(new Error("There is no such import any more."), { code: "not-found" });
  return one;
};

const dropFiles = (one: Running) => {
  for (const path of [one.path, `${one.path}.sqlite`, `${one.path}.sqlite-wal`, `${one.path}.sqlite-shm`, `${one.path}.sqlite.new`])
    rmSync(path, { force: true });
};

/** Begins an import: its file comes in pieces. One at a time; one that waits is dropped for it. */
export function beginImport(store: Store, name: string, size: number): ImportState {
  if (busy(shared.deftImport)) throw new ImportBusyError("A file is being brought in; wait for it, or give it up.");
  if (shared.deftImport != null) dropFiles(shared.deftImport);
  const id = newId();
  const folder = join(dirname(store.file), "imports");
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  const one: Running = {
    id,
    name,
    size,
    received: 0,
    step: "receiving",
    bytes: 0,
    events: 0,
    look: null,
    problem: null,
    dry: null,
    brought: null,
    merged: null,
    path: join(folder, `${id}.part`),
    cancelled: false,
  };
  shared.deftImport = one;
  return shown(one);
}

/** Takes the next piece; one that was taken already is taken once. */
export async function takePiece(store: Store, id: string, at: number, piece: Uint8Array): Promise<ImportState> {
  const one = current(id);
  if (one.step !== "receiving") return shown(one);
  if (at === one.received && one.received + piece.length <= one.size) {
    appendFileSync(one.path, piece);
    one.received += piece.length;
  }
  if (one.received === one.size) {
    try {
      one.look = await lookAt(store, one.path);
      one.step = "received";
    } catch (error) {
      fail(one, error);
    }
  }
  return shown(one);
}

/** What a file is, by its first bytes. */
async function lookAt(store: Store, path: string): Promise<NonNullable<ImportState["look"]>> {
  if (statSync(path).size === 0) throw new NotSuchAFileError("The file is empty.");
  const bytes = Buffer.alloc(LOOK_BYTES);
  const file = openSync(path, "r");
  const length = readSync(file, bytes, 0, LOOK_BYTES, 0);
  closeSync(file);
  const head = bytes.subarray(0, length);
  const none = { header: [], sample: [], mapping: { columns: {}, outcomes: {} }, unknownOutcomes: [] };
  if (head[0] === 0x50 && head[1] === 0x4b) return { kind: "package", ...none };
  if ((head[0] === 0xff && head[1] === 0xfe) || (head[0] === 0xfe && head[1] === 0xff))
    throw new NotSuchAFileError("The file is UTF-16. Save it as CSV UTF-8 and try again.");
  if (head.includes(0)) throw new NotSuchAFileError("The file is neither a package nor a table of text.");
  let text: string;
  try {
    text = new TextDecoder("utf-8", { fatal: true }).decode(head, { stream: true });
  } catch {
    throw new NotSuchAFileError("The file is not UTF-8. Save it as CSV UTF-8 and try again.");
  }
  // The last line may be cut off.
  const whole = length < LOOK_BYTES ? text : text.slice(0, text.lastIndexOf("\n") + 1);
  const [first, ...rows] = parseCsv(whole, delimiterOf(whole));
  const header = (first?.cells ?? []).map((cell) => cell.trim());
  if (header.length < 2) throw new NotSuchAFileError("The first line has no columns parted by commas, semicolons or tabs.");
  const sample = rows.slice(0, SAMPLE_ROWS).map(({ cells }) => cells.map((cell) => cell.slice(0, 80)));
  if (["id", "session", "recorder", "mono_ms", "type", "payload"].every((name) => header.includes(name)))
    return { kind: "events", header, sample, mapping: none.mapping, unknownOutcomes: [] };
  const mapping = guessMapping(header, await rememberedMapping(store));
  const at = header.indexOf(mapping.columns.outcome ?? "");
  const words = at < 0 ? [] : [...new Set(rows.map(({ cells }) => (cells[at] ?? "").trim()))].filter((word) => word !== "");
  return {
    kind: ["session", "started_at", "behaviour", "rung", "trial", "t_s", "outcome"].every((name) => header.includes(name))
      ? "trials"
      : "table",
    header,
    sample,
    mapping,
    unknownOutcomes: words.filter((word) => outcomeOf(word, mapping) === undefined).slice(0, 12),
  };
}

/** What was said of a table of these columns before; undefined where nothing was, or nothing this version can read. */
const rememberedMapping = async (store: Store): Promise<TrialsMapping | undefined> =>
  keptJson(await readMeta(store, MAPPING_KEY), trialsMappingDocument);

function fail(one: Running, error: unknown): void {
  const cancelled = isOfCode(error, "cancelled");
  one.step = cancelled ? "cancelled" : "failed";
  const known = isOfCode(error, "not-such-a-file") || isOfCode(error, "not-found") || isOfCode(error, "gone");
  if (!cancelled && !known) console.error(error);
  // Taps that came for a session that was here already are in its log, which only grows.
  const kept =
    one.events === 0
      ? "Nothing of it was kept."
      : "No session of it was kept; taps it held for sessions that are here already stay with them.";
  one.problem = cancelled ? `Given up. ${kept}` : `${known ? (error as Error).message : "The file could not be brought in."} ${kept}`;
  dropFiles(one);
}

/** What is said before a file is taken in. */
export interface ImportWishes {
  /** Whose the rows are that name no horse. */
  readonly horse: string | null;
  /** Where rows go that name one. */
  readonly byName: Readonly<Record<string, string>>;
  readonly mapping: TrialsMapping | null;
  /** Read it and say what would come, and write nothing. */
  readonly dry: boolean;
}

/** Begins to take the file in, or to look it through. It goes on by itself; {@link importState} says how far it has come. */
export function startImport(store: Store, id: string, { horse, byName, mapping, dry }: ImportWishes): ImportState {
  const one = current(id);
  if ((one.step !== "received" && one.step !== "looked") || one.look === null) return shown(one);
  const table = one.look.kind === "table" || one.look.kind === "trials";
  if (dry && !table) return shown(one);
  one.step = dry ? "looking" : "reading";
  one.bytes = 0;
  const reading = {
    onBytes: (bytes: number) => {
      one.bytes = bytes;
    },
    cancelled: () => one.cancelled,
  };
  const { kind } = one.look;
  const work = async () => {
    if (kind === "package") {
      // Everything is read and checked in a store of its own before anything of it comes here.
      const file = `${one.path}.sqlite`;
      // By the process beside this one, so that taps are answered meanwhile.
      await shared.deftReadApart?.(one.path, file, reading);
      const apart = await openStore(file, store.now);
      try {
        if (shared.deftReadApart === undefined) await readPackage(apart, one.path, reading);
        if (one.cancelled) throw new CancelledError("Given up.");
        one.step = "bringing";
        one.merged = await mergeStore(store, apart, (events) => {
          one.events = events;
        });
      } finally {
        await closeStore(apart);
      }
    } else if (horse === null) throw new NotSuchAFileError("Say whose trials these are.");
    else if (kind === "events") one.brought = await bringEvents(store, one.path, horse, reading);
    else {
      const used = mapping ?? one.look?.mapping ?? { columns: {}, outcomes: {} };
      if (dry) {
        one.dry = await bringTrials(store, one.path, { horse, byName }, used, { ...reading, dry });
        one.step = "looked";
        return;
      }
      await writeMeta(store, MAPPING_KEY, JSON.stringify(used));
      one.brought = await bringTrials(store, one.path, { horse, byName }, used, reading);
    }
    one.step = "done";
    dropFiles(one);
  };
  void work().catch((error: unknown) => fail(one, error));
  return shown(one);
}

/** How far it has come. */
export const importState = (id: string): ImportState => shown(current(id));

/** Gives an import up: nothing of it stays. What has been read and checked is brought in to its end. */
export function giveUp(id: string): ImportState {
  const one = current(id);
  if (one.step === "reading" || one.step === "looking") one.cancelled = true;
  else if (one.step === "receiving" || one.step === "received" || one.step === "looked") {
    one.step = "cancelled";
    one.problem = "Given up. Nothing of it was kept.";
    dropFiles(one);
  }
  return shown(one);
}
