"use client";

import type { KeyboardEvent } from "react";
import { wilsonInterval } from "@/core/evidence";
import type { LadderPlan } from "@/core/ladder";
import { relativeHeights, type StepFault, type Strand, type StrandValue, shortNumber, stepFaults } from "@/core/strands";

/** Evidence of one rung, as the chart shows it. */
export interface ChartEvidence {
  readonly rung: number;
  readonly n: number;
  readonly met: number;
  readonly metAtLightest: number;
}

const LABEL = 118;
/** Eight rungs have to fit beside their reasons on a laptop. */
const COLUMN = 92;
const ROW = 82;
const HEAD = 44;
const RISE = 34;

const valueWords = (value: StrandValue | undefined) => (value === undefined ? "" : typeof value === "number" ? shortNumber(value) : value);

/** Cuts a label so that it stays inside its column; the full words are in the title. */
const shorten = (words: string) => (words.length > 13 ? `${words.slice(0, 12)}…` : words);

/** A cord through the row: level on each rung, bending from one to the next. */
function cordPath(heights: readonly number[], baseY: number): string {
  let d = "";
  heights.forEach((h, i) => {
    const y = baseY - h * RISE;
    const left = LABEL + i * COLUMN;
    const right = left + COLUMN;
    const before = i === 0 ? y : baseY - (heights[i - 1] as number) * RISE;
    if (i === 0) d += `M${left} ${y}`;
    else if (before !== y) d += ` C${left + 5} ${before} ${left - 3} ${y} ${left + 8} ${y}`;
    d += ` H${i === heights.length - 1 ? right : right - 8}`;
  });
  return d;
}

interface Heights {
  readonly strand: Strand;
  readonly heights: readonly number[];
}

function rowsOf(plan: LadderPlan): Heights[] {
  return plan.strands.map((strand) => {
    const values = plan.rungs.map((rung) => rung.values[strand.id]);
    try {
      return {
        strand,
        heights: relativeHeights(
          strand,
          values.map((v) => v ?? ""),
        ),
      };
    } catch {
      // A value being typed may not be of its strand yet: the cord lies flat until it is.
      return { strand, heights: values.map(() => 0) };
    }
  });
}

function faultsOf(plan: LadderPlan): StepFault[] {
  try {
    return stepFaults(
      plan.strands,
      plan.rungs.map((rung) => rung.values),
    );
  } catch {
    return [];
  }
}

/** The ladder laid out as a rope: rungs are columns, strands are cords, rising where it gets harder. */
export function StrandChart({
  plan,
  evidence,
  here,
  selected,
  onSelect,
  barred = [],
}: {
  plan: LadderPlan;
  evidence: readonly ChartEvidence[];
  /** The rung the horse is on, or null. */
  here: number | null;
  selected: number;
  onSelect: (rung: number) => void;
  /** Rungs that may not be worked today. */
  barred?: readonly number[];
}) {
  const rows = rowsOf(plan);
  const faults = faultsOf(plan);
  const width = LABEL + plan.rungs.length * COLUMN;
  const evidenceY = HEAD + rows.length * ROW;
  const height = evidenceY + 84;
  const onKey = (event: KeyboardEvent) => {
    const step = event.key === "ArrowRight" ? 1 : event.key === "ArrowLeft" ? -1 : 0;
    if (step === 0) return;
    event.preventDefault();
    onSelect(Math.min(plan.rungs.length, Math.max(1, selected + step)));
  };
  return (
    <div className="max-w-full overflow-x-auto" style={{ width }}>
      <div className="relative" style={{ width, height }}>
        <svg
          viewBox={`0 0 ${width} ${height}`}
          width={width}
          height={height}
          role="img"
          aria-label={`Ladder of ${plan.rungs.length} rungs over ${plan.strands.map((s) => s.name).join(", ")}`}
        >
          <rect x={LABEL + (selected - 1) * COLUMN} y={0} width={COLUMN} height={evidenceY + 50} fill="var(--paper)" />
          {plan.rungs.slice(1).map((_, i) => (
            <path
              key={`c${i + 1}`}
              d={`M${LABEL + (i + 1) * COLUMN} ${HEAD - 8} V${evidenceY + 46}`}
              stroke="var(--hair)"
              strokeDasharray="1 5"
              strokeWidth="1.5"
            />
          ))}
          {rows.map(({ strand, heights }, r) => {
            const baseY = HEAD + r * ROW + 62;
            const d = cordPath(heights, baseY);
            return (
              <g key={strand.id}>
                <text x="0" y={baseY - 14} fontWeight="700" fontSize="16" fill="var(--ink)">
                  <title>{strand.name}</title>
                  {strand.name.length > 14 ? `${strand.name.slice(0, 13)}…` : strand.name}
                </text>
                <text x="0" y={baseY + 3} fontSize="13" fill="var(--soft)">
                  {strand.unit}
                </text>
                <path d={d} fill="none" stroke="var(--ink)" strokeWidth="5.5" strokeLinecap="round" />
                <path d={d} fill="none" stroke="var(--ground)" strokeWidth="1.3" strokeDasharray="5 5" />
                {plan.rungs.map((rung, i) => {
                  const value = rung.values[strand.id];
                  if (i > 0 && plan.rungs[i - 1]?.values[strand.id] === value) return null;
                  const fault = faults.some((f) => f.rung === i + 1 && f.strandIds.includes(strand.id));
                  const words = valueWords(value);
                  return (
                    <text
                      key={`${strand.id}-${i}`}
                      x={LABEL + i * COLUMN + 10}
                      y={baseY - (heights[i] ?? 0) * RISE - 9}
                      fontSize="14"
                      fontWeight={fault ? 700 : 400}
                      fill={fault ? "var(--ochre)" : "var(--ink)"}
                    >
                      <title>{words}</title>
                      {shorten(words)}
                    </text>
                  );
                })}
              </g>
            );
          })}
          <text x="0" y={evidenceY + 22} fontWeight="700" fontSize="16" fill="var(--ink)">
            evidence
          </text>
          <text x="0" y={evidenceY + 40} fontSize="13" fill="var(--soft)">
            met, 95 %
          </text>
          {plan.rungs.map((_, i) => {
            const sum = evidence.find((e) => e.rung === i + 1);
            const left = LABEL + i * COLUMN + 10;
            const wide = COLUMN - 20;
            const interval = sum === undefined || sum.n === 0 ? null : wilsonInterval(sum.met, sum.n);
            return (
              <g key={`e${i}`}>
                <path d={`M${left} ${evidenceY + 16} h${wide}`} stroke="var(--hair)" strokeWidth="2" />
                {interval !== null && sum !== undefined && (
                  <>
                    <path
                      d={`M${left + interval[0] * wide} ${evidenceY + 16} H${left + interval[1] * wide}`}
                      stroke="var(--tarn)"
                      strokeOpacity="0.45"
                      strokeWidth="7"
                    />
                    <path d={`M${left + (sum.met / sum.n) * wide} ${evidenceY + 9} v14`} stroke="var(--tarn)" strokeWidth="4" />
                  </>
                )}
                <text x={left} y={evidenceY + 40} fontSize="13.5" fill="var(--ink)">
                  {sum === undefined || sum.n === 0 ? "–" : `${sum.met} of ${sum.n}`}
                  {sum !== undefined && sum.n > 0 && <title>{`${sum.metAtLightest} of them at the lightest cue`}</title>}
                </text>
              </g>
            );
          })}
          {here !== null && here <= plan.rungs.length && (
            <g transform={`translate(${LABEL + (here - 0.5) * COLUMN} ${evidenceY + 58})`}>
              <title>{`The horse is on rung ${here}`}</title>
              <path d="M-17 7 V2 C-17 -6 17 -6 17 2 V7 Z" fill="var(--tarn)" />
              <text y="22" textAnchor="middle" fontSize="13" fontWeight="700" fill="var(--tarn)">
                here
              </text>
            </g>
          )}
        </svg>
        <div role="radiogroup" aria-label="Rung" onKeyDown={onKey} className="absolute inset-0">
          {plan.rungs.map((_, i) => {
            const number = i + 1;
            const fault = faults.filter((f) => f.rung === number);
            return (
              // biome-ignore lint/a11y/useSemanticElements: the whole column is the target
              <button
                key={`r${i}`}
                type="button"
                role="radio"
                aria-checked={number === selected}
                aria-label={`Rung ${number}${barred.includes(number) ? ", not today" : ""}${fault.length > 0 ? `. ${fault.map((f) => f.sentence).join(" ")}` : ""}`}
                tabIndex={number === selected ? 0 : -1}
                ref={(element) => {
                  if (
                    element !== null &&
                    number === selected &&
                    element.parentElement?.contains(document.activeElement) &&
                    document.activeElement !== element
                  )
                    element.focus();
                }}
                onClick={() => onSelect(number)}
                className="absolute top-0 flex flex-col items-center rounded-sm pt-1 -outline-offset-4!"
                style={{ left: LABEL + i * COLUMN, width: COLUMN, height: evidenceY + 50 }}
              >
                <span
                  className={`font-head text-xl ${number === selected ? "font-bold text-tarn" : ""} ${barred.includes(number) ? "text-brick! line-through decoration-2" : ""}`}
                >
                  {number}
                </span>
                {fault.length > 0 && (
                  <svg viewBox="0 0 20 18" width="18" height="16" aria-hidden="true">
                    <path d="M10 17 V9 L3 2 M10 9 L17 2" fill="none" stroke="var(--ochre)" strokeWidth="3" strokeLinecap="round" />
                  </svg>
                )}
              </button>
            );
          })}
        </div>
      </div>
    </div>
  );
}
