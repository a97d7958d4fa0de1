import { methodsOf, planFromTemplate, taughtBy } from "@/core/behaviour";
import { criterionOf } from "@/core/ladder";
import { LIBRARY } from "@/library";

/** docs/library-rungs.md: every rung of every way of the library as the app says it, for reading from top to bottom. */
export function rungsPage(): string {
  const lines = [
    "# The library's rungs",
    "",
    "Every rung of every behaviour, by each of its ways, as the pen shows it. Made by `npm run -s docs`.",
    "",
  ];
  for (const behaviour of LIBRARY) {
    lines.push(`## ${behaviour.name}`, "");
    const ways = behaviour.ways.map(({ key, name }) => ({ name, taught: taughtBy(behaviour, key) }));
    for (const { name, taught } of ways.length === 0 ? [{ name: "", taught: behaviour }] : ways) {
      if (name !== "") lines.push(`### ${name}`, "");
      const [method] = methodsOf(taught);
      if (method === undefined) throw new Error(`${behaviour.key} has no method`);
      const plan = planFromTemplate(taught, method);
      plan.rungs.forEach((_, i) => {
        lines.push(`${i + 1}. ${criterionOf(plan, i + 1).sentence}`);
      });
      lines.push("");
    }
  }
  return lines.join("\n");
}
