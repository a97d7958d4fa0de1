import {
  cornerItems,
  outlineOf,
  PLACE_ITEM_WORDS,
  type PlaceItem,
  type PlaceItemKind,
  type PlaceOutline,
  type PlaceShape,
  putInside,
} from "@/core/place";
import type { UnitSystem } from "@/core/units";
import { typedMetres } from "@/ui/units";

/** A place as it is edited. Its sizes are kept as typed, in the units of the browser. */
export interface PlaceDraft {
  readonly name: string;
  readonly shape: PlaceShape;
  readonly length: number | null;
  readonly width: number | null;
  readonly footing: string;
  readonly fence: string;
  readonly items: readonly PlaceItem[];
}

/** Size a new item begins with, in metres. */
const NEW_SIZE: Partial<Record<PlaceItemKind, number>> = { gate: 2, post: 0.8, companion: 2, plate: 1.5, object: 1 };

/** What the form holds: sizes as typed. */
export interface PlaceValues {
  name: string;
  shape: PlaceShape;
  length: string;
  width: string;
  footing: string;
  fence: string;
  items: PlaceItem[];
}

/** A name no other item has: the kind, then the kind with a number. */
function freeName(kind: PlaceItemKind, items: readonly PlaceItem[]): string {
  const base = PLACE_ITEM_WORDS[kind];
  for (let n = 1; ; n++) {
    const name = n === 1 ? base : `${base} ${n}`;
    if (!items.some((item) => item.name.toLocaleLowerCase() === name)) return name;
  }
}

/** A new item in the middle of the place, a gate in its lower side. */
export function newItem(kind: PlaceItemKind, outline: PlaceOutline, items: readonly PlaceItem[]): PlaceItem {
  const wide = NEW_SIZE[kind] ?? Math.min(outline.lengthMetres, outline.widthMetres) / 4;
  const side = Math.round(wide * 10) / 10;
  return putInside(outline, {
    name: freeName(kind, items),
    kind,
    xMetres: outline.lengthMetres / 2,
    yMetres: kind === "gate" ? outline.widthMetres : outline.widthMetres / 2,
    acrossMetres: side,
    downMetres: kind === "gate" ? 0.6 : side,
  });
}

/** The corners that are not there yet. */
export const missingCorners = (outline: PlaceOutline, items: readonly PlaceItem[]): PlaceItem[] =>
  cornerItems(outline).filter(({ name }) => !items.some((item) => item.name === name));

const isSize = (metres: unknown): metres is number =>
  typeof metres === "number" && Number.isFinite(metres) && metres >= 1 && metres <= 1000;

/** The outline of what is typed; null until its sizes are there. */
export function outlineTyped({ shape, length, width }: Pick<PlaceValues, "shape" | "length" | "width">, units: UnitSystem) {
  const size = (typed: string) => {
    const metres = typedMetres(typed, units);
    return isSize(metres) ? metres : null;
  };
  return outlineOf(shape, size(length), shape === "rectangle" ? size(width) : null);
}

/** What is typed as its route takes it. */
export function placeBody({ name, shape, length, width, footing, fence, items }: PlaceValues, units: UnitSystem) {
  const lengthMetres = typedMetres(length, units);
  return {
    name,
    shape,
    length_m: lengthMetres,
    width_m: shape === "rectangle" ? typedMetres(width, units) : lengthMetres,
    footing,
    fence,
    items: items.map((item) => ({
      name: item.name,
      kind: item.kind,
      x_m: item.xMetres,
      y_m: item.yMetres,
      rule: item.rule ?? null,
      across_m: item.acrossMetres,
      down_m: item.downMetres,
    })),
  };
}
