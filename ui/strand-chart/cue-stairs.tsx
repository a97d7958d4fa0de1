import type { CuePhase } from "@/core/cues";
import { labelLines } from "./geometry";

/** The ask as stairs, from the lightest phase up. */
export function CueStairs({ phases }: { phases: readonly CuePhase[] }) {
  const width = 300;
  const step = width / phases.length;
  const rise = 22;
  const height = phases.length * rise + 30;
  let d = "";
  phases.forEach((_, i) => {
    const y = height - 24 - i * rise;
    d += i === 0 ? `M2 ${y} H${step}` : ` V${y} H${(i + 1) * step - 2}`;
  });
  // The lowest step's label hangs below it: where it takes two lines there is room for both.
  const room = Math.max(0, ...phases.map(({ label }, i) => (labelLines(label, step - 8, 13.5).lines.length - 1) * 15 - i * rise));
  return (
    <svg
      viewBox={`0 0 ${width} ${height + room}`}
      className="block w-full max-w-80"
      role="img"
      aria-label={`The ask: ${phases.map((p) => `${p.label}, ${p.dwellSeconds} s`).join("; ")}`}
    >
      <path d={d} fill="none" stroke="var(--ochre)" strokeWidth="4" />
      {phases.map((phase, i) => (
        <g key={i} transform={`translate(${i * step + 5} ${height - 24 - i * rise + 17})`}>
          <text fontSize={labelLines(phase.label, step - 8, 13.5).size} fill="var(--ink)">
            <title>{`${phase.label}, ${phase.profile}, ${phase.dwellSeconds} s`}</title>
            {labelLines(phase.label, step - 8, 13.5).lines.map((line, n) => (
              <tspan key={line} x="0" dy={n === 0 ? 0 : "1em"}>
                {line}
              </tspan>
            ))}
          </text>
        </g>
      ))}
    </svg>
  );
}
