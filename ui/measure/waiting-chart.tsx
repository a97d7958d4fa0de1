"use client";

import { type ChartData, Chart as ChartJs, type ChartOptions } from "chart.js";
import { useMemo } from "react";
import { type Drawn, LiveChart } from "../chart/live-chart";
import { type Colours, useColours } from "../chart/use-colours";

ChartJs.defaults.font.family = '"Atkinson Hyperlegible Next Variable", sans-serif';
ChartJs.defaults.font.size = 13;

type Step = readonly [seconds: number, share: number];

const dataOf = (steps: readonly Step[], halfSeconds: number | null, colours: Colours): ChartData<Drawn> => ({
  datasets: [
    {
      data: [{ x: 0, y: 0 }, ...steps.map(([x, y]) => ({ x, y }))],
      stepped: "before",
      borderColor: colours.ochre,
      borderWidth: 3,
      pointRadius: 0,
    },
    {
      data:
        halfSeconds === null
          ? []
          : [
              { x: 0, y: 0.5 },
              { x: halfSeconds, y: 0.5 },
              { x: halfSeconds, y: 0 },
            ],
      borderColor: colours.tarn,
      borderDash: [4, 4],
      borderWidth: 1.5,
      pointRadius: 0,
    },
  ],
});

const optionsOf = (colours: Colours): ChartOptions<Drawn> => ({
  animation: false,
  maintainAspectRatio: false,
  scales: {
    x: {
      type: "linear",
      min: 0,
      title: { display: true, text: "seconds since the ask", color: colours.soft },
      ticks: { color: colours.soft, maxTicksLimit: 6 },
      grid: { display: false },
      border: { color: colours.ink },
    },
    y: {
      type: "linear",
      min: 0,
      max: 1,
      title: { display: true, text: "answered", color: colours.soft },
      ticks: { color: colours.soft, stepSize: 0.5, callback: (v) => `${Math.round(Number(v) * 100)} %` },
      grid: { display: false },
      border: { color: colours.ink },
    },
  },
});

/** Share of all asks that had their right answer against seconds since the ask, as steps. */
export default function WaitingChart({ steps, halfSeconds }: { steps: readonly Step[]; halfSeconds: number | null }) {
  const colours = useColours();
  const data = useMemo(() => dataOf(steps, halfSeconds, colours), [steps, halfSeconds, colours]);
  const options = useMemo(() => optionsOf(colours), [colours]);
  return (
    <div className="relative h-40 min-w-0 overflow-hidden">
      <LiveChart
        role="img"
        aria-label={
          halfSeconds === null
            ? "Share answered; fewer than half had their answer by the end."
            : `Share answered; half had their answer after ${halfSeconds.toFixed(1)} seconds.`
        }
        data={data}
        options={options}
      />
    </div>
  );
}
