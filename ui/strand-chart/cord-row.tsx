import { memo } from "react";
import type { Strand, StrandValue } from "@/core/strands";
import { COLUMN, columnsAlike, cordPath, cordY, HEAD, heightsOf, LABEL, labelLines, ROW, type Shown, valueWords } from "./geometry";

interface CordRowProps {
  readonly strand: Strand;
  /** Its value on each rung, in order. */
  readonly values: readonly (StrandValue | undefined)[];
  /** Rungs, counted from 1, where this strand is part of a fault, and where another version said something else. */
  readonly faulty: readonly number[];
  readonly changed: readonly number[];
  readonly row: number;
  readonly shown: Shown;
}

const alike = <T,>(a: readonly T[], b: readonly T[]) => a.length === b.length && a.every((one, i) => one === b[i]);

/** One strand as a cord. It is drawn again only where it changed: a ladder of many rungs has to follow a drag. */
export const CordRow = memo(
  function CordRow({ strand, values, faulty, changed, row, shown }: CordRowProps) {
    const heights = heightsOf(strand, values);
    const d = cordPath(heights, shown);
    return (
      <svg
        viewBox={`0 0 ${LABEL + values.length * COLUMN} ${ROW}`}
        width={LABEL + values.length * COLUMN}
        height={ROW}
        aria-hidden="true"
        className="absolute left-0 isolate [contain:strict]"
        style={{ top: HEAD + row * ROW }}
      >
        <path d={d} fill="none" stroke="var(--ink)" strokeWidth="5.5" strokeLinecap="round" />
        <path d={d} fill="none" stroke="var(--ground)" strokeWidth="1.3" strokeDasharray="6 6" />
        {values.map((value, i) => {
          if (i < shown.first || i > shown.last) return null;
          const marked = changed.includes(i + 1);
          if (i > shown.first && values[i - 1] === value && !marked) return null;
          const fault = faulty.includes(i + 1);
          const words = valueWords(value);
          const { lines, size } = labelLines(words, columnsAlike(values, i) * COLUMN - 14);
          const y = cordY(heights[i] ?? 0) - 9;
          return (
            <text
              key={`${strand.id}-${i}`}
              x={LABEL + i * COLUMN + 10}
              y={y}
              fontSize={size}
              fontWeight={fault || marked ? 700 : 400}
              textDecoration={marked ? "underline" : undefined}
              fill={fault ? "var(--ochre)" : marked ? "var(--tarn)" : "var(--ink)"}
            >
              <title>{marked ? `${words}, changed` : words}</title>
              {lines.map((line, n) => (
                <tspan key={line} x={LABEL + i * COLUMN + 10} y={y - (lines.length - 1 - n) * size}>
                  {line}
                </tspan>
              ))}
            </text>
          );
        })}
      </svg>
    );
  },
  (a, b) =>
    a.strand === b.strand && a.row === b.row && alike(a.values, b.values) && alike(a.faulty, b.faulty) && alike(a.changed, b.changed),
);
