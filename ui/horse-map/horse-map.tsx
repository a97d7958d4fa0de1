"use client";

import { type KeyboardEvent, useId, useRef } from "react";
import { TOUCH_ZONES, type TouchZone, type ZoneState } from "@/core/know";
import { HORSE_PARTS, type HorsePart, PART_HEIGHT_PX } from "./parts";
import { EYE, FAR_LEGS, MANE, MAP_HEIGHT, MAP_WIDTH, ZONE_MIDDLES, ZONE_PATHS } from "./shapes";

/** How one zone is drawn. */
export interface MapZone {
  readonly state: ZoneState | "off limits";
  /** Said after the zone's name: the tool, the grade, when. */
  readonly words: string;
}

/** Fill patterns: the states differ in black and white too. */
function Patterns({ id }: { id: string }) {
  return (
    <defs>
      <pattern id={`${id}-unsure`} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="7" height="7" fill="var(--ochre-wash)" />
        <path d="M0 0 V7" stroke="var(--ochre)" strokeWidth="2" />
      </pattern>
      <pattern id={`${id}-worrying`} width="6" height="6" patternUnits="userSpaceOnUse">
        <rect width="6" height="6" fill="var(--paper)" />
        <path d="M0 0 L6 6 M6 0 L0 6" stroke="var(--brick)" strokeWidth="1.7" />
      </pattern>
      <pattern id={`${id}-off-limits`} width="5" height="5" patternUnits="userSpaceOnUse">
        <rect width="5" height="5" fill="var(--ground)" />
        <circle cx="2.5" cy="2.5" r="1" fill="var(--ink)" />
      </pattern>
    </defs>
  );
}

const fillOf = (state: MapZone["state"], id: string) => {
  if (state === "accepted") return "var(--sage-wash)";
  if (state === "untouched") return "var(--paper)";
  return `url(#${id}-${state.replace(" ", "-")})`;
};

/**
 * One side of the horse with its zones. Where `onZone` is given each zone is a
 * button: Tab reaches the map, the arrow keys walk the zones from the nose back.
 * With `part` that part alone is shown, each of its zones as large as a thumb.
 */
export function HorseMap({
  side,
  zones,
  selected = null,
  proposed = null,
  part = null,
  onZone,
  label,
}: {
  side: "L" | "R";
  zones: Readonly<Record<TouchZone, MapZone>>;
  selected?: TouchZone | null;
  proposed?: TouchZone | null;
  part?: HorsePart | null;
  onZone?: (zone: TouchZone) => void;
  label: string;
}) {
  const id = useId().replace(/[^a-zA-Z0-9]/g, "");
  const box = useRef<SVGSVGElement>(null);
  const walked: readonly TouchZone[] = part === null ? TOUCH_ZONES : HORSE_PARTS[part].zones;
  const stop = [selected, proposed, "shoulder" as const].find((zone) => zone !== null && walked.includes(zone)) ?? walked[0];
  const onKey = (event: KeyboardEvent, zone: TouchZone) => {
    const step =
      event.key === "ArrowRight" || event.key === "ArrowDown" ? 1 : event.key === "ArrowLeft" || event.key === "ArrowUp" ? -1 : 0;
    if (event.key === "Enter" || event.key === " ") onZone?.(zone);
    else if (step !== 0) {
      const next = walked[(walked.indexOf(zone) + step + walked.length) % walked.length];
      box.current?.querySelector<SVGGElement>(`[data-zone="${next}"]`)?.focus();
    } else return;
    event.preventDefault();
  };
  const [left, top, width, height] = part === null ? ([20, 6, MAP_WIDTH - 40, MAP_HEIGHT - 4] as const) : HORSE_PARTS[part].box;
  // Strong outlines go on top, or a neighbour drawn later would cover half of them.
  const order = [...TOUCH_ZONES].sort((a, b) => Number(a === proposed || a === selected) - Number(b === proposed || b === selected));
  return (
    <svg
      ref={box}
      viewBox={`${side === "R" ? MAP_WIDTH - left - width : left} ${top} ${width} ${height}`}
      className="h-auto w-full"
      style={part === null ? undefined : { height: PART_HEIGHT_PX }}
      role={onZone === undefined ? "img" : "group"}
      aria-label={label}
    >
      <Patterns id={id} />
      <g transform={side === "R" ? `translate(${MAP_WIDTH} 0) scale(-1 1)` : undefined} strokeLinejoin="round">
        {FAR_LEGS.map((d) => (
          <path key={d} d={d} fill="var(--hair)" opacity="0.55" />
        ))}
        {order.map((zone) => {
          const { state, words } = zones[zone];
          const strong = zone === selected || zone === proposed;
          const shape = (
            <path
              d={ZONE_PATHS[zone]}
              fill={fillOf(state, id)}
              stroke={strong ? "var(--tarn)" : "var(--ink)"}
              strokeWidth={strong ? 4.5 : 1.5}
              vectorEffect="non-scaling-stroke"
              strokeDasharray={zone === proposed && zone !== selected ? "7 4" : undefined}
            />
          );
          if (onZone === undefined || !walked.includes(zone))
            return (
              <g key={zone} opacity={part === null ? 1 : 0.45}>
                {shape}
              </g>
            );
          return (
            // biome-ignore lint/a11y/useSemanticElements: a shape in a drawing cannot be an HTML button
            <g
              key={zone}
              role="button"
              tabIndex={zone === stop ? 0 : -1}
              data-zone={zone}
              aria-label={`${side === "L" ? "left" : "right"} ${zone}: ${words}${zone === proposed ? ", next" : ""}`}
              aria-pressed={zone === selected}
              onClick={() => onZone(zone)}
              onKeyDown={(event) => onKey(event, zone)}
              className="cursor-pointer outline-none [&:focus-visible>path]:stroke-[6px] [&:focus-visible>path]:[stroke:var(--tarn)]"
            >
              {shape}
              {/* Small zones of the whole horse take the press round them too. */}
              {part === null && <circle cx={ZONE_MIDDLES[zone][0]} cy={ZONE_MIDDLES[zone][1]} r="9" fill="transparent" />}
            </g>
          );
        })}
        <path d={MANE} fill="var(--ink)" opacity="0.85" pointerEvents="none" />
        <circle cx={EYE[0]} cy={EYE[1]} r="2.8" fill="var(--ink)" stroke="var(--paper)" strokeWidth="1.4" pointerEvents="none" />
      </g>
    </svg>
  );
}

const LEGEND = [
  ["accepted", "accepted"],
  ["unsure", "unsure"],
  ["worrying", "worrying"],
  ["untouched", "not touched"],
  ["off limits", "off limits"],
] as const;

/** What the patterns mean. */
export function MapLegend() {
  const id = useId().replace(/[^a-zA-Z0-9]/g, "");
  return (
    <ul className="flex flex-wrap gap-x-5 gap-y-1 text-sm text-soft">
      {LEGEND.map(([state, words]) => (
        <li key={state} className="flex items-center gap-1.5">
          <svg width="20" height="14" viewBox="0 0 20 14" aria-hidden="true">
            <Patterns id={`${id}${state.length}`} />
            <rect x="1" y="1" width="18" height="12" fill={fillOf(state, `${id}${state.length}`)} stroke="var(--ink)" strokeWidth="1.3" />
          </svg>
          {words}
        </li>
      ))}
    </ul>
  );
}
