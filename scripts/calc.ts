import { CALCULATIONS, CalcInputError } from "@/core/calc";

/** Reads one JSON value on standard input and prints one. Exit status 2 where the name or the input is wrong. */
async function readInput(): Promise<string> {
  let text = "";
  for await (const piece of process.stdin.setEncoding("utf8")) text += piece;
  return text;
}

const name = process.argv[2] ?? "";
const calculation = CALCULATIONS.get(name);
try {
  if (calculation === undefined) throw new CalcInputError(`NAME must be one of: ${[...CALCULATIONS.keys()].join(", ")}`);
  let input: unknown;
  try {
    input = JSON.parse(await readInput());
  } catch {
    throw new CalcInputError("input: one JSON value is needed on standard input");
  }
  process.stdout.write(`${JSON.stringify(calculation(input))}\n`);
} catch (error) {
  if (!(error instanceof Error && "code" in error && error.code === "calc-input")) throw error;
  console.error(error.message);
  process.exitCode = 2;
}
