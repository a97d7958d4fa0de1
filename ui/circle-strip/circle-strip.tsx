/** One stretch of the strip. */
export interface StripStretch {
  readonly gait: string;
  readonly side: "L" | "R";
  readonly seconds: number;
  /** False where it is what the plan says and nobody tapped. */
  readonly seen?: boolean;
}

const WIDTH = 420;
const HEIGHT = 112;
const MIDDLE = HEIGHT / 2;
const STEP: Readonly<Record<string, number>> = { stand: 5, walk: 20, trot: 35, canter: 50 };
const stepOf = (gait: string) => STEP[gait] ?? 28;
/** Narrower than this, in units of the drawing, a word does not fit. */
const WORD_WIDTH = 38;

const minutesWords = (seconds: number) => {
  const minutes = seconds / 60;
  return minutes >= 10 ? `${Math.round(minutes)}` : `${Math.round(minutes * 10) / 10}`;
};

/** What the strip shows, in words. @example stripWords([{ gait: "walk", side: "L", seconds: 120 }]) // "walk left 2 min" */
export const stripWords = (stretches: readonly StripStretch[]): string =>
  stretches.map(({ gait, side, seconds }) => `${gait} ${side === "L" ? "left" : "right"} ${minutesWords(seconds)} min`).join(", ");

/**
 * Work on the circle on one line of time: the left hand stands above the line,
 * the right hand hangs below it, and a faster gait reaches farther from it.
 */
export function CircleStrip({
  stretches,
  nowSeconds = null,
  label,
  longestSeconds = 0,
}: {
  stretches: readonly StripStretch[];
  /** Where the clock stands, where it runs. */
  nowSeconds?: number | null;
  label: string;
  /** So that two strips under each other share a scale. */
  longestSeconds?: number;
}) {
  const total = Math.max(
    1,
    longestSeconds,
    stretches.reduce((sum, { seconds }) => sum + seconds, 0),
  );
  const x = (seconds: number) => (seconds / total) * WIDTH;
  let at = 0;
  const drawn = stretches.map((stretch) => {
    const from = x(at);
    at += stretch.seconds;
    const height = stepOf(stretch.gait);
    return { ...stretch, from, width: x(stretch.seconds), top: stretch.side === "L" ? MIDDLE - height : MIDDLE, height };
  });
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="block h-auto w-full" role="img" aria-label={`${label}: ${stripWords(stretches)}`}>
      {drawn.map(({ from, width, top, height, gait, side, seconds, seen }, i) => (
        <g key={i}>
          <rect
            x={from}
            y={top}
            width={Math.max(0.5, width)}
            height={height}
            fill={side === "L" ? "var(--tarn-wash)" : "var(--sage-wash)"}
            stroke="var(--ink)"
            strokeWidth={1.5}
            strokeDasharray={seen === false ? "5 4" : undefined}
          />
          {width > WORD_WIDTH && (
            <text
              x={from + width / 2}
              y={side === "L" ? MIDDLE - 6 : MIDDLE + 15}
              textAnchor="middle"
              fontSize={13}
              fontWeight={600}
              fill="var(--ink)"
            >
              {height >= 20 ? `${gait} ${minutesWords(seconds)}` : ""}
            </text>
          )}
        </g>
      ))}
      <line x1={0} x2={WIDTH} y1={MIDDLE} y2={MIDDLE} stroke="var(--ink)" strokeWidth={2.5} />
      {nowSeconds !== null && (
        <g>
          <line x1={x(nowSeconds)} x2={x(nowSeconds)} y1={4} y2={HEIGHT - 4} stroke="var(--brick)" strokeWidth={4} />
        </g>
      )}
    </svg>
  );
}
