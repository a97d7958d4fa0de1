"use client";

import { type KeyboardEvent, type PointerEvent, useRef } from "react";
import { PLACE_ITEM_WORDS, type PlaceItem, type PlaceOutline, putInside } from "@/core/place";

/** The drawing is in centimetres of the place, so that strokes and letters can be set in parts of its size. */
const CENTIMETRES = 100;

/** A rounder figure for the scale bar: 1, 2 or 5 times a power of ten, about a fifth of the length. */
export function scaleMetres(lengthMetres: number): number {
  const wanted = lengthMetres / 5;
  const power = 10 ** Math.floor(Math.log10(wanted));
  const step = [1, 2, 5, 10].find((n) => n * power >= wanted * 0.8) ?? 10;
  return step * power;
}

interface PlanProps {
  readonly outline: PlaceOutline;
  readonly items: readonly PlaceItem[];
  readonly label: string;
  /** How dark each item is filled, 0 to 1: the relief map's share of time under pressure. Items that are not named are left plain. */
  readonly shade?: Readonly<Record<string, number>>;
  /** Written under an item's name. */
  readonly notes?: Readonly<Record<string, string>>;
  readonly selected?: number | null;
  readonly onSelect?: (index: number) => void;
  /** Makes the items movable: by dragging, or with the arrow keys a tenth of a metre at a time (with Shift a whole one). */
  readonly onMove?: (index: number, item: PlaceItem) => void;
  readonly scaleWords: (metres: number) => string;
  /** Letters that fit across the longest side: fewer for a small drawing. */
  readonly letters?: number;
}

const SHAPES: Partial<Record<PlaceItem["kind"], "ring" | "dot">> = { post: "ring", companion: "dot" };

/** How large things are drawn: the whole, a line, a letter. */
interface Sizes {
  readonly width: number;
  readonly height: number;
  readonly line: number;
  readonly letter: number;
}

/** One zone or object with its name, and what is written under it. */
function ItemShape({
  item,
  sizes: { width, height, line, letter },
  dark,
  on,
  note,
}: {
  item: PlaceItem;
  sizes: Sizes;
  /** How dark it is filled, 0 to 1; left out for plain. */
  dark: number | undefined;
  /** Whether it is chosen. */
  on: boolean;
  note: string | undefined;
}) {
  const within = (x: number, words: string) => {
    const half = letter * words.length * 0.26;
    return Math.min(Math.max(x, half), Math.max(half, width - half));
  };
  const x = item.xMetres * CENTIMETRES;
  const y = item.yMetres * CENTIMETRES;
  const across = item.acrossMetres * CENTIMETRES;
  const downwards = item.downMetres * CENTIMETRES;
  const kind = SHAPES[item.kind];
  // A label that would not fit stands beside its item, towards the middle of the place.
  const lines = note === undefined ? 1 : 2;
  const fits = downwards > letter * (lines + 0.3);
  const firstLine = fits
    ? y - (lines - 1) * letter * 0.5 + letter * 0.32
    : y > height / 2
      ? y - downwards / 2 - letter * (lines - 0.65)
      : y + downwards / 2 + letter;
  const common = {
    fill: dark === undefined ? "var(--ground)" : "var(--ochre)",
    fillOpacity: dark === undefined ? 1 : 0.1 + 0.75 * dark,
    stroke: on ? "var(--tarn)" : "var(--ink)",
    strokeWidth: on ? line * 2.6 : line,
    strokeDasharray: item.kind === "zone" || item.kind === "corner" ? `${line * 4} ${line * 3}` : undefined,
  };
  return (
    <>
      {kind === undefined ? (
        <rect x={x - across / 2} y={y - downwards / 2} width={across} height={downwards} rx={line * 2} {...common} />
      ) : (
        <ellipse cx={x} cy={y} rx={across / 2} ry={downwards / 2} {...common} />
      )}
      <text textAnchor="middle" fontSize={letter} fill="var(--ink)" stroke="var(--paper)" strokeWidth={letter * 0.22} paintOrder="stroke">
        <tspan x={within(x, item.name)} y={firstLine}>
          {item.name}
        </tspan>
        {note !== undefined && (
          <tspan x={within(x, note)} y={firstLine + letter} fontSize={letter * 0.9}>
            {note}
          </tspan>
        )}
      </text>
    </>
  );
}

/** Items chosen and moved: by dragging, or with the arrow keys. */
function useMoving(outline: PlaceOutline, items: readonly PlaceItem[], { onSelect, onMove }: Pick<PlanProps, "onSelect" | "onMove">) {
  const box = useRef<SVGSVGElement>(null);
  const dragging = useRef<{ index: number; dx: number; dy: number } | null>(null);
  const metresAt = (event: PointerEvent) => {
    const svg = box.current;
    const matrix = svg?.getScreenCTM();
    if (svg === null || matrix == null) return null;
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    return { x: point.x / CENTIMETRES, y: point.y / CENTIMETRES };
  };
  const down = (event: PointerEvent<SVGGElement>, index: number) => {
    onSelect?.(index);
    const at = metresAt(event);
    const item = items[index];
    if (onMove === undefined || at === null || item === undefined) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    dragging.current = { index, dx: at.x - item.xMetres, dy: at.y - item.yMetres };
  };
  const move = (event: PointerEvent) => {
    const drag = dragging.current;
    const at = drag === null ? null : metresAt(event);
    const item = drag === null ? undefined : items[drag.index];
    if (drag === null || at === null || item === undefined) return;
    onMove?.(drag.index, putInside(outline, { ...item, xMetres: at.x - drag.dx, yMetres: at.y - drag.dy }));
  };
  const up = () => {
    dragging.current = null;
  };
  const key = (event: KeyboardEvent, index: number) => {
    const item = items[index];
    const step = event.shiftKey ? 1 : 0.1;
    const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[event.key];
    if (event.key === "Enter" || event.key === " ") onSelect?.(index);
    else if (by !== undefined && item !== undefined && onMove !== undefined)
      onMove(index, putInside(outline, { ...item, xMetres: item.xMetres + (by[0] ?? 0), yMetres: item.yMetres + (by[1] ?? 0) }));
    else return;
    event.preventDefault();
  };

  return { box, down, move, up, key };
}

/** A place from above, to scale, with its zones and objects. */
export function PlacePlan({
  outline,
  items,
  label,
  shade = {},
  notes = {},
  selected = null,
  onSelect,
  onMove,
  scaleWords,
  letters = 26,
}: PlanProps) {
  const { box, down, move, up, key } = useMoving(outline, items, { onSelect, onMove });
  const { lengthMetres, widthMetres, shape } = outline;
  const width = lengthMetres * CENTIMETRES;
  const height = widthMetres * CENTIMETRES;
  const size = Math.max(width, height);
  const line = size / 280;
  const letter = size / letters;
  const pad = size * 0.04;
  const scale = scaleMetres(lengthMetres);
  const still = onSelect === undefined && onMove === undefined;
  return (
    <svg
      ref={box}
      viewBox={`${-pad} ${-pad} ${width + 2 * pad} ${height + 2 * pad + letter * 1.9}`}
      className="h-auto max-h-[62vh] w-full"
      role={still ? "img" : "group"}
      aria-label={label}
    >
      {shape === "round" ? (
        <circle cx={width / 2} cy={height / 2} r={width / 2} fill="var(--paper)" stroke="var(--ink)" strokeWidth={line * 1.6} />
      ) : (
        <rect width={width} height={height} fill="var(--paper)" stroke="var(--ink)" strokeWidth={line * 1.6} />
      )}
      {items.map((item, i) => {
        const note = notes[item.name];
        const on = selected === i;
        const body = <ItemShape item={item} sizes={{ width, height, line, letter }} dark={shade[item.name]} on={on} note={note} />;
        if (still) return <g key={`${i}-${item.name}`}>{body}</g>;
        return (
          // biome-ignore lint/a11y/useSemanticElements: a shape in a drawing cannot be an HTML button
          <g
            key={i}
            role="button"
            tabIndex={0}
            aria-pressed={on}
            aria-label={`${item.name}, ${PLACE_ITEM_WORDS[item.kind]}${note === undefined ? "" : `, ${note}`}`}
            onPointerDown={(event) => down(event, i)}
            onPointerMove={move}
            onPointerUp={up}
            onPointerCancel={up}
            onKeyDown={(event) => key(event, i)}
            className="cursor-pointer touch-none outline-none [&:focus-visible>:first-child]:[stroke-width:0.6rem] [&:focus-visible>:first-child]:[stroke:var(--tarn)]"
          >
            {body}
          </g>
        );
      })}
      <g>
        <path
          d={`M0 ${height + pad + letter * 0.7} h${scale * CENTIMETRES} m0 ${-letter * 0.3} v${letter * 0.6} M0 ${height + pad + letter * 0.4} v${letter * 0.6}`}
          stroke="var(--ink)"
          strokeWidth={line}
          fill="none"
        />
        <text x={scale * CENTIMETRES + letter * 0.5} y={height + pad + letter * 1.05} fontSize={letter} fill="var(--soft)">
          {scaleWords(scale)}
        </text>
      </g>
    </svg>
  );
}
