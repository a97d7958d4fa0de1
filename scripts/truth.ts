// Prints how often each sentence of the app is wrong where nothing is there, said where something is, and how often its range holds the truth.
import { CLAIMS } from "@/tests/truth/claims";
import { cellOf, dialsOf, SENTENCES } from "@/tests/truth/matrix";
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
const wanted = (name: string) => only === undefined || name.toLowerCase().includes(only);
const percent = (x: number) => `${(100 * x).toFixed(1)} %`;
let broken = 0;

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
  process.stdout.write("| sentence | in a yard that | said falsely | limit | found where it is there |\n|---|---|---|---|---|\n");
  for (const sentence of SENTENCES.filter(({ name }) => wanted(name)))
    for (const dial of dialsOf(sentence)) {
      const { share, of, limit, state, found } = cellOf(sentence, dial, horses, seed);
      const there = found === null ? "" : `${percent(found)}: ${sentence.found?.what ?? ""}`;
      if (state === "over") broken++;
      process.stdout.write(
        `| ${sentence.name} | ${dial[0]} | ${percent(share)} of ${of} | ${limit} %${state === "holds" ? "" : state === "near" ? ", near" : " **over**"} | ${there} |\n`,
      );
    }
}
process.exit(broken === 0 ? 0 : 1);
