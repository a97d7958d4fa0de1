import { appendFileSync, mkdirSync } from "node:fs";
import { dirname } from "node:path";

/** One line of the table that `npm run faults` prints. */
export interface Reported {
  readonly name: string;
  readonly rounds: number;
  readonly found: string;
  readonly ok: boolean;
  readonly seconds: number;
}

/** Adds a line to the table, where one is asked for. */
export function reported(line: Reported): void {
  const file = process.env.DEFT_FAULTS_REPORT;
  if (file === undefined || file === "") return;
  mkdirSync(dirname(file), { recursive: true });
  appendFileSync(file, `${JSON.stringify(line)}\n`);
}
