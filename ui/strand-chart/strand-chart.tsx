"use client";

import { type KeyboardEvent, useMemo } from "react";
import type { LadderPlan, Rung } from "@/core/ladder";
import { type StepFault, type Strand, stepFaults } from "@/core/strands";
import { type CordEditing, CordHandle } from "./cord-handle";
import { CordRow } from "./cord-row";
import { type ChartEvidence, EvidenceRow } from "./evidence-row";
import { COLUMN, HEAD, heightsOf, LABEL, ROW } from "./geometry";

/** What another version of the ladder said, for the chart to show. */
export interface ChartChanges {
  /** For each rung: the rung it is unchanged from, or null. */
  readonly from: readonly (number | null)[];
  /** For each rung: ids of the strands that differ. */
  readonly changed: readonly (readonly string[])[];
}

const NONE: readonly number[] = [];

function faultsOf(strands: readonly Strand[], rungs: readonly Rung[]): StepFault[] {
  try {
    return stepFaults(
      strands,
      rungs.map((rung) => rung.values),
    );
  } catch {
    return [];
  }
}

const SPLIT_MARK = "M10 17 V9 L3 2 M10 9 L17 2";

/** What stands under a rung's number when two versions are compared. */
function comparedWords({ from, changed }: ChartChanges, number: number, strands: number): string | null {
  const old = from[number - 1];
  if (old === undefined) return null;
  if (old !== null) return old === number ? null : `was ${old}`;
  const differ = changed[number - 1]?.length ?? 0;
  return differ === 0 ? null : differ === strands ? "new" : "changed";
}

/** The ladder laid out as a rope: rungs are columns, strands are cords, rising where it gets harder. */
export function StrandChart({
  plan,
  evidence,
  here = null,
  selected,
  onSelect,
  barred = NONE,
  editing,
  changes,
}: {
  plan: Pick<LadderPlan, "strands" | "rungs">;
  /** Left out where there is no horse to have any. */
  evidence?: readonly ChartEvidence[];
  /** The rung the horse is on, or null. */
  here?: number | null;
  selected: number;
  onSelect: (rung: number) => void;
  /** Rungs that may not be worked today. */
  barred?: readonly number[];
  /** Where given, each cord can be taken hold of. */
  editing?: CordEditing;
  changes?: ChartChanges;
}) {
  const { strands, rungs } = plan;
  const faults = useMemo(() => faultsOf(strands, rungs), [strands, rungs]);
  const width = LABEL + rungs.length * COLUMN;
  const evidenceY = HEAD + strands.length * ROW;
  const withEvidence = evidence !== undefined;
  const columnEnd = evidenceY + (withEvidence ? 50 : 6);
  const height = evidenceY + (withEvidence ? 84 : 10);
  const onKey = (event: KeyboardEvent) => {
    const step = event.key === "ArrowRight" ? 1 : event.key === "ArrowLeft" ? -1 : 0;
    if (step === 0) return;
    event.preventDefault();
    onSelect(Math.min(rungs.length, Math.max(1, selected + step)));
  };
  return (
    <div className="max-w-full overflow-x-auto" style={{ width }}>
      <div className="relative" style={{ width, height }}>
        <svg
          viewBox={`0 0 ${width} ${height}`}
          width={width}
          height={height}
          role="img"
          aria-label={`Ladder of ${rungs.length} rungs over ${strands.map((s) => s.name).join(", ")}`}
        >
          <rect x={LABEL + (selected - 1) * COLUMN} y={0} width={COLUMN} height={columnEnd} fill="var(--paper)" />
          <path
            d={rungs
              .slice(1)
              .map((_, i) => `M${LABEL + (i + 1) * COLUMN} ${HEAD - 8} V${columnEnd - 4}`)
              .join(" ")}
            stroke="var(--hair)"
            strokeDasharray="1 5"
            strokeWidth="1.5"
          />
          {strands.map((strand, row) => (
            <CordRow
              key={strand.id}
              strand={strand}
              row={row}
              values={rungs.map(({ values }) => values[strand.id])}
              faulty={faults.filter(({ strandIds }) => strandIds.includes(strand.id)).map(({ rung }) => rung)}
              changed={changes === undefined ? NONE : changes.changed.flatMap((ids, i) => (ids.includes(strand.id) ? [i + 1] : []))}
            />
          ))}
          {withEvidence && <EvidenceRow rungs={rungs.length} evidence={evidence} y={evidenceY} />}
          {here !== null && here <= rungs.length && (
            <g transform={`translate(${LABEL + (here - 0.5) * COLUMN} ${evidenceY + 58})`}>
              <title>{`The horse is on rung ${here}`}</title>
              <path d="M-17 7 V2 C-17 -6 17 -6 17 2 V7 Z" fill="var(--tarn)" />
              <text y="22" textAnchor="middle" fontSize="13" fontWeight="700" fill="var(--tarn)">
                here
              </text>
            </g>
          )}
        </svg>
        <div role="radiogroup" aria-label="Rung" onKeyDown={onKey} className="absolute inset-x-0 top-0">
          {rungs.map((rung, i) => {
            const number = i + 1;
            const fault = faults.filter((f) => f.rung === number);
            const compared = changes === undefined ? null : comparedWords(changes, number, strands.length);
            const words = [
              `Rung ${number}${barred.includes(number) ? ", not today" : ""}${compared === null ? "" : `, ${compared}`}`,
              ...fault.map((f) => f.sentence),
              ...(rung.kept === undefined ? [] : [`Kept: ${rung.kept}`]),
            ];
            return (
              // biome-ignore lint/a11y/useSemanticElements: the whole column is the target
              <button
                key={`r${i}`}
                type="button"
                role="radio"
                aria-checked={number === selected}
                aria-label={words.join(". ")}
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
                style={{ left: LABEL + i * COLUMN, width: COLUMN, height: editing === undefined ? columnEnd : HEAD + 4 }}
              >
                <span
                  className={`font-head text-xl ${number === selected ? "font-bold text-tarn" : ""} ${barred.includes(number) ? "text-brick! line-through decoration-2" : ""}`}
                >
                  {number}
                </span>
                {compared !== null && <span className="text-xs leading-none text-tarn">{compared}</span>}
                {fault.length > 0 && (
                  <svg viewBox="0 0 20 18" width="18" height="16" aria-hidden="true">
                    <path
                      d={SPLIT_MARK}
                      fill="none"
                      stroke="var(--ochre)"
                      strokeWidth="3"
                      strokeLinecap="round"
                      strokeDasharray={rung.kept === undefined ? undefined : "2 5"}
                    />
                  </svg>
                )}
              </button>
            );
          })}
        </div>
        {editing !== undefined &&
          strands.map((strand, row) => (
            <CordHandle
              key={strand.id}
              strand={strand}
              row={row}
              rungs={rungs.length}
              selected={selected}
              value={rungs[selected - 1]?.values[strand.id]}
              height={
                heightsOf(
                  strand,
                  rungs.map(({ values }) => values[strand.id]),
                )[selected - 1] ?? 0
              }
              editing={editing}
            />
          ))}
      </div>
    </div>
  );
}
