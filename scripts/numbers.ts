// What the code is made of, room by room: lines, functions of more than a hundred, casts, the longest file; tests apart.
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { type FileNumbers, fileNumbers, LONG_FUNCTION_LINES } from "./code-numbers";

const ROOMS = ["app", "features", "ui", "core", "store", "library", "demo", "network", "workers", "scripts", "tests"];
const isTest = (path: string) => path.startsWith("tests/") || /\.test\.tsx?$/.test(path);

interface Counted extends FileNumbers {
  readonly path: string;
}
const counted: Counted[] = ROOMS.flatMap((room) =>
  readdirSync(room, { recursive: true, encoding: "utf8" })
    .filter((file) => /\.(tsx?|mjs)$/.test(file) && !file.endsWith(".d.mts"))
    .map((file) => ({ path: join(room, file), ...fileNumbers(file, readFileSync(join(room, file), "utf8")) })),
);
const sum = (files: readonly Counted[], of: (file: Counted) => number) => files.reduce((all, file) => all + of(file), 0);
const row = (name: string, files: readonly Counted[]) => {
  const longest = files.toSorted((a, b) => b.lines - a.lines)[0];
  const cells = [
    sum(files, ({ lines }) => lines),
    sum(files, ({ longFunctions }) => longFunctions.length),
    sum(files, ({ casts }) => casts),
  ];
  process.stdout.write(`| ${name} | ${cells.join(" | ")} | ${longest === undefined ? "" : `${longest.lines}, ${longest.path}`} |\n`);
};

process.stdout.write(`| room | lines | functions over ${LONG_FUNCTION_LINES} lines | casts | longest file |\n|---|---|---|---|---|\n`);
const production = counted.filter(({ path }) => !isTest(path));
for (const room of ROOMS.filter((one) => one !== "tests"))
  row(
    room,
    production.filter(({ path }) => path.startsWith(`${room}/`)),
  );
row("production, all", production);
row(
  "tests",
  counted.filter(({ path }) => isTest(path)),
);
if (process.argv.includes("--long"))
  for (const { path, longFunctions } of production)
    for (const { name, lines } of longFunctions) process.stdout.write(`${lines}  ${path}: ${name}\n`);
