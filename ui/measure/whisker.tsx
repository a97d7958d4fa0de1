import type { Interval } from "@/core/evidence";

/** A share with its interval on a line from 0 to 1. The number stands beside it in words; this only shows how wide it is. */
export function Whisker({
  share,
  interval,
  goal,
  width = 200,
  height = 18,
}: {
  share: number | null;
  interval: Interval | null;
  goal?: number;
  width?: number;
  height?: number;
}) {
  const middle = height / 2;
  return (
    <svg viewBox={`0 0 ${width} ${height}`} width={width} height={height} className="block max-w-full" aria-hidden="true">
      <path d={`M0 ${middle} H${width}`} stroke="var(--hair)" strokeWidth="2" />
      {interval !== null && (
        <path
          d={`M${interval[0] * width} ${middle} H${interval[1] * width}`}
          stroke="var(--tarn)"
          strokeOpacity="0.45"
          strokeWidth={height * 0.4}
        />
      )}
      {goal !== undefined && <path d={`M${goal * width} ${height * 0.15} V${height * 0.85}`} stroke="var(--ink)" strokeWidth="1.5" />}
      {share !== null && <path d={`M${share * width} 1 V${height - 1}`} stroke="var(--tarn)" strokeWidth="4" />}
    </svg>
  );
}
