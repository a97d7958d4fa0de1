import { Trash2 } from "lucide-react";
import {
  PLACE_ITEM_KINDS,
  PLACE_ITEM_WORDS,
  type PlaceItem,
  type PlaceOutline,
  putInside,
  ZONE_RULE_WORDS,
  ZONE_RULES,
} from "@/core/place";
import { Choice, NumberBox, TextBox } from "@/ui/form";
import { lengthUnit, shownLength, typedMetres, useUnits } from "@/ui/units";

const MEASURES = [
  { label: "From the left", key: "xMetres", least: 0 },
  { label: "From the top", key: "yMetres", least: 0 },
  { label: "Size across", key: "acrossMetres", least: 0.2 },
  { label: "Size down", key: "downMetres", least: 0.2 },
] as const;

/** The chosen zone or object: its name, kind, rule, place and size. */
export function ItemFields({
  item,
  outline,
  onChange,
  onRemove,
}: {
  item: PlaceItem;
  outline: PlaceOutline | null;
  onChange: (item: PlaceItem) => void;
  onRemove: () => void;
}) {
  const units = useUnits();
  return (
    <fieldset className="mt-4 grid grid-cols-2 gap-3 border-l-4 border-tarn pl-4 sm:grid-cols-4">
      <legend className="sr-only">{item.name}</legend>
      <TextBox
        small
        className="col-span-2"
        label="Name"
        id="item-name"
        value={item.name}
        maxLength={80}
        onTyped={(name) => onChange({ ...item, name })}
      />
      <Choice
        small
        label="Kind"
        value={item.kind}
        options={PLACE_ITEM_KINDS.map((kind) => ({ value: kind, label: PLACE_ITEM_WORDS[kind] }))}
        onChosen={(kind) => onChange({ ...item, kind })}
      />
      <button type="button" onClick={onRemove} className="act-quiet self-end">
        <Trash2 size={16} aria-hidden="true" /> Take out
      </button>
      <Choice
        small
        className="col-span-2"
        label="What holds here"
        empty="nothing in particular"
        value={item.rule ?? ""}
        options={ZONE_RULES.map((rule) => ({ value: rule, label: ZONE_RULE_WORDS[rule] }))}
        onChosen={(rule) => onChange({ ...item, rule: rule === "" ? undefined : rule })}
      />
      <p className="col-span-2 self-end text-sm text-soft">The recorder says it when the horse is tapped in there.</p>
      {MEASURES.map(({ label, key, least }) => (
        <NumberBox
          key={`${key}-${item[key]}`}
          small
          width=""
          label={`${label}, ${lengthUnit(units)}`}
          defaultValue={shownLength(item[key], units)}
          onBlur={(event) => {
            const metres = typedMetres(event.target.value, units);
            if (outline === null || typeof metres !== "number" || !Number.isFinite(metres)) return;
            onChange(putInside(outline, { ...item, [key]: Math.max(least, metres) }));
          }}
        />
      ))}
    </fieldset>
  );
}
