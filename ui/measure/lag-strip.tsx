import { scaleLinear } from "d3-scale";

/** Lags as dots on a line of seconds, with the limit: late ones are hollow, so colour is not needed to tell. */
export function LagStrip({ lags, limitSeconds }: { lags: readonly number[]; limitSeconds: number }) {
  const most = Math.max(limitSeconds * 2.2, ...lags) * 1.05;
  const least = Math.min(0, ...lags);
  const width = 340;
  const x = scaleLinear([least, most], [8, width - 8]);
  const used: number[][] = [];
  const dots = [...lags]
    .sort((a, b) => a - b)
    .map((lag) => {
      const at = x(lag);
      let row = used.findIndex((row) => row.every((other) => Math.abs(other - at) > 8));
      if (row < 0) row = used.push([]) - 1;
      used[row]?.push(at);
      return { at, row, late: lag > limitSeconds };
    });
  const height = 44 + Math.max(0, used.length - 3) * 9;
  const base = height - 12;
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className="block w-full"
      role="img"
      aria-label={`${lags.length} lags, ${dots.filter((d) => d.late).length} over ${limitSeconds} seconds`}
    >
      <path d={`M0 ${base + 6} H${width}`} stroke="var(--ink)" strokeWidth="1.5" />
      <path d={`M${x(limitSeconds)} 4 V${base + 10}`} stroke="var(--brick)" strokeWidth="2" />
      <text x={x(limitSeconds) + 5} y="13" fontSize="13" fill="var(--brick)">
        {limitSeconds} s
      </text>
      {dots.map((dot, i) => (
        <circle
          key={`${i}-${dot.at}`}
          cx={dot.at}
          cy={base - dot.row * 9}
          r="3.6"
          fill={dot.late ? "var(--ground)" : "var(--ink)"}
          stroke={dot.late ? "var(--brick)" : "var(--ink)"}
          strokeWidth="2"
        />
      ))}
    </svg>
  );
}
