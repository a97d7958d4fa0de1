import { memo } from "react";
import { readCompactRibbon } from "@/core/record";
import { layOutRibbon, type RibbonSign } from "./geometry";

const WIDTH = 560;
const HEIGHT = 84;
const RADIUS = 3.2;
/** Signs stand closer to the line than on a large ribbon, so that none is cut off. */
const SCALE = HEIGHT / 130;
const TOP = 13;

const round = (n: number) => Math.round(n * 10) / 10;

/** A sign as a piece of the one path of its kind. */
function signPath({ kind, x }: RibbonSign, slackY: number): string {
  const at = (y: number) => `M${x} ${round(y)}`;
  switch (kind) {
    case "mark":
      return `${at(TOP - 5.5)}l4.5 5.5l-4.5 5.5l-4.5-5.5z`;
    case "food":
      return `${at(slackY + 18 * SCALE)}h3`;
    case "reinforce":
      return `M${round(x - 7)} ${round(slackY + 18 * SCALE)}q3.5-5 7 0t7 0`;
    case "ease":
      return `M${round(x - 5.5)} ${round(slackY + 27 * SCALE - 3)}a5.5 6 0 0 0 11 0`;
    case "tension":
      return `M${round(x - 5.5)} ${round(TOP - 11 * SCALE + 4)}l5.5-9l5.5 9`;
    case "danger":
      return `M${round(x - 6)} 2h12L${x} ${slackY}z`;
  }
}

/** The paths of a ribbon in small: the same line as the large one, all marks of a kind in one path. */
export function layOutSmallRibbon(drawing: string) {
  const facts = readCompactRibbon(drawing);
  const { line, pressure, dotted, slackY, answers, bars, breaks, signs } = layOutRibbon(facts, {
    fromMs: 0,
    toMs: facts.endMs,
    width: WIDTH,
    height: HEIGHT,
  });
  const paths = { rings: "", halves: "", crosses: "", sides: "" };
  for (const { x, y, outcome, side } of answers) {
    if (outcome === "refused") continue;
    // A stroke of no length with round ends is a dot.
    paths.rings += `M${x} ${y}h0`;
    if (side !== null)
      paths.sides += side === "L" ? `M${round(x - 2.2)} ${round(y + 2.2)}l-4 4` : `M${round(x + 2.2)} ${round(y + 2.2)}l4 4`;
    if (outcome === "met") paths.halves += `M${x} ${round(y - RADIUS)}a3.2 3.2 0 0 1 0 6.4z`;
    if (outcome === "miss") paths.crosses += `M${round(x - 2.2)} ${round(y - 2.2)}l4.4 4.4m0-4.4l-4.4 4.4`;
  }
  const byKind: Record<RibbonSign["kind"], string> = { mark: "", food: "", reinforce: "", ease: "", tension: "", danger: "" };
  for (const sign of signs) byKind[sign.kind] += signPath(sign, slackY);
  return {
    ...paths,
    line,
    pressure,
    dotted,
    slackY,
    breaks,
    bars: bars.map(({ x, y }) => `M${x} ${round(y - 7)}v14`).join(""),
    signs: byKind,
  };
}

/** A session's ribbon in a list, from the drawing that is kept beside its sums. */
export const SmallRibbon = memo(function SmallRibbon({ drawing, label }: { drawing: string; label: string }) {
  const d = layOutSmallRibbon(drawing);
  const dot = { fill: "none", stroke: "var(--ink)", strokeLinecap: "round" } as const;
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} width={WIDTH} height={HEIGHT} className="block w-full" role="img" aria-label={label}>
      <path d={d.pressure} fill="var(--ochre-wash)" />
      {d.breaks.map((b) => (
        <g key={b.key}>
          <rect x={b.x} y={d.slackY - 10} width={b.width} height={20} fill="var(--ground)" />
          <text x={b.x + b.width / 2} y={d.slackY - 9} textAnchor="middle" fontSize="13" fill="var(--soft)">
            {b.width > 30 ? b.label : ""}
          </text>
        </g>
      ))}
      <path d={d.line} fill="none" stroke="var(--ink)" strokeWidth="var(--stroke)" strokeLinejoin="round" />
      {d.dotted !== "" && (
        <>
          <path d={d.dotted} stroke="var(--ground)" strokeWidth="5" fill="none" />
          <path d={d.dotted} stroke="var(--ink)" strokeWidth="2" strokeDasharray="2 5" fill="none" />
        </>
      )}
      <path d={d.bars} stroke="var(--ink)" strokeWidth="3" />
      <path d={d.signs.mark} fill="var(--tarn)" />
      <path d={d.signs.food} {...dot} stroke="var(--plum)" strokeWidth="6" />
      <path d={d.signs.reinforce} fill="none" stroke="var(--plum)" strokeWidth="2" />
      <path d={d.signs.ease} fill="none" stroke="var(--sage)" strokeWidth="2.2" />
      <path d={d.signs.tension} fill="none" stroke="var(--brick)" strokeWidth="2.2" />
      <path d={d.signs.danger} fill="var(--brick)" />
      <path d={d.sides} stroke="var(--ink)" strokeWidth="1.8" />
      <path d={d.rings} {...dot} strokeWidth={RADIUS * 2 + 1.8} />
      <path d={d.rings} {...dot} stroke="var(--paper)" strokeWidth={RADIUS * 2 - 1.8} />
      <path d={d.halves} fill="var(--ink)" />
      <path d={d.crosses} fill="none" stroke="var(--ink)" strokeWidth="1.8" />
    </svg>
  );
});
