import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import type { Recovery } from "@/core/welfare";

const WIDTH = 320;
const HEIGHT = 120;
const LEFT = 34;
const BOTTOM = 20;
const TOP = 10;

/** Breathing after work against the horse's own resting rate, with the fall fitted to it. */
export function RecoveryCurve({ recovery, restingPerMinute }: { recovery: Recovery; restingPerMinute: number | null }) {
  const { readings, halfTimeMinutes, startPerMinute } = recovery;
  const first = readings[0];
  if (first === undefined) return null;
  const minutes = readings.map(({ wallMs }) => (wallMs - first.wallMs) / 60_000);
  const until = Math.max(2, ...minutes) * 1.15;
  const most = Math.max(...readings.map(({ perMinute }) => perMinute), restingPerMinute ?? 0, startPerMinute ?? 0) * 1.1;
  const x = scaleLinear([0, until], [LEFT + 10, WIDTH - 8]);
  const y = scaleLinear([0, most], [HEIGHT - BOTTOM, TOP]);
  const fitted =
    halfTimeMinutes === null || startPerMinute === null || restingPerMinute === null
      ? null
      : line<number>(x, (at) => y(restingPerMinute + (startPerMinute - restingPerMinute) * 2 ** (-at / halfTimeMinutes)))(x.ticks(40));
  const words = readings
    .map(({ perMinute }, i) => `${Math.round(perMinute)} a minute after ${(minutes[i] ?? 0).toFixed(1)} min`)
    .join(", ");
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="figures w-full" role="img" aria-label={`Breathing: ${words}.`}>
      <path d={`M${LEFT} ${TOP}V${HEIGHT - BOTTOM}H${WIDTH - 8}`} fill="none" stroke="var(--ink)" strokeWidth="1.5" />
      {restingPerMinute !== null && (
        <>
          <path d={`M${LEFT} ${y(restingPerMinute)}H${WIDTH - 8}`} stroke="var(--sage)" strokeWidth="2" strokeDasharray="6 4" />
          {/* Under the line, where no reading lies. */}
          <text x={LEFT + 6} y={y(restingPerMinute) + 13} fontSize="11" fill="var(--sage)">
            resting {Math.round(restingPerMinute)}
          </text>
        </>
      )}
      {fitted !== null && <path d={fitted} fill="none" stroke="var(--tarn)" strokeWidth="2" />}
      {readings.map(({ wallMs, perMinute }, i) => (
        <g key={wallMs}>
          <circle cx={x(minutes[i] ?? 0)} cy={y(perMinute)} r="4.5" fill="var(--paper)" stroke="var(--ink)" strokeWidth="2" />
          <text x={x(minutes[i] ?? 0) + 7} y={y(perMinute) - 5} fontSize="11" fill="var(--ink)">
            {Math.round(perMinute)}
          </text>
        </g>
      ))}
      <text x={LEFT - 5} y={HEIGHT - BOTTOM} textAnchor="end" fontSize="11" fill="var(--soft)">
        0
      </text>
      <text x={LEFT - 5} y={TOP + 8} textAnchor="end" fontSize="11" fill="var(--soft)">
        {Math.round(most)}
      </text>
      <text x={WIDTH - 8} y={HEIGHT - 5} textAnchor="end" fontSize="11" fill="var(--soft)">
        {until.toFixed(0)} min
      </text>
    </svg>
  );
}
