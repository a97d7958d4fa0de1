// For npm run bench: the bare pass the analysis is held against. It splits a trials.csv and parses its numbers, and no more.
import { createReadStream } from "node:fs";

const started = performance.now();
let rest = "";
let sum = 0;
let rows = 0;
for await (const piece of createReadStream(process.argv[2], { encoding: "utf8", highWaterMark: 1 << 20 })) {
  const lines = (rest + piece).split("\n");
  rest = lines.pop() ?? "";
  for (const line of lines) {
    rows++;
    for (const cell of line.split(",")) {
      const value = Number(cell);
      if (cell !== "" && !Number.isNaN(value)) sum += value;
    }
  }
}
process.stdout.write(JSON.stringify({ rows, sum, ms: performance.now() - started }));
