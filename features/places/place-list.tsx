"use client";

import Link from "next/link";
import { outlineOf, type PlaceOutline, type PlaceShape } from "@/core/place";
import { counted } from "@/core/words";
import { lengthWords, useUnits } from "@/ui/units";

export interface PlaceLine {
  readonly id: string;
  readonly name: string;
  readonly shape: PlaceShape;
  readonly length_m: number | null;
  readonly width_m: number | null;
  readonly footing: string;
  readonly fence: string;
  readonly items: number;
}

const OUTLINE = 64;

/** A place's outline in small, all places to one scale so that a pen looks small beside a field. */
function Outline({ outline, largest }: { outline: PlaceOutline; largest: number }) {
  const scale = (OUTLINE - 4) / largest;
  const width = outline.lengthMetres * scale;
  const height = outline.widthMetres * scale;
  const common = { fill: "var(--paper)", stroke: "var(--ink)", strokeWidth: 2 };
  return (
    <svg width={OUTLINE} height={OUTLINE} viewBox={`0 0 ${OUTLINE} ${OUTLINE}`} aria-hidden="true" className="shrink-0">
      {outline.shape === "round" ? (
        <circle cx={OUTLINE / 2} cy={OUTLINE / 2} r={width / 2} {...common} />
      ) : (
        <rect x={(OUTLINE - width) / 2} y={(OUTLINE - height) / 2} width={width} height={height} {...common} />
      )}
    </svg>
  );
}

/** Every place of the yard. */
export function PlaceList({ places }: { places: readonly PlaceLine[] }) {
  const units = useUnits();
  const drawn = places.map((place) => ({ place, outline: outlineOf(place.shape, place.length_m, place.width_m) }));
  const largest = Math.max(1, ...drawn.flatMap(({ outline }) => (outline === null ? [] : [outline.lengthMetres, outline.widthMetres])));
  return (
    <>
      <div className="flex flex-wrap items-baseline justify-between gap-4">
        <h1 className="text-[2rem]">Places</h1>
        <Link href="/places/new" className="act">
          Add a place
        </Link>
      </div>
      {places.length === 0 ? (
        <p className="mt-4 max-w-prose text-lg">
          Draw the pens and fields you work in, to scale, with their zones. At work one tap then says where the horse is.
        </p>
      ) : (
        <ul className="mt-5 border-b-2 border-hair">
          {drawn.map(({ place, outline }) => (
            <li key={place.id} className="flex items-center gap-5 border-t-2 border-hair py-3.5">
              {outline === null ? (
                <span className="w-16 text-center text-sm text-soft">not drawn</span>
              ) : (
                <Outline outline={outline} largest={largest} />
              )}
              <div>
                <Link href={`/places/${place.id}`} className="font-head text-xl font-bold hover:underline">
                  {place.name}
                </Link>
                <p className="figures text-soft">
                  {[
                    place.shape,
                    outline === null
                      ? null
                      : outline.shape === "rectangle"
                        ? `${lengthWords(outline.lengthMetres, units)} × ${lengthWords(outline.widthMetres, units)}`
                        : `${lengthWords(outline.lengthMetres, units)} across`,
                    place.footing,
                    place.fence,
                    counted(place.items, "zone"),
                  ]
                    .filter((part) => part !== null && part !== "")
                    .join(" · ")}
                </p>
              </div>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
