import { type CsvRecord, type Delimiter, takeRecords } from "./csv";

/**
 * Parses a CSV text that comes in pieces, with bounded memory. Pieces may be
 * cut anywhere, also inside a quoted cell or between CR and LF.
 */
export class CsvPieces {
  private rest = "";
  private line = 1;
  private first = true;
  private heldReturn = false;
  private waitFor = 0;

  constructor(
    private readonly take: (record: CsvRecord) => void,
    private readonly delimiter: Delimiter = ",",
  ) {}

  /** Physical lines taken so far. */
  get linesTaken(): number {
    return this.line - 1;
  }

  /** Characters of a row that has not ended yet. */
  get waiting(): number {
    return this.rest.length;
  }

  /** Takes the next piece of text. */
  push(piece: string): void {
    let text = piece;
    if (this.first && text.length > 0) {
      this.first = false;
      if (text.charCodeAt(0) === 0xfeff) text = text.slice(1);
    }
    if (this.heldReturn) {
      text = `\r${text}`;
      this.heldReturn = false;
    }
    if (text.endsWith("\r")) {
      text = text.slice(0, -1);
      this.heldReturn = true;
    }
    this.rest += text.includes("\r") ? text.replace(/\r\n?/g, "\n") : text;
    // A quoted cell that goes on and on is only looked at again once the text has doubled.
    if (this.rest.length < this.waitFor) return;
    this.parse(false);
    this.waitFor = this.rest.length > piece.length * 2 ? this.rest.length * 2 : 0;
  }

  /** No more pieces will come. */
  end(): void {
    if (this.heldReturn) this.rest += "\n";
    this.heldReturn = false;
    this.parse(true);
  }

  private parse(last: boolean): void {
    const { rest, line } = takeRecords(this.rest, this.line, last, this.take, this.delimiter);
    this.rest = rest;
    this.line = line;
  }
}
