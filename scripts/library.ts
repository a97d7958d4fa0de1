// Writes docs/library.md: every behaviour by each method and way, worked from the first rung to the last by the simulated horse of the demo.
import { writeFileSync } from "node:fs";
import { type BehaviourTemplate, FAMILIES, inTheWay, methodsOf, planFromTemplate } from "@/core/behaviour";
import { medianOf } from "@/core/evidence";
import { METHODS, type Method } from "@/core/ladder";
import { masterySentence } from "@/core/mastery";
import { type Climb, climb } from "@/demo/climb";
import { HANDLED } from "@/demo/horse";
import { LIBRARY } from "@/library";

const SEEDS = [7, 19, 31] as const;
const SIDES = ["L", "R"] as const;
const MOST_DAYS = 300;

const METHOD_WORDS: Record<Method, string> = { "pressure-release": "feel", combined: "both", "marker-food": "food" };

/** Asks and days of the horse in the middle; said where one did not get up. */
function cell(climbs: readonly Climb[]): string {
  const up = climbs.filter(({ reachedTop }) => reachedTop);
  if (up.length === 0) return "not up";
  const short = up.length < climbs.length ? ` (${climbs.length - up.length} of ${climbs.length} not up)` : "";
  return `${medianOf(up.map(({ asks }) => asks))}, ${medianOf(up.map(({ days }) => days))} d${short}`;
}

/** Left and right asks of the horse in the middle, by which side is the weaker. */
function sidesCell(climbs: ReadonlyMap<string, readonly Climb[]>): string {
  const all = [...climbs.values()].flat();
  if (all.every(({ asksBySide }) => asksBySide.right === 0)) return "–";
  const of = (side: string) => {
    const list = climbs.get(side) ?? [];
    return `${medianOf(list.map((one) => one.asksBySide.left))} / ${medianOf(list.map((one) => one.asksBySide.right))}`;
  };
  return `${of("L")}; ${of("R")}`;
}

function row(whole: BehaviourTemplate, way: string | undefined): string {
  const { template, ways } = inTheWay(whole, way);
  const methods = methodsOf(template);
  const cells = METHODS.map((method) => {
    if (!methods.includes(method)) return { method, text: "–", bySide: new Map<string, Climb[]>() };
    const plan = planFromTemplate(template, method, ways);
    const bySide = new Map<string, Climb[]>(SIDES.map((side) => [side, SEEDS.map((seed) => climb(plan, seed, side, MOST_DAYS))]));
    return { method, text: cell([...bySide.values()].flat()), bySide };
  });
  const first = cells.find(({ text }) => text !== "–");
  const name = way === undefined ? template.name : `${template.name}: ${whole.ways.find(({ key }) => key === way)?.name ?? way}`;
  return `| ${[name, template.rungs.length, masterySentence(template.mastery), ...cells.map(({ text }) => text), sidesCell(first?.bySide ?? new Map())].join(" | ")} |`;
}

const lines = [
  "# The library, worked by a simulated horse",
  "",
  `Made by \`npm run library\`; it takes some minutes. ${LIBRARY.length} behaviours. Every step, amount, caution and fault of them is common practice of groundwork, with no source; the first rule of moving on (nine of the last ten) is the product's own choice, and docs/measures.md says how it was made. What each rests on, its ask, its faults and its cautions stand on its page under Shape.`,
  "",
  `The horse is invented and the same for all: linear learning (Bush & Mosteller 1955, from memory) with a first chance of ${HANDLED.floor}, α ${HANDLED.learning}, β ${HANDLED.unlearning}, ${HANDLED.kept} of the gain kept on a harder rung, forgetting over ${HANDLED.forgettingDays} days, and a weaker side that begins at 0.8 of the chance and learns by ${HANDLED.weakLearning} of α. It is worked once a day, up to four blocks, by a trainer who takes every word. What the table is good for: that no ladder has a rung nobody gets up, that none is absurdly long, and that the rules come out as they are meant to: risky work takes many days and few asks a day, light work few days and many asks. It is no forecast for a real horse; there are the numbers of your own.`,
  "",
  `Cells hold the median of ${SEEDS.length * SIDES.length} horses: asks, and days worked. “feel” is pressure and release, “both” release, mark and food together, “food” mark and food. The last column has asks on the left / on the right, first for horses weaker on the left, then for horses weaker on the right.`,
];
for (const family of FAMILIES) {
  lines.push("", `## ${family[0]?.toUpperCase()}${family.slice(1)}`, "");
  lines.push(`| behaviour | rungs | moves on when | ${METHODS.map((method) => METHOD_WORDS[method]).join(" | ")} | left / right |`);
  lines.push(`|---|---|---|${METHODS.map(() => "---").join("|")}|---|`);
  for (const whole of LIBRARY.filter((one) => one.family === family))
    for (const way of whole.ways.length === 0 ? [undefined] : whole.ways.map(({ key }) => key)) {
      lines.push(row(whole, way));
      process.stderr.write(".");
    }
}
writeFileSync("docs/library.md", `${lines.join("\n")}\n`);
process.stderr.write("\n");
