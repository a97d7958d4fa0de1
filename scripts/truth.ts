// Prints how often each sentence of the app is wrong where nothing is there, said where something is, and how often its range holds the truth.
import { join } from "node:path";
import { CLAIMS } from "@/tests/truth/claims";
import { type Cell, YARDS } from "@/tests/truth/matrix";
import { runMatrix } from "@/tests/truth/matrix/run";
import { measure } from "@/tests/truth/measure";

const given = process.argv.slice(2);
const fail = (words: string): never => {
  process.stderr.write(`truth: ${words}\n`);
  process.exit(2);
};
const after = (name: string): string | undefined => {
  const at = given.indexOf(name);
  return at < 0 ? undefined : (given[at + 1] ?? fail(`${name} is missing what comes after it.`));
};
const whole = (text: string | undefined, usual: number, least: number, what: string): number => {
  const value = text === undefined ? usual : Number(text);
  return Number.isInteger(value) && value >= least ? value : fail(`${what} is a whole number from ${least}.`);
};
const [first] = given;
const horses = whole(after("--horses") ?? (first?.startsWith("--") === false ? first : undefined), 1000, 10, "horses");
const seed = whole(after("--seed"), 1, 0, "--seed");
const only = after("--only")?.toLowerCase();
const yardOf = after("--yard")?.toLowerCase();
const wanted = (name: string) => only === undefined || name.toLowerCase().includes(only);
const percent = (x: number) => `${(100 * x).toFixed(1)} %`;
let broken = 0;

const cellWords = ({ share, state }: Cell) =>
  `${(100 * share).toFixed(1)}${state === "holds" ? "" : state === "near" ? " near" : " **over**"}`;

/** Each cell on a line of its own. */
const listed = (cells: readonly Cell[]): string =>
  [
    "| sentence | in a yard that | said falsely | limit | found where it is there |",
    "|---|---|---|---|---|",
    ...cells.map(
      (cell) =>
        `| ${cell.sentence} | ${cell.dial} | ${cellWords(cell)} % of ${cell.of} | ${cell.limit} % | ${cell.found === null ? "" : `${percent(cell.found.share)}: ${cell.found.what}`} |`,
    ),
    "",
  ].join("\n");

/** A table for each sentence's yards: dials down, sentences across; false in 100, then found in 100. */
function together(cells: readonly Cell[]): string {
  return YARDS.flatMap((yard) => {
    const rows = yard.rows.filter(({ name }) => cells.some(({ sentence }) => sentence === name));
    if (rows.length === 0) return [];
    const at = (row: string, dial: string) => cells.find(({ sentence, dial: of }) => sentence === row && of === dial);
    const head = rows.map(({ name, limit, found }) => `${name}: at most ${limit}${found === null ? "" : `; found (${found})`}`);
    return [
      `| in a yard that | ${head.join(" | ")} |`,
      `|---|${rows.map(() => "---|").join("")}`,
      ...yard.dials.map(([dial]) => {
        const own = rows.map(({ name }) => {
          const cell = at(name, dial);
          return cell === undefined
            ? "true there"
            : `${cellWords(cell)}${cell.found === null ? "" : `; ${Math.round(100 * cell.found.share)}`}`;
        });
        return `| ${dial} | ${own.join(" | ")} |`;
      }),
      "",
    ];
  }).join("\n");
}

if (!given.includes("--matrix")) {
  process.stdout.write("| sentence | horses | asked | was so | limit |\n|---|---|---|---|---|\n");
  for (const claim of CLAIMS.filter(({ sentence }) => wanted(sentence))) {
    const { share, of, holds } = measure(claim, horses, seed);
    const { atLeast, atMost } = claim;
    const limit = [
      ...(atLeast === undefined ? [] : [`at least ${percent(atLeast)}`]),
      ...(atMost === undefined ? [] : [`at most ${percent(atMost)}`]),
    ].join(", ");
    if (!holds) broken++;
    process.stdout.write(
      `| ${claim.sentence} | ${claim.horses} | ${claim.asks} | ${percent(share)} of ${of} | ${limit}${holds ? "" : " **broken**"} |\n`,
    );
  }
} else {
  if (yardOf !== undefined && !YARDS.some(({ dials }) => dials.some(([dial]) => dial.includes(yardOf))))
    fail(`no yard of the matrix has "${yardOf}" in its name.`);
  if (!YARDS.some(({ rows }) => rows.some(({ name }) => wanted(name)))) fail(`no sentence of the matrix has "${only}" in its name.`);
  const cells = await runMatrix({
    horses,
    seed,
    wanted,
    dialed: (dial) => yardOf === undefined || dial.includes(yardOf),
    worker: new URL("./truth-worker.mjs", import.meta.url),
    folder: join(process.cwd(), ".cache", "truth"),
    said: (done, of) => process.stderr.write(`${done} of ${of} parts\n`),
  });
  broken = cells.filter(({ state }) => state === "over").length;
  process.stdout.write(given.includes("--cells") ? listed(cells) : together(cells));
}
process.exit(broken === 0 ? 0 : 1);
