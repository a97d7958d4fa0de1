import { LOAD_KINDS, type LoadWeek } from "@/core/circle";
import { dayWords } from "@/core/day";
import { wholeParts } from "@/core/words";
import { ScrollBox } from "@/ui/scroll-box";
import { lengthWords, useUnits } from "@/ui/units";
import { wholeMinutes } from "./whole-minutes";

/** Weeks in a row, the last one first: minutes by kind, circling, sides, laps, distance and turning dose. */
export function WeeksTable({ weeks, capMinutes }: { weeks: readonly LoadWeek[]; capMinutes: number | null }) {
  const units = useUnits();
  const kinds = LOAD_KINDS.filter((kind) => weeks.some(({ minutesByKind }) => minutesByKind[kind] > 0));
  const parts = (week: LoadWeek) => wholeParts(kinds.map((kind) => week.minutesByKind[kind]));
  return (
    <ScrollBox label="Weeks in a row" className="mt-5">
      <table className="figures w-full min-w-[44rem] text-sm">
        <caption className="sr-only">Weeks in a row</caption>
        <thead>
          <tr className="border-b-2 border-ink text-left align-bottom">
            <th className="py-1 pr-3">Week from</th>
            {kinds.map((kind) => (
              <th key={kind} className="pr-3 text-right">
                {kind}, min
              </th>
            ))}
            <th className="pr-3 text-right">all, min</th>
            <th className="pr-3 text-right">circling, min</th>
            <th className="pr-3 text-right">change</th>
            <th className="pr-3 text-right">sessions with it</th>
            <th className="pr-3 text-right">left / right</th>
            <th className="pr-3 text-right">laps tapped</th>
            <th className="pr-3 text-right">distance</th>
            <th className="text-right">dose, g·min</th>
          </tr>
        </thead>
        <tbody>
          {[...weeks].reverse().map((week) => (
            <tr key={week.monday} className="border-b border-hair">
              <th scope="row" className="py-1.5 pr-3 text-left font-normal whitespace-nowrap">
                {dayWords(week.monday)}
                {week.running && <span className="text-soft">, running</span>}
              </th>
              {/* What stands here adds up to what stands under all. */}
              {kinds.map((kind, i) => (
                <td key={kind} className="pr-3 text-right">
                  {week.minutesByKind[kind] > 0 ? parts(week)[i] : "–"}
                </td>
              ))}
              <td className="pr-3 text-right font-semibold">
                {wholeMinutes(kinds.reduce((sum, kind) => sum + week.minutesByKind[kind], 0))}
              </td>
              <td
                className={`pr-3 text-right font-semibold ${capMinutes !== null && week.circlingMinutes > capMinutes ? "text-brick" : ""}`}
              >
                {wholeMinutes(week.circlingMinutes)}
                {capMinutes !== null && week.circlingMinutes > capMinutes ? " over the cap" : ""}
              </td>
              <td className="pr-3 text-right">
                {week.change === null ? "–" : `${week.change > 0 ? "+" : ""}${Math.round(week.change * 100)} %`}
              </td>
              <td className="pr-3 text-right">{week.circleSessions || "–"}</td>
              <td className="pr-3 text-right">
                {week.leftMinutes + week.rightMinutes > 0 ? `${wholeMinutes(week.leftMinutes)} / ${wholeMinutes(week.rightMinutes)}` : "–"}
              </td>
              <td className="pr-3 text-right">{week.laps || "–"}</td>
              <td className="pr-3 text-right">{week.metres > 0 ? lengthWords(Math.round(week.metres), units) : "–"}</td>
              <td className="text-right">{week.doseGMinutes === null ? "–" : week.doseGMinutes.toFixed(1)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </ScrollBox>
  );
}
