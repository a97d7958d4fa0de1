"use client";

import { memo, useMemo, useRef } from "react";
import type { LadderPlan } from "@/core/ladder";
import type { Strand } from "@/core/strands";
import { type CordEditing, CordHandle } from "./cord-handle";
import { CordRow } from "./cord-row";
import { type ChartEvidence, EvidenceRow } from "./evidence-row";
import { COLUMN, HEAD, heightsOf, LABEL, ROW } from "./geometry";
import { type RungHeadFacts, RungHeads } from "./rung-heads";
import { useFaults } from "./use-faults";
import { useShown } from "./use-shown";

/** What another version of the ladder said, for the chart to show. */
export interface ChartChanges {
  /** For each rung: the rung it is unchanged from, or null. */
  readonly from: readonly (number | null)[];
  /** For each rung: ids of the strands that differ. */
  readonly changed: readonly (readonly string[])[];
}

const NONE: readonly number[] = [];

/** What stands under a rung's number when two versions are compared. */
function comparedWords({ from, changed }: ChartChanges, number: number, strands: number): string | null {
  const old = from[number - 1];
  if (old === undefined) return null;
  if (old !== null) return old === number ? null : `was ${old}`;
  const differ = changed[number - 1]?.length ?? 0;
  return differ === 0 ? null : differ === strands ? "new" : "changed";
}

/** The strands' names, which stay in sight while the ladder is scrolled. */
const Names = memo(function Names({ strands, height, evidence }: { strands: readonly Strand[]; height: number; evidence: boolean }) {
  const lines = [
    ...strands.map(({ id, name, unit }) => ({ id, name, unit })),
    ...(evidence ? [{ id: "evidence of a rung", name: "evidence", unit: "met, 95 %" }] : []),
  ];
  return (
    <div
      aria-hidden="true"
      className="pointer-events-none sticky left-0 z-10 bg-ground"
      style={{ width: LABEL - 4, height, marginBottom: -height }}
    >
      {lines.map(({ id, name, unit }, row) => (
        <p key={id} title={name} className="absolute leading-tight" style={{ top: HEAD + row * ROW + (row === strands.length ? 6 : 33) }}>
          <strong className="block leading-none break-words">{name}</strong>
          <span className="text-[0.8rem] text-soft">{unit}</span>
        </p>
      ))}
    </div>
  );
});

/** What lies under the cords: the lines between the rungs, the evidence, and where the horse is. */
const Ground = memo(function Ground({
  rungs,
  strands,
  evidence,
  here,
  width,
  height,
  columnEnd,
}: {
  rungs: number;
  strands: readonly Strand[];
  evidence: readonly ChartEvidence[] | undefined;
  here: number | null;
  width: number;
  height: number;
  columnEnd: number;
}) {
  const evidenceY = HEAD + strands.length * ROW;
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width={width}
      height={height}
      role="img"
      aria-label={`Ladder of ${rungs} rungs over ${strands.map((s) => s.name).join(", ")}`}
      className="relative isolate"
    >
      <path
        d={Array.from({ length: rungs - 1 }, (_, i) => `M${LABEL + (i + 1) * COLUMN} ${HEAD - 8} V${columnEnd - 4}`).join(" ")}
        stroke="var(--hair)"
        strokeOpacity="0.6"
        strokeWidth="1"
        shapeRendering="crispEdges"
      />
      {evidence !== undefined && <EvidenceRow rungs={rungs} evidence={evidence} y={evidenceY} />}
      {here !== null && here <= rungs && (
        <g transform={`translate(${LABEL + (here - 0.5) * COLUMN} ${evidenceY + 58})`}>
          <title>{`The horse is on rung ${here}`}</title>
          <path d="M-17 7 V2 C-17 -6 17 -6 17 2 V7 Z" fill="var(--tarn)" />
          <text y="22" textAnchor="middle" fontSize="13" fontWeight="700" fill="var(--tarn)">
            here
          </text>
        </g>
      )}
    </svg>
  );
});

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
  const scroller = useRef<HTMLDivElement>(null);
  const { shown, onScroll } = useShown(scroller, rungs.length, selected);
  const faults = useFaults(strands, rungs);
  const kept = rungs.map((rung) => rung.kept ?? "").join("\n");
  const heads = useMemo(() => {
    const reasons = kept.split("\n");
    return reasons.map((reason, i): RungHeadFacts => {
      const number = i + 1;
      const own = faults.filter((f) => f.rung === number);
      const compared = changes === undefined ? null : comparedWords(changes, number, strands.length);
      const closed = barred.includes(number);
      return {
        number,
        barred: closed,
        compared,
        fault: own.length === 0 ? "none" : reason === "" ? "open" : "kept",
        words: [
          `Rung ${number}${closed ? ", not today" : ""}${compared === null ? "" : `, ${compared}`}`,
          ...own.map((f) => f.sentence),
          ...(reason === "" || own.length === 0 ? [] : [`Kept: ${reason}`]),
        ].join(". "),
      };
    });
  }, [faults, kept, changes, barred, strands.length]);
  const width = LABEL + rungs.length * COLUMN;
  const evidenceY = HEAD + strands.length * ROW;
  const withEvidence = evidence !== undefined;
  const columnEnd = evidenceY + (withEvidence ? 50 : 6);
  const height = evidenceY + (withEvidence ? 84 : 10);
  return (
    <div ref={scroller} onScroll={onScroll} className="max-w-full overflow-x-auto [contain:content]" style={{ width }}>
      <div className="relative [contain:strict]" style={{ width, height }}>
        <Names strands={strands} height={height} evidence={withEvidence} />
        <span
          aria-hidden="true"
          className="absolute top-0 left-0 bg-paper"
          style={{ transform: `translateX(${LABEL + (selected - 1) * COLUMN}px)`, width: COLUMN, height: columnEnd }}
        />
        <Ground
          rungs={rungs.length}
          strands={strands}
          evidence={evidence}
          here={here}
          width={width}
          height={height}
          columnEnd={columnEnd}
        />
        {strands.map((strand, row) => (
          <CordRow
            key={strand.id}
            strand={strand}
            row={row}
            shown={shown}
            values={rungs.map(({ values }) => values[strand.id])}
            faulty={faults.filter(({ strandIds }) => strandIds.includes(strand.id)).map(({ rung }) => rung)}
            changed={changes === undefined ? NONE : changes.changed.flatMap((ids, i) => (ids.includes(strand.id) ? [i + 1] : []))}
          />
        ))}
        <RungHeads heads={heads} selected={selected} height={editing === undefined ? columnEnd : undefined} onSelect={onSelect} />
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
