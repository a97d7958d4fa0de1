import { memo } from "react";
import type { RibbonFacts } from "@/core/record";
import { layOutRibbon, type RibbonSign, type RibbonView } from "./geometry";
import { OutcomeSign } from "./outcome-sign";

function Sign({ sign, slackY, top, scale }: { sign: RibbonSign; slackY: number; top: number; scale: number }) {
  const at = (y: number) => `translate(${sign.x} ${y})`;
  switch (sign.kind) {
    case "mark":
      return <path transform={at(top)} d="M0 -5.5 L4.5 0 L0 5.5 L-4.5 0 Z" fill="var(--tarn)" />;
    case "food":
      return <ellipse transform={at(slackY + 18 * scale)} rx="4.6" ry="3" fill="var(--plum)" />;
    case "reinforce":
      return <path transform={at(slackY + 18 * scale)} d="M-7 0 Q-3.5 -5 0 0 T7 0" fill="none" stroke="var(--plum)" strokeWidth="2" />;
    case "ease":
      return (
        <path transform={at(slackY + 27 * scale)} d="M-5.5 -3 A5.5 6 0 0 0 5.5 -3" fill="none" stroke="var(--sage)" strokeWidth="2.2" />
      );
    case "tension":
      return <path transform={at(top - 11 * scale)} d="M-5.5 4 L0 -5 L5.5 4" fill="none" stroke="var(--brick)" strokeWidth="2.2" />;
    case "danger":
      return <path transform={at(slackY)} d={`M-6 ${-slackY + 2} H6 L0 0 Z`} fill="var(--brick)" />;
  }
}

/** The session as a line: slack low, pressure high, answers on it, reinforcers beside it. */
export const Ribbon = memo(function Ribbon({
  record,
  view,
  label,
  radius = 5,
}: {
  record: RibbonFacts;
  view: RibbonView;
  label: string;
  radius?: number;
}) {
  const drawing = layOutRibbon(record, view);
  // A thumbnail draws its signs closer to the line so that none is cut off.
  const scale = Math.min(1, view.height / 130);
  const top = Math.max(13, view.height * 0.1);
  return (
    <svg
      viewBox={`0 0 ${view.width} ${view.height}`}
      width={view.width}
      height={view.height}
      className="block w-full"
      role="img"
      aria-label={label}
    >
      <path d={drawing.pressure} fill="var(--ochre-wash)" />
      {drawing.breaks.map((b) => (
        <g key={b.key}>
          <rect x={b.x} y={drawing.slackY - 10} width={b.width} height={20} fill="var(--ground)" />
          <text x={b.x + b.width / 2} y={drawing.slackY - 9} textAnchor="middle" fontSize="13" fill="var(--soft)">
            {b.width > 30 ? b.label : ""}
          </text>
        </g>
      ))}
      <path d={drawing.line} fill="none" stroke="var(--ink)" strokeWidth="var(--stroke)" strokeLinejoin="round" />
      {drawing.wrongs.map(({ key, x, width, title }) => (
        <path
          key={key}
          d={`M${x} ${drawing.slackY + 4} v9 h${width} v-9`}
          fill="none"
          stroke="var(--ochre)"
          strokeWidth="2.5"
          strokeDasharray="4 2"
        >
          <title>{title}</title>
        </path>
      ))}
      {drawing.dotted !== "" && (
        <>
          <path d={drawing.dotted} stroke="var(--ground)" strokeWidth="5" fill="none" />
          <path d={drawing.dotted} stroke="var(--ink)" strokeWidth="2" strokeDasharray="2 5" fill="none" />
        </>
      )}
      {drawing.bars.map((bar) => (
        <path key={bar.key} d={`M${bar.x} ${bar.y - 7} v14`} stroke="var(--ink)" strokeWidth="3" />
      ))}
      {drawing.signs.map((sign) => (
        <g key={sign.key}>
          <title>{sign.title}</title>
          <Sign sign={sign} slackY={drawing.slackY} top={top} scale={scale} />
        </g>
      ))}
      {drawing.answers.map((answer) => (
        <g key={answer.key} transform={`translate(${answer.x} ${answer.y})`} color="var(--ink)">
          <title>{answer.title}</title>
          {answer.side !== null && answer.outcome !== "refused" && (
            <path
              d={answer.side === "L" ? `M${-radius * 0.7} ${radius * 0.7} l-4 4` : `M${radius * 0.7} ${radius * 0.7} l4 4`}
              stroke="currentColor"
              strokeWidth="1.8"
            />
          )}
          {answer.outcome !== "refused" && <OutcomeSign outcome={answer.outcome} radius={radius} stroke={1.8} />}
        </g>
      ))}
    </svg>
  );
});
