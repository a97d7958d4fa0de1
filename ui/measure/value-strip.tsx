import type { BarPart, PercentileBar } from "@/core/evidence";
import { shortNumber } from "@/core/strands";

const WIDTH = 280;
const EDGE = 14;

/** The bar in words: one value with how often an equal one counts, or two values with the weight of each. */
function barWords({ used, parts }: PercentileBar, unit: string, harder: "more" | "less"): string {
  if (used === 0) return "No values yet: any answer earns it.";
  const [first, second] = parts;
  const say = (part: BarPart, onEqual: number) => {
    if (part.criterion === null) return part.rank <= 0 ? "any answer" : "none";
    const value = `${harder} than ${shortNumber(part.criterion)}${unit === "" ? "" : ` ${unit}`}`;
    return onEqual >= 1
      ? value.replace(`${harder} than `, "").concat(` or ${harder}`)
      : `${value}, an equal one ${Math.round(onEqual * 100)} times in 100`;
  };
  if (first === undefined) return "";
  if (second === undefined) return `Earns it: ${say(first, first.onEqual)}.`;
  if (first.criterion !== null && first.criterion === second.criterion)
    return `Earns it: ${say(first, first.weight * first.onEqual + second.weight * second.onEqual)}.`;
  return `Earns it ${Math.round(first.weight * 100)} times in 100: ${say(first, first.onEqual)}. Otherwise: ${say(second, second.onEqual)}.`;
}

/** The horse's last values as a strip, oldest first, with the bar the next one has to beat and the goal. */
export function ValueStrip({
  values,
  bar,
  unit,
  harder,
  goal = null,
  height = 62,
  words = true,
}: {
  values: readonly number[];
  bar: PercentileBar;
  unit: string;
  harder: "more" | "less";
  goal?: number | null;
  height?: number;
  /** Whether the bar is told beneath the strip. */
  words?: boolean;
}) {
  const bars = [...new Set(bar.parts.flatMap(({ criterion }) => (criterion === null ? [] : [criterion])))];
  const all = [...values, ...bars, ...(goal === null ? [] : [goal])];
  const low = Math.min(...all, 0);
  const high = Math.max(...all, low + 1e-9);
  const y = (value: number) => {
    const share = high === low ? 0.5 : (value - low) / (high - low);
    return height - 8 - (harder === "more" ? share : 1 - share) * (height - 16);
  };
  const step = values.length <= 1 ? 0 : (WIDTH - 2 * EDGE) / (values.length - 1);
  const suffix = unit === "" ? "" : ` ${unit}`;
  return (
    <div>
      <svg
        viewBox={`0 0 ${WIDTH} ${height}`}
        className="block w-full max-w-80"
        role="img"
        aria-label={`Last values, oldest first: ${values.map(shortNumber).join(", ") || "none"}${suffix}`}
      >
        {goal !== null && (
          <path d={`M0 ${y(goal)} H${WIDTH}`} stroke="var(--sage)" strokeWidth="2" strokeDasharray="2 5">
            <title>{`goal ${shortNumber(goal)}${suffix}`}</title>
          </path>
        )}
        {bars.map((value) => (
          <path key={value} d={`M0 ${y(value)} H${WIDTH}`} stroke="var(--ochre)" strokeWidth="2.5">
            <title>{`bar ${shortNumber(value)}${suffix}`}</title>
          </path>
        ))}
        {values.map((value, i) => (
          <circle key={`${i}-${value}`} cx={EDGE + i * step} cy={y(value)} r="5" fill="var(--ground)" stroke="var(--ink)" strokeWidth="2.5">
            <title>{`${shortNumber(value)}${suffix}`}</title>
          </circle>
        ))}
      </svg>
      {words && <p className="text-sm">{barWords(bar, unit, harder)}</p>}
    </div>
  );
}
