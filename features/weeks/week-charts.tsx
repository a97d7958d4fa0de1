import type { OverWeeks } from "@/core/past";
import { SeriesChart } from "@/ui/chart";
import { How } from "@/ui/measure";
import {
  askCharts,
  connectedChart,
  cumulativeChart,
  easeChart,
  halfChart,
  lightnessChart,
  metChart,
  ratesChart,
  rungChart,
  signsChart,
  staysChart,
  warmUpChart,
} from "./charts";

/** What a chart shows, where its name does not say it. */
const HELP: Readonly<Record<string, string>> = {
  "Rung worked":
    "The highest rung worked in each session, warm-up and the easy one at its end aside. Dashed lines: a new version of the plan, or two weeks and more without it. A mark under a session: something was special, said when you point at it.",
  Met: "Bars are the 95 % score interval of that session alone (Wilson 1927).",
  "Right answers and reinforcers a minute":
    "On a logarithmic axis equal steps are equal factors. The dashed line is the factor a week (celeration; Pennypacker, Gutierrez and Lindsley 2003).",
  "Right answers, added up":
    "Right answers against working time, breaks taken out: steeper is more often. Rings are reinforced ones (cumulative record; Ferster and Skinner 1957). Times written from memory are left out.",
  "With the handler": "One less the share of the working time it was away.",
  "Still there after":
    "Of stays that ended because it left; one long enough, or that the handler ended, is cut off there (Kaplan and Meier 1958, bars by Greenwood’s formula).",
  "Start of a session against the end of the one before": "Only where a session began on the rung the one before ended on.",
};

/** Ask by ask, with a line where a session ends. */
function chartsByAsk({ points }: OverWeeks) {
  let at = 0;
  const seams = points.map((point) => {
    at += point.trials.length;
    return at + 0.5;
  });
  return askCharts(
    points.flatMap((point) => point.trials),
    seams.slice(0, -1),
  );
}

/** Session by session: what there is to draw of each thing. */
function chartsBySession(horseId: string, over: OverWeeks, handlers: readonly string[]) {
  const { points } = over;
  return [
    rungChart(horseId, over, handlers),
    metChart(horseId, over),
    lightnessChart(horseId, over),
    over.half === null ? null : halfChart(horseId, over),
    ratesChart(horseId, over),
    cumulativeChart(over),
    points.some(({ meanEase }) => meanEase !== null) ? easeChart(horseId, over) : null,
    points.some(({ departures }) => departures > 0) ? connectedChart(horseId, over) : null,
    staysChart(over),
    signsChart(horseId, over),
    warmUpChart(horseId, over),
  ];
}

/** Each thing as a chart. */
export function WeekCharts({
  horseId,
  over,
  by,
  handlers,
}: {
  horseId: string;
  over: OverWeeks;
  by: "sessions" | "asks";
  /** Names of who handled, in the order they came. */
  handlers: readonly string[];
}) {
  const specs = (by === "asks" ? chartsByAsk(over) : chartsBySession(horseId, over, handlers)).filter((spec) => spec !== null);
  return (
    <div className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-9 lg:grid-cols-2">
      {specs.map((spec) => (
        <SeriesChart
          key={spec.title}
          spec={spec}
          level={2}
          help={HELP[spec.title] === undefined ? undefined : <How of={spec.title}>{HELP[spec.title]}</How>}
        />
      ))}
    </div>
  );
}
