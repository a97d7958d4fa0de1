"use client";

import { Chart as ChartJs, LinearScale, LineElement, PointElement, Tooltip } from "chart.js";
import { useEffect, useState } from "react";
import { Line } from "react-chartjs-2";

ChartJs.register(LinearScale, LineElement, PointElement, Tooltip);
ChartJs.defaults.font.family = '"Atkinson Hyperlegible Next Variable", sans-serif';
ChartJs.defaults.font.size = 13;

const readColours = () => {
  const style = getComputedStyle(document.documentElement);
  return {
    ink: style.getPropertyValue("--ink"),
    soft: style.getPropertyValue("--soft"),
    hair: style.getPropertyValue("--hair"),
    ochre: style.getPropertyValue("--ochre"),
    tarn: style.getPropertyValue("--tarn"),
  };
};

/** Share of all asks that had their right answer against seconds since the ask, as steps. */
export default function WaitingChart({
  steps,
  halfSeconds,
}: {
  steps: readonly (readonly [seconds: number, share: number])[];
  halfSeconds: number | null;
}) {
  const [colours, setColours] = useState(readColours);
  useEffect(() => {
    const watch = new MutationObserver(() => setColours(readColours()));
    watch.observe(document.documentElement, { attributeFilter: ["data-theme"] });
    return () => watch.disconnect();
  }, []);
  const data = [{ x: 0, y: 0 }, ...steps.map(([x, y]) => ({ x, y }))];
  return (
    <div className="relative h-40 min-w-0 overflow-hidden">
      <Line
        role="img"
        aria-label={
          halfSeconds === null
            ? "Share answered; fewer than half had their answer by the end."
            : `Share answered; half had their answer after ${halfSeconds.toFixed(1)} seconds.`
        }
        data={{
          datasets: [
            { data, stepped: "before", borderColor: colours.ochre, borderWidth: 3, pointRadius: 0 },
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
        }}
        options={{
          animation: false,
          maintainAspectRatio: false,
          plugins: { tooltip: { enabled: false } },
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
        }}
      />
    </div>
  );
}
