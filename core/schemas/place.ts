import * as yup from "yup";
import { choiceSchema, nameSchema, numberSchema, optionalNumberSchema, record, textSchema } from "../checks/common";
import { liesInside, outlineOf, PLACE_ITEM_KINDS, PLACE_SHAPES, type PlaceItem, type PlaceShape, ZONE_RULES } from "../place";

export const MOST_PLACE_ITEMS = 40;
export const FOOTINGS = ["grass", "sand", "hard ground", "rubber", "mud", "mixed"] as const;

const itemSchema = record({
  name: nameSchema("Zone"),
  kind: choiceSchema("Kind", PLACE_ITEM_KINDS),
  x_m: numberSchema("Across", 0, 1000, "m"),
  y_m: numberSchema("Down", 0, 1000, "m"),
  across_m: numberSchema("Size across", 0.2, 1000, "m"),
  down_m: numberSchema("Size down", 0.2, 1000, "m"),
  rule: choiceSchema("What holds here", ZONE_RULES).nullable().optional(),
});

export type PlaceItemInput = yup.InferType<typeof itemSchema>;

/** An item as the geometry takes it. @example asPlaceItem({ … }) // { name: "", kind: "gate", xMetres: 5, … } */
export const asPlaceItem = ({ name, kind, x_m, y_m, across_m, down_m, rule }: PlaceItemInput): PlaceItem => ({
  name,
  kind,
  xMetres: x_m,
  yMetres: y_m,
  acrossMetres: across_m,
  downMetres: down_m,
  ...(rule == null ? {} : { rule }),
});

/** A list that is being checked may hold anything; what is no item has been found wrong already and says nothing here. */
const itemsOf = (items: readonly unknown[] | undefined) =>
  (items ?? []).map((item) => (typeof item === "object" && item !== null ? item : {}) as Partial<PlaceItemInput>);

/** A place as it is added and edited, with its zones and objects. Lengths in metres. */
export const placeSchema = record({
  name: nameSchema("Name"),
  shape: choiceSchema("Shape", PLACE_SHAPES),
  length_m: optionalNumberSchema("Length", 1, 1000, "m"),
  width_m: optionalNumberSchema("Width", 1, 1000, "m"),
  footing: textSchema("Footing", 80),
  fence: textSchema("Fence", 80),
  items: yup
    .array()
    .of(itemSchema)
    .max(MOST_PLACE_ITEMS, `At most ${MOST_PLACE_ITEMS} zones and objects.`)
    .default([])
    .test("named-once", "Zones: each name once.", (items, context) => {
      const seen = new Set<string>();
      const problems: yup.ValidationError[] = [];
      for (const [i, item] of itemsOf(items).entries()) {
        const name = String(item.name ?? "")
          .trim()
          .toLocaleLowerCase();
        if (name !== "" && seen.has(name))
          problems.push(context.createError({ path: `items[${i}].name`, message: `Zone ${i + 1}: another one has this name.` }));
        seen.add(name);
      }
      return problems.length === 0 || new yup.ValidationError(problems);
    })
    .test("inside", "Zones: each inside the place.", (items, context) => {
      if ((items ?? []).length === 0) return true;
      const { shape, length_m, width_m } = context.parent as { shape: PlaceShape; length_m: unknown; width_m: unknown };
      const size = (value: unknown) => (typeof value === "number" && value >= 1 ? value : null);
      const outline = PLACE_SHAPES.includes(shape) ? outlineOf(shape, size(length_m), size(width_m)) : null;
      if (outline === null) return context.createError({ path: "length_m", message: "Its size is needed before zones can be put in it." });
      const problems = itemsOf(items).flatMap((item, i) =>
        [item.x_m, item.y_m, item.across_m, item.down_m].every((n) => typeof n === "number" && Number.isFinite(n)) &&
        !liesInside(outline, asPlaceItem(item as PlaceItemInput))
          ? [context.createError({ path: `items[${i}].x_m`, message: `${item.name || `Zone ${i + 1}`} lies outside the place.` })]
          : [],
      );
      return problems.length === 0 || new yup.ValidationError(problems);
    }),
}).required();

export type PlaceInput = yup.InferType<typeof placeSchema>;
