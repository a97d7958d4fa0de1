import type { ZoneRule } from "./zone-rule";
/** Shapes of a place. A round one is as long as it is wide. */
export const PLACE_SHAPES = ["round", "square", "rectangle"] as const;
export type PlaceShape = (typeof PLACE_SHAPES)[number];

/** What can stand or be marked out in a place. */
export const PLACE_ITEM_KINDS = ["gate", "corner", "zone", "arch-in", "arch-out", "plate", "post", "companion", "object"] as const;
export type PlaceItemKind = (typeof PLACE_ITEM_KINDS)[number];

export const PLACE_ITEM_WORDS: Readonly<Record<PlaceItemKind, string>> = {
  gate: "gate",
  corner: "corner",
  zone: "zone",
  "arch-in": "inside the arch",
  "arch-out": "outside the arch",
  plate: "plate or platform",
  post: "post",
  companion: "companion",
  object: "object",
};

/** A place's outline. Lengths in metres; `length` runs across the drawing, `width` down it. */
export interface PlaceOutline {
  readonly shape: PlaceShape;
  readonly lengthMetres: number;
  readonly widthMetres: number;
}

/**
 * A named zone or object in a place: a rectangle by its centre, in metres from
 * the left and the upper edge of the drawing.
 */
export interface PlaceItem {
  readonly name: string;
  readonly kind: PlaceItemKind;
  readonly xMetres: number;
  readonly yMetres: number;
  readonly acrossMetres: number;
  readonly downMetres: number;
  /** What holds there, where anything does. */
  readonly rule?: ZoneRule;
}

/**
 * The outline of a place whose size may be noted only in part; null where nothing is known. A square and a round one have one size.
 * @example outlineOf("round", 18, 18) // { shape: "round", lengthMetres: 18, widthMetres: 18 }
 */
export function outlineOf(shape: PlaceShape, lengthMetres: number | null, widthMetres: number | null): PlaceOutline | null {
  const length = lengthMetres ?? (shape === "rectangle" ? null : widthMetres);
  if (length === null) return null;
  if (shape !== "rectangle") return { shape, lengthMetres: length, widthMetres: length };
  return widthMetres === null ? null : { shape, lengthMetres: length, widthMetres };
}

/**
 * The widest circle that fits a place, in metres across; null where its size is not known.
 * @example acrossMetresOf("rectangle", 60, 25) // 25
 */
export function acrossMetresOf(shape: PlaceShape, lengthMetres: number | null, widthMetres: number | null): number | null {
  const outline = outlineOf(shape, lengthMetres, widthMetres);
  return outline === null ? null : Math.min(outline.lengthMetres, outline.widthMetres);
}

/** Room for rounding to the centimetre, in metres. */
const SLACK_METRES = 0.011;

/** How far an object on the fence may stand out of a round pen: its corners cut the circle. */
const cornersOf = (item: PlaceItem) =>
  [-1, 1].flatMap((sx) =>
    [-1, 1].map((sy) => [item.xMetres + (sx * item.acrossMetres) / 2, item.yMetres + (sy * item.downMetres) / 2] as const),
  );

/**
 * Whether an item lies inside a place. In a round one its centre must lie
 * inside the circle and its corners inside the square round it, since a
 * straight-sided zone drawn along the fence always cuts the circle a little.
 * @example liesInside(outline, item) // true
 */
export function liesInside(outline: PlaceOutline, item: PlaceItem): boolean {
  const { lengthMetres, widthMetres, shape } = outline;
  const boxed = cornersOf(item).every(
    ([x, y]) => x >= -SLACK_METRES && y >= -SLACK_METRES && x <= lengthMetres + SLACK_METRES && y <= widthMetres + SLACK_METRES,
  );
  if (shape !== "round") return boxed;
  const radius = lengthMetres / 2;
  return boxed && Math.hypot(item.xMetres - radius, item.yMetres - radius) <= radius + SLACK_METRES;
}

/**
 * Moves an item the least it takes to lie inside, and shrinks it where it is larger than the place.
 * @example putInside(outline, item) // { name: "z", kind: "zone", xMetres: 0.5, … }
 */
export function putInside(outline: PlaceOutline, item: PlaceItem): PlaceItem {
  const acrossMetres = Math.min(item.acrossMetres, outline.lengthMetres);
  const downMetres = Math.min(item.downMetres, outline.widthMetres);
  const round = (value: number) => Math.round(value * 100) / 100;
  // Where it stands inside already, to the centimetre, it stays: putting it in twice must not move it on.
  const there = { ...item, acrossMetres, downMetres, xMetres: round(item.xMetres), yMetres: round(item.yMetres) };
  if (liesInside(outline, there)) return there;
  const clamp = (value: number, half: number, most: number) => Math.min(Math.max(value, half), Math.max(half, most - half));
  let xMetres = clamp(item.xMetres, acrossMetres / 2, outline.lengthMetres);
  let yMetres = clamp(item.yMetres, downMetres / 2, outline.widthMetres);
  if (outline.shape === "round") {
    const radius = outline.lengthMetres / 2;
    const away = Math.hypot(xMetres - radius, yMetres - radius);
    if (away > radius) {
      xMetres = radius + ((xMetres - radius) * radius) / away;
      yMetres = radius + ((yMetres - radius) * radius) / away;
    }
  }
  return { ...item, acrossMetres, downMetres, xMetres: round(xMetres), yMetres: round(yMetres) };
}

/** Names for the corners of a drawing, the upper edge being north. */
const CORNER_NAMES = ["corner NW", "corner NE", "corner SW", "corner SE"] as const;

/**
 * The four corners of a square or a rectangle, as zones a sixth of the shorter side wide; a round place has none.
 * @example cornerItems(outline) // 4 of them
 */
export function cornerItems(outline: PlaceOutline): PlaceItem[] {
  if (outline.shape === "round") return [];
  const size = Math.round((Math.min(outline.lengthMetres, outline.widthMetres) / 6) * 10) / 10;
  return CORNER_NAMES.map((name, i) => ({
    name,
    kind: "corner",
    xMetres: i % 2 === 0 ? size / 2 : outline.lengthMetres - size / 2,
    yMetres: i < 2 ? size / 2 : outline.widthMetres - size / 2,
    acrossMetres: size,
    downMetres: size,
  }));
}
