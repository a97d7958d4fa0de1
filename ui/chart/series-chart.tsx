"use client";

import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { type KeyboardEvent, type ReactNode, useRef, useState } from "react";
import { ScrollBox } from "../scroll-box";
import { chartCsv, saveFile, savePicture } from "./save";
import type { ChartPoint, ChartSpec } from "./spec";

const ChartCanvas = dynamic(() => import("./canvas"), { ssr: false, loading: () => <div className="h-full" /> });

const xWords = (spec: ChartSpec, { x }: ChartPoint) =>
  spec.x.kind === "day"
    ? new Date(x).toLocaleDateString(undefined, { weekday: "short", day: "numeric", month: "short", year: "numeric" })
    : String(x);

/** A point as a sentence: when, what each line says there, and what was special. */
function pointWords(spec: ChartSpec, index: number): string {
  const point = spec.points[index];
  if (point === undefined) return "";
  const said = spec.series.flatMap(({ name, words }) => {
    const word = words[index];
    return word === null || word === undefined ? [] : [spec.series.length > 1 ? `${name} ${word}` : word];
  });
  return [`${xWords(spec, point)}: ${said.length === 0 ? "nothing" : said.join("; ")}`, ...(point.marks ?? [])].join(" · ");
}

function Numbers({ spec }: { spec: ChartSpec }) {
  return (
    <ScrollBox label={spec.title} className="mt-2 max-h-80 overflow-y-auto">
      <table className="figures text-left text-[0.95rem]">
        <thead className="text-sm text-soft">
          <tr>
            {[spec.x.title, ...spec.series.map(({ name }) => name), "what was special"].map((head) => (
              <th key={head} scope="col" className="py-1 pr-6 font-normal whitespace-nowrap">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {spec.points.map((point, i) => (
            <tr key={i} className="border-t border-hair *:py-1">
              <th scope="row" className="pr-6 font-normal whitespace-nowrap">
                {point.href === undefined ? (
                  xWords(spec, point)
                ) : (
                  <a href={point.href} className="link">
                    {xWords(spec, point)}
                  </a>
                )}
              </th>
              {spec.series.map(({ name, words }) => (
                <td key={name} className="pr-6 whitespace-nowrap">
                  {words[i] ?? "–"}
                </td>
              ))}
              <td className="text-soft">{(point.marks ?? []).join(", ")}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </ScrollBox>
  );
}

const DASHES = { line: "", steps: "", points: "3 5", ticks: "1.5 5", dashes: "6 4" } as const;

/**
 * A chart in our own notation: open rings on a line, the interval as a bar
 * behind, a mark under a session that was special. Arrow keys or the pointer
 * move along it, Enter opens the session; the numbers stand under it as a
 * table, and it can be saved as a picture or as a file.
 */
export function SeriesChart({
  spec,
  help,
  level = 3,
  children,
}: {
  spec: ChartSpec;
  help?: ReactNode;
  /** Of its heading: one below that of the part it stands in. */
  level?: 2 | 3;
  children?: ReactNode;
}) {
  const Title = `h${level}` as const;
  const router = useRouter();
  const [at, setAt] = useState<number | null>(null);
  const [table, setTable] = useState(false);
  const canvas = useRef<HTMLCanvasElement | null>(null);
  const most = spec.points.length - 1;
  const onKey = (event: KeyboardEvent) => {
    const to = {
      ArrowRight: Math.min(most, (at ?? -1) + 1),
      ArrowLeft: Math.max(0, (at ?? most + 1) - 1),
      Home: 0,
      End: most,
    }[event.key];
    if (event.key === "Enter" && at !== null && spec.points[at]?.href !== undefined) router.push(spec.points[at].href);
    if (to === undefined) return;
    event.preventDefault();
    setAt(to);
  };
  return (
    <figure className="min-w-0">
      <figcaption className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <Title className="text-lg">{spec.title}</Title>
        {spec.series.length > 1 &&
          spec.series.map(({ name, colour, style }) => (
            <span key={name} className="flex items-center gap-1.5 text-sm text-soft">
              <svg width="26" height="8" aria-hidden="true">
                <path d="M0 4 H26" stroke={`var(--${colour})`} strokeWidth="3" strokeDasharray={DASHES[style]} />
              </svg>
              {name}
            </span>
          ))}
        {help}
      </figcaption>
      {children}
      {/* biome-ignore lint/a11y/useSemanticElements: a drawing that takes keys is no fieldset */}
      <div
        role="group"
        aria-label={`${spec.title}, ${spec.points.length} points; arrow keys move along it, Enter opens one`}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: keys move along the chart
        tabIndex={0}
        onKeyDown={onKey}
        onPointerLeave={() => setAt(null)}
        className="relative mt-1 h-56 min-w-0 overflow-hidden"
      >
        <ChartCanvas
          spec={spec}
          at={at}
          onPoint={(index) => setAt((now) => (now === index ? now : index))}
          onCanvas={(made) => {
            canvas.current = made;
          }}
        />
      </div>
      <p className="figures min-h-[1.5em] text-sm" aria-live="polite">
        {at === null ? "" : pointWords(spec, at)}
      </p>
      <p className="no-print flex flex-wrap gap-x-5 gap-y-1 text-sm">
        <button type="button" className="link" aria-expanded={table} onClick={() => setTable(!table)}>
          Numbers<span className="sr-only"> of {spec.title}</span>
        </button>
        <button type="button" className="link" onClick={() => savePicture(canvas.current, spec.title)}>
          Picture<span className="sr-only"> of {spec.title}</span>
        </button>
        <button
          type="button"
          className="link"
          onClick={() => void chartCsv(spec).then((text) => saveFile(text, `${spec.title}.csv`, "text/csv"))}
        >
          File<span className="sr-only"> of {spec.title}</span>
        </button>
      </p>
      {table && <Numbers spec={spec} />}
    </figure>
  );
}
