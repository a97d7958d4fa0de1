import { cornerItems, outlineOf } from "@/core/place";
import type { KitInput, PersonInput, PlaceInput, PlaceItemInput } from "@/core/schemas";

export const DEMO_PEOPLE: readonly PersonInput[] = [
  { name: "Wenna Orrick", role: "handler" },
  { name: "Dorrel Hask", role: "handler" },
  { name: "Ilse Tamworth-Quay", role: "helper" },
];

/** A zone; at the gate a session is quit before the horse leaves. */
const item = (name: string, kind: PlaceItemInput["kind"], x_m: number, y_m: number, across_m: number, down_m: number): PlaceItemInput => ({
  ...(kind === "gate" ? { rule: "quit-first" } : {}),
  name,
  kind,
  x_m,
  y_m,
  across_m,
  down_m,
});

/** The corners of a place as its form would put them in. */
const corners = (shape: "square" | "rectangle", length: number, width: number): PlaceItemInput[] => {
  const outline = outlineOf(shape, length, width);
  if (outline === null) return [];
  return cornerItems(outline).map(({ name, kind, xMetres, yMetres, acrossMetres, downMetres }) =>
    item(name, kind, xMetres, yMetres, acrossMetres, downMetres),
  );
};

export const DEMO_PLACES: readonly PlaceInput[] = [
  {
    name: "Slate pen",
    shape: "round",
    length_m: 18,
    width_m: 18,
    footing: "sand",
    fence: "rails",
    items: [
      item("gate", "gate", 9, 17.2, 3, 1.2),
      item("middle", "zone", 9, 9, 5, 5),
      item("far rail", "zone", 9, 2.2, 7, 2.6),
      item("companion", "companion", 2.6, 11, 2.2, 2.2),
    ],
  },
  {
    name: "Long paddock",
    shape: "rectangle",
    length_m: 60,
    width_m: 25,
    footing: "grass",
    fence: "hedge",
    items: [item("gate", "gate", 30, 24.4, 4, 1.2), ...corners("rectangle", 60, 25)],
  },
  {
    name: "Wash yard",
    shape: "square",
    length_m: 10,
    width_m: 10,
    footing: "hard ground",
    fence: "wall",
    items: [
      item("gate", "gate", 5, 9.5, 2.4, 1),
      item("plate", "plate", 3, 3.2, 2, 2.2),
      item("water tray", "object", 7.4, 3.4, 2, 3.4),
      item("by the wall", "zone", 8.2, 7.6, 3, 2.6),
    ],
  },
];

export const DEMO_KIT: readonly KitInput[] = [
  { name: "Grey rope halter", kind: "halter", length_m: null, mass_g: null, buckles_equal: true, note: "" },
  { name: "Short cotton lead", kind: "line", length_m: 2.4, mass_g: null, buckles_equal: null, note: "" },
  { name: "Long rope line", kind: "line", length_m: 6.7, mass_g: null, buckles_equal: null, note: "" },
  { name: "Willow stick", kind: "stick", length_m: 1.2, mass_g: null, buckles_equal: null, note: "" },
  { name: "Hay cobs", kind: "feed", length_m: null, mass_g: 4, buckles_equal: null, note: "" },
  { name: "Old web roller", kind: "roller or harness", length_m: null, mass_g: 3800, buckles_equal: false, note: "near side stretched" },
];
