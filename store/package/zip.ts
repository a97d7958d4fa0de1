import { createHash } from "node:crypto";
import { crc32 } from "node:zlib";
import yauzl, { type Entry, type ZipFile } from "yauzl";
import { NotSuchAFileError } from "@/core/formats";

/** Nothing of this size or ratio is a yard: a small file that swells beyond it is no package. */
const MOST_TIMES = 120;
const LEAST_MOST_BYTES = 64 * 1024 * 1024;
const MOST_FILES = 60;

/** What a descriptor says of a file beside its name. */
export interface Promised {
  readonly bytes?: number;
  /** "md5" in hexadecimals, or "algorithm:" before them. */
  readonly hash?: string;
}

const ALGORITHMS: ReadonlySet<string> = new Set(["md5", "sha1", "sha256", "sha512"]);
const damaged = (name?: string) =>
  new NotSuchAFileError(name === undefined ? "The zip file is damaged." : `“${name.slice(0, 80)}” is damaged.`);
const shown = (name: string) => name.slice(0, 80);

/** A zip file whose directory was read and found in order. */
export class CheckedZip {
  private constructor(
    private readonly zip: ZipFile,
    private readonly entries: ReadonlyMap<string, Entry>,
  ) {}

  /**
   * Opens a zip file by its directory.
   * @param size of the file in bytes: what may come out of it is bounded by that.
   * @throws NotSuchAFileError where it is no zip, its directory is damaged, or more would come out of it than any yard holds.
   */
  static async open(path: string, size: number): Promise<CheckedZip> {
    const zip = await new Promise<ZipFile>((resolve, reject) =>
      yauzl.open(path, { lazyEntries: true, autoClose: false, strictFileNames: true }, (error, opened) =>
        error
          ? reject(/signature not found/.test(error.message) ? new NotSuchAFileError("It is no zip file, or it is cut off.") : damaged())
          : resolve(opened),
      ),
    );
    try {
      return new CheckedZip(zip, await directoryOf(zip, Math.max(LEAST_MOST_BYTES, size * MOST_TIMES)));
    } catch (error) {
      zip.close();
      throw error instanceof NotSuchAFileError ? error : damaged();
    }
  }

  get names(): readonly string[] {
    return [...this.entries.keys()];
  }

  /** How long a file is, in bytes. */
  bytesOf(name: string): number {
    return this.entries.get(name)?.uncompressedSize ?? 0;
  }

  close(): void {
    this.zip.close();
  }

  /**
   * A file in pieces. What came is held against the directory's length and check sum, and against what the descriptor promised of it, when its last piece was taken.
   * @throws NotSuchAFileError where it is damaged.
   */
  async *read(name: string, promised: Promised = {}): AsyncGenerator<Uint8Array> {
    const entry = this.entries.get(name);
    if (entry === undefined) throw new NotSuchAFileError(`“${shown(name)}” is missing; the file may be cut off.`);
    await this.checkHead(entry);
    const [algorithm, wanted] = hashOf(name, promised);
    const hash = algorithm === null ? null : createHash(algorithm);
    let sum = 0;
    let bytes = 0;
    try {
      const stream = await new Promise<NodeJS.ReadableStream>((resolve, reject) =>
        this.zip.openReadStream(entry, (error, opened) => (error ? reject(error) : resolve(opened))),
      );
      for await (const piece of stream) {
        const part = piece as Buffer;
        sum = crc32(part, sum);
        bytes += part.length;
        hash?.update(part);
        yield part;
      }
    } catch (error) {
      throw error instanceof NotSuchAFileError ? error : damaged(name);
    }
    if (bytes !== entry.uncompressedSize || sum !== entry.crc32) throw damaged(name);
    if (promised.bytes !== undefined && promised.bytes !== bytes) throw damaged(name);
    if (hash !== null && hash.digest("hex") !== wanted) throw new NotSuchAFileError(`“${shown(name)}” is not what datapackage.json says.`);
  }

  /** The head before a file's bytes says the same as the directory. */
  private async checkHead(entry: Entry): Promise<void> {
    const head = await new Promise<{
      fileName: Buffer;
      compressionMethod: number;
      generalPurposeBitFlag: number;
      crc32: number;
      uncompressedSize: number;
    }>((resolve, reject) =>
      this.zip.readLocalFileHeader(entry, (error, found) => (error ? reject(damaged(entry.fileName)) : resolve(found))),
    );
    // Sizes and sums may stand behind the bytes instead; where they stand here they are the same.
    const behind = (head.generalPurposeBitFlag & 8) !== 0;
    const same =
      head.fileName.toString("utf8") === entry.fileName &&
      head.compressionMethod === entry.compressionMethod &&
      (behind || (head.crc32 === entry.crc32 && head.uncompressedSize === entry.uncompressedSize));
    if (!same) throw damaged(entry.fileName);
  }
}

function hashOf(name: string, { hash }: Promised): readonly [algorithm: string | null, wanted: string] {
  if (hash === undefined) return [null, ""];
  const [algorithm, wanted] = hash.includes(":") ? (hash.split(":", 2) as [string, string]) : ["md5", hash];
  if (!ALGORITHMS.has(algorithm)) throw new NotSuchAFileError(`“${shown(name)}” has a hash of a kind not known here: ${shown(algorithm)}.`);
  return [algorithm, wanted.toLowerCase()];
}

/** Every entry of the directory, each once, none a folder or a way out, not too many and not too much. */
function directoryOf(zip: ZipFile, most: number): Promise<Map<string, Entry>> {
  return new Promise((resolve, reject) => {
    const entries = new Map<string, Entry>();
    let bytes = 0;
    zip.on("error", (error: Error) =>
      reject(
        /invalid relative path|absolute path|invalid characters/.test(error.message)
          ? new NotSuchAFileError(`“${shown(error.message.split(": ").at(-1) ?? "")}” belongs in no package.`)
          : damaged(),
      ),
    );
    zip.on("end", () => resolve(entries));
    zip.on("entry", (entry: Entry) => {
      const refuse = (words: string) => reject(new NotSuchAFileError(words));
      bytes += entry.uncompressedSize;
      if (entries.has(entry.fileName)) return refuse(`“${shown(entry.fileName)}” stands in it twice.`);
      if (entries.size >= MOST_FILES) return refuse("There are far too many files in it.");
      if (entry.isEncrypted()) return refuse(`“${shown(entry.fileName)}” is locked with a password.`);
      if (bytes > most) return refuse("It swells far beyond what a yard holds.");
      entries.set(entry.fileName, entry);
      zip.readEntry();
    });
    zip.readEntry();
  });
}
