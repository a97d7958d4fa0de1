import { type LoadEntry, mondayOf, type RampPlanned } from "@/core/circle";
import { type Day, dayWords } from "@/core/day";
import type { StackColumn } from "@/ui/stack-columns";

const short = (day: Day) =>
  dayWords(day)
    .split(" ")
    .slice(0, 2)
    .map((word) => word.slice(0, 3))
    .join(" ");
const GAITS = ["walk", "trot", "canter"] as const;

/** What was done since a day and what is planned, session by session, with the weeks marked. */
export function rampColumns(
  entries: readonly LoadEntry[],
  since: Day,
  planned: readonly RampPlanned[],
  ways: "both" | "turn",
): StackColumn[] {
  const columns: (StackColumn & { readonly day: Day })[] = [];
  for (const { day, digest } of entries) {
    if (digest === null || digest.form !== "circle" || day < since) continue;
    const minutes = (gait: string) => ((digest.seconds[`${gait} L`] ?? 0) + (digest.seconds[`${gait} R`] ?? 0)) / 60;
    columns.push({
      day,
      name: dayWords(day),
      parts: GAITS.map((key) => ({ key, minutes: minutes(key) })),
      planned: false,
      ...(digest.poor ? { mark: "poor" } : {}),
    });
  }
  const times = ways === "both" ? 2 : 1;
  for (const { day, walk, trot, canter, obstacles, side } of planned)
    columns.push({
      day,
      name: `${dayWords(day)}${side === "both" ? "" : side === "L" ? ", left" : ", right"}`,
      parts: [
        { key: "walk", minutes: walk * times },
        { key: "trot", minutes: trot * times },
        { key: "canter", minutes: canter * times },
      ],
      planned: true,
      ...(obstacles ? { mark: "o" } : {}),
    });
  let monday = "";
  const names = new Map<string, number>();
  return columns.map(({ day, ...column }) => {
    const own = mondayOf(day);
    const week = own === monday ? {} : { week: short(own) };
    monday = own;
    // Two sessions of one day are told apart.
    const times = (names.get(column.name) ?? 0) + 1;
    names.set(column.name, times);
    return { ...column, ...week, name: times === 1 ? column.name : `${column.name}, ${times}` };
  });
}
