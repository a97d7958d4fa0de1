// Prints how often each sentence of the app is wrong where nothing is there, said where something is, and how often its range holds the truth.
import { CLAIMS } from "@/tests/truth/claims";
import { measure } from "@/tests/truth/measure";

const [given] = process.argv.slice(2);
const horses = given === undefined ? 1000 : Number(given);
if (!Number.isInteger(horses) || horses < 10) {
  process.stderr.write("truth: a whole number of horses from 10 is wanted, 1000 where none is given.\n");
  process.exit(2);
}
const percent = (x: number) => `${(100 * x).toFixed(1)} %`;
process.stdout.write("| sentence | horses | asked | was so | limit |\n|---|---|---|---|---|\n");
let broken = 0;
for (const claim of CLAIMS) {
  const { share, of, holds } = measure(claim, horses);
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
process.exit(broken === 0 ? 0 : 1);
