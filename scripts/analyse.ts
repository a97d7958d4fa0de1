import { createReadStream, readFileSync } from "node:fs";
import { analyseEvents, NotSuchAFileError, parseCsv, readEventsCsv, readSessionsCsv } from "@/core/formats";
import { analyseTrialsFile } from "./read-trials-file";

const USAGE = "Usage: npm run -s analyse -- FILE [--sessions sessions.csv] [--without-late]";

interface Call {
  readonly file: string;
  readonly sessions: string | null;
  readonly withoutLate: boolean;
}

function readCall(words: readonly string[]): Call {
  let file: string | null = null;
  let sessions: string | null = null;
  let withoutLate = false;
  for (let i = 0; i < words.length; i++) {
    const word = words[i] as string;
    if (word === "--without-late") withoutLate = true;
    else if (word === "--sessions") {
      sessions = words[++i] ?? null;
      if (sessions === null) throw new NotSuchAFileError(USAGE);
    } else if (word.startsWith("--") || file !== null) throw new NotSuchAFileError(USAGE);
    else file = word;
  }
  if (file === null) throw new NotSuchAFileError(USAGE);
  return { file, sessions, withoutLate };
}

const readUtf8 = (file: string) => new TextDecoder("utf-8", { fatal: true }).decode(readFileSync(file));

/** A zip begins with these two letters, whatever it is called. */
async function looksLikePackage(file: string): Promise<boolean> {
  for await (const bytes of createReadStream(file, { end: 1 })) return bytes[0] === 0x50 && bytes[1] === 0x4b;
  return false;
}

async function looksLikeEvents(file: string): Promise<boolean> {
  for await (const bytes of createReadStream(file, { end: 8191 })) {
    const head = parseCsv(new TextDecoder().decode(bytes))[0]?.cells.map((cell) => cell.trim()) ?? [];
    return head.includes("payload") && head.includes("mono_ms");
  }
  return false;
}

async function analyse({ file, sessions, withoutLate }: Call): Promise<unknown> {
  const given = sessions === null ? null : readSessionsCsv(readUtf8(sessions));
  const options = { withoutLate, workSeconds: given?.workSeconds };
  if (given !== null && given.unknownColumns.length > 0)
    console.error(`sessions.csv: columns not known and kept aside: ${given.unknownColumns.join(", ")}`);
  if (await looksLikePackage(file)) {
    // Only a package needs a store.
    const { analysePackage } = await import("./analyse-package");
    const output = await analysePackage(file, options);
    output.rows_refused.push(...(given?.refused ?? []));
    return output;
  }
  if (await looksLikeEvents(file)) {
    const output = analyseEvents(readEventsCsv(readUtf8(file)), options);
    output.rows_refused.push(...(given?.refused ?? []));
    return output;
  }
  const output = await analyseTrialsFile(file, options);
  output.rows_refused.push(...(given?.refused ?? []));
  return output;
}

function plainly(error: unknown): string {
  if (error instanceof Error && "code" in error && error.code === "not-such-a-file") return error.message;
  const code = error instanceof Error && "code" in error ? String(error.code) : "";
  if (code === "ERR_ENCODING_INVALID_ENCODED_DATA") return "The file is not UTF-8 text.";
  if (error instanceof Error && /^E[A-Z]+$/.test(code)) return `The file cannot be read: ${error.message}`;
  throw error;
}

try {
  const output = await analyse(readCall(process.argv.slice(2)));
  process.stdout.write(`${JSON.stringify(output)}\n`);
} catch (error) {
  console.error(plainly(error));
  process.exitCode = 2;
}
