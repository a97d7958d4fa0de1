"use client";

import { type ChartData, Chart as ChartJs, type ChartOptions, LogarithmicScale, ScatterController } from "chart.js";
import { useMemo, useRef } from "react";
import { type Drawn, LiveChart, type Overlay } from "./live-chart";
import type { ChartSpec } from "./spec";
import { type Colours, useColours } from "./use-colours";

ChartJs.register(LogarithmicScale, ScatterController);

const FONT = { family: '"Atkinson Hyperlegible Next Variable", sans-serif', size: 13 };
/** Room under the axis for the marks of points that were special. */
const MARK_ROOM = 9;

/** Intervals as bars behind the rings, marks under the axis, seams with their words, and where the reader is. */
const overlayOf = (spec: ChartSpec, colours: Colours, at: number | null): Overlay => ({
  beforeDatasetsDraw({ ctx, scales, chartArea }) {
    const { x, y } = scales;
    if (x === undefined || y === undefined) return;
    ctx.save();
    ctx.lineCap = "butt";
    for (const { x: at, label } of spec.seams ?? []) {
      const px = x.getPixelForValue(at);
      ctx.strokeStyle = colours.hair;
      ctx.lineWidth = 1.5;
      ctx.setLineDash([3, 3]);
      ctx.beginPath();
      ctx.moveTo(px, chartArea.top);
      ctx.lineTo(px, chartArea.bottom);
      ctx.stroke();
      ctx.setLineDash([]);
      ctx.fillStyle = colours.soft;
      ctx.font = `12px ${FONT.family}`;
      ctx.textAlign = px > (chartArea.left + chartArea.right) / 2 ? "right" : "left";
      ctx.fillText(label, px + (ctx.textAlign === "left" ? 4 : -4), chartArea.top + 10);
    }
    for (const series of spec.series) {
      ctx.strokeStyle = colours[series.colour];
      ctx.globalAlpha = 0.35;
      ctx.lineWidth = 6;
      for (const [i, point] of spec.points.entries()) {
        const low = series.low?.[i];
        const high = series.high?.[i];
        if (low == null || high == null) continue;
        const px = x.getPixelForValue(point.x);
        ctx.beginPath();
        ctx.moveTo(px, Math.min(chartArea.bottom, y.getPixelForValue(low)));
        ctx.lineTo(px, Math.max(chartArea.top, y.getPixelForValue(high)));
        ctx.stroke();
      }
      ctx.globalAlpha = 1;
    }
    const reader = at === null ? undefined : spec.points[at];
    if (reader !== undefined) {
      const px = x.getPixelForValue(reader.x);
      ctx.strokeStyle = colours.ink;
      ctx.lineWidth = 1;
      ctx.beginPath();
      ctx.moveTo(px, chartArea.top);
      ctx.lineTo(px, chartArea.bottom);
      ctx.stroke();
    }
    ctx.restore();
  },
  afterDatasetsDraw({ ctx, scales, chartArea }) {
    const { x } = scales;
    if (x === undefined) return;
    ctx.save();
    ctx.fillStyle = colours.ink;
    for (const point of spec.points) {
      if ((point.marks ?? []).length === 0) continue;
      const px = x.getPixelForValue(point.x);
      ctx.beginPath();
      ctx.moveTo(px, chartArea.bottom + 2);
      ctx.lineTo(px - 4, chartArea.bottom + MARK_ROOM);
      ctx.lineTo(px + 4, chartArea.bottom + MARK_ROOM);
      ctx.fill();
    }
    ctx.restore();
  },
});

function dataOf(spec: ChartSpec, colours: Colours): ChartData<Drawn> {
  const many = spec.points.length > 120;
  return {
    datasets: spec.series.map(({ values, colour, style }, order) => ({
      type: style === "points" || style === "ticks" ? ("scatter" as const) : ("line" as const),
      data: spec.points.flatMap(({ x }, i) => {
        const y = values[i];
        return y == null ? [] : [{ x, y }];
      }),
      borderColor: colours[colour],
      // Open rings, as answers stand on the ribbon; a second line has filled ones.
      backgroundColor: order === 0 ? colours.paper : colours[colour],
      borderWidth: style === "points" ? 1.5 : many ? 2 : 2.5,
      borderDash: style === "dashes" ? [6, 4] : [],
      stepped: style === "steps" ? ("before" as const) : false,
      pointRadius: style === "dashes" ? 0 : style === "ticks" ? 4.5 : many ? (style === "points" ? 1.6 : 0) : style === "points" ? 3 : 4,
      pointHoverRadius: 5,
      pointBorderWidth: style === "ticks" ? 1.5 : 2,
      pointRotation: style === "ticks" ? 55 : 0,
      pointStyle: style === "ticks" ? "line" : order === 0 ? "circle" : order === 1 ? "rectRot" : "triangle",
      clip: false as const,
    })),
  };
}

/** A day on the axis, in the reader's own words. */
const dayText = (ms: number) => new Date(ms).toLocaleDateString(undefined, { day: "numeric", month: "short" });

/** Numbers of 1, 2 and 5 with their tens that hold a stretch between them. */
function roundsBetween(least: number, most: number): number[] {
  const all: number[] = [];
  for (let power = -4; power <= 6; power++) for (const one of [1, 2, 5]) all.push(one * 10 ** power);
  const from = all.findLastIndex((one) => one <= least);
  const to = all.findIndex((one) => one >= most);
  return from < 0 || to < 0 ? [] : all.slice(from, Math.max(to, from + 1) + 1);
}

function optionsOf(spec: ChartSpec, colours: Colours): ChartOptions<Drawn> {
  const { x, y, points } = spec;
  const xs = points.map((point) => point.x);
  const [first, last] = [Math.min(...xs), Math.max(...xs)];
  const air = (last - first) * 0.02 || (x.kind === "day" ? 43_200_000 : 0.5);
  // Where equal steps are equal factors, the axis runs from one of 1, 2 and 5 to another, and these are its numbers.
  const told = y.log ? (spec.series.flatMap(({ values }) => values.filter((value) => value !== null && value > 0)) as number[]) : [];
  const rounds = y.log && told.length > 0 ? roundsBetween(Math.min(...told), Math.max(...told)) : [];
  const axis = (title: string) => ({
    title: { display: true, text: title, color: colours.soft, font: FONT },
    grid: { display: false },
    border: { color: colours.ink },
  });
  const ticks = { color: colours.soft, font: FONT };
  return {
    animation: false,
    maintainAspectRatio: false,
    layout: { padding: { top: 6, right: 8 } },
    plugins: { legend: { display: false } },
    scales: {
      x: {
        type: "linear",
        min: first - air,
        max: last + air,
        ...axis(x.title),
        ticks: {
          ...ticks,
          maxTicksLimit: 6,
          maxRotation: 0,
          padding: MARK_ROOM,
          includeBounds: false,
          callback: (value) => (x.kind === "day" ? dayText(Number(value)) : String(Math.round(Number(value) * 10) / 10)),
        },
      },
      y: {
        type: y.log ? "logarithmic" : "linear",
        min: rounds[0] ?? y.least,
        max: rounds.at(-1) ?? y.most,
        ...(rounds.length === 0
          ? {}
          : {
              afterBuildTicks: (scale: { ticks: { value: number }[] }) => {
                scale.ticks = rounds.map((value) => ({ value }));
              },
            }),
        ...axis(y.title),
        ticks: {
          ...ticks,
          maxTicksLimit: 6,
          ...(y.whole ? { precision: 0 } : {}),
          callback: (value) => (y.percent ? `${Math.round(Number(value) * 100)} %` : String(Math.round(Number(value) * 1000) / 1000)),
        },
      },
    },
  };
}

/** The chart itself. It is redrawn with the theme; what it shows stands in words beside it, so it is hidden from readers. */
export default function ChartCanvas({
  spec,
  at,
  onPoint,
  onCanvas,
}: {
  spec: ChartSpec;
  at: number | null;
  onPoint: (index: number) => void;
  onCanvas: (canvas: HTMLCanvasElement | null) => void;
}) {
  const colours = useColours();
  const hovered = useRef(onPoint);
  hovered.current = onPoint;
  const data = useMemo(() => dataOf(spec, colours), [spec, colours]);
  const options = useMemo(
    (): ChartOptions<Drawn> => ({
      ...optionsOf(spec, colours),
      onHover: ({ x }, _, chart) => {
        const value = x === null ? undefined : chart.scales.x?.getValueForPixel(x);
        if (value === undefined) return;
        let best = 0;
        for (const [i, point] of spec.points.entries())
          if (Math.abs(point.x - value) < Math.abs((spec.points[best]?.x ?? 0) - value)) best = i;
        hovered.current(best);
      },
    }),
    [spec, colours],
  );
  const overlay = useMemo(() => overlayOf(spec, colours, at), [spec, colours, at]);
  return <LiveChart aria-hidden="true" data={data} options={options} overlay={overlay} onCanvas={onCanvas} />;
}
