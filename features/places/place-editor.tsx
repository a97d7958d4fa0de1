"use client";

import { Plus, Trash2 } from "lucide-react";
import { useRouter } from "next/navigation";
import { useState } from "react";
import {
  cornerItems,
  outlineOf,
  PLACE_ITEM_KINDS,
  PLACE_ITEM_WORDS,
  PLACE_SHAPES,
  type PlaceItem,
  type PlaceItemKind,
  type PlaceShape,
  putInside,
  ZONE_RULE_WORDS,
  ZONE_RULES,
  type ZoneRule,
} from "@/core/place";
import { check, type FieldProblem, FOOTINGS, MOST_PLACE_ITEMS, placeSchema } from "@/core/schemas";
import { Field, send, tied } from "@/ui/form";
import { PlacePlan } from "@/ui/place-plan";
import { lengthUnit, lengthWords, shownLength, typedMetres, useUnits } from "@/ui/units";

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

/** Draws a place from its shape and size, and puts named zones and objects in it. */
export function PlaceEditor({ start, id }: { start: PlaceDraft; id?: string }) {
  const router = useRouter();
  const units = useUnits();
  const [draft, setDraft] = useState(start);
  const [typed, setTyped] = useState({ length: shownLength(start.length, units), width: shownLength(start.width, units) });
  const [selected, setSelected] = useState<number | null>(null);
  const [problems, setProblems] = useState<readonly FieldProblem[]>([]);
  const [message, setMessage] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const metres = { length: typedMetres(typed.length, units), width: typedMetres(typed.width, units) };
  const size = (value: unknown) => (typeof value === "number" && Number.isFinite(value) && value >= 1 && value <= 1000 ? value : null);
  const outline = outlineOf(draft.shape, size(metres.length), draft.shape === "rectangle" ? size(metres.width) : null);
  const problem = (path: string) => problems.find((one) => one.path === path)?.message;
  const unit = lengthUnit(units);

  const setItem = (index: number, item: PlaceItem) =>
    setDraft((old) => ({ ...old, items: old.items.map((one, i) => (i === index ? item : one)) }));
  const nameFor = (kind: PlaceItemKind) => {
    const base = PLACE_ITEM_WORDS[kind];
    for (let n = 1; ; n++) {
      const name = n === 1 ? base : `${base} ${n}`;
      if (!draft.items.some((item) => item.name.toLocaleLowerCase() === name)) return name;
    }
  };
  const add = (kind: PlaceItemKind) => {
    if (outline === null) return;
    const wide = NEW_SIZE[kind] ?? Math.min(outline.lengthMetres, outline.widthMetres) / 4;
    const item = putInside(outline, {
      name: nameFor(kind),
      kind,
      xMetres: outline.lengthMetres / 2,
      yMetres: kind === "gate" ? outline.widthMetres : outline.widthMetres / 2,
      acrossMetres: Math.round(wide * 10) / 10,
      downMetres: kind === "gate" ? 0.6 : Math.round(wide * 10) / 10,
    });
    setSelected(draft.items.length);
    setDraft((old) => ({ ...old, items: [...old.items, item] }));
  };
  const addCorners = () => {
    if (outline === null) return;
    const fresh = cornerItems(outline).filter(({ name }) => !draft.items.some((item) => item.name === name));
    setDraft((old) => ({ ...old, items: [...old.items, ...fresh] }));
  };
  const remove = (index: number) => {
    setSelected(null);
    setDraft((old) => ({ ...old, items: old.items.filter((_, i) => i !== index) }));
  };

  const save = async () => {
    const body = {
      name: draft.name,
      shape: draft.shape,
      length_m: metres.length,
      width_m: draft.shape === "rectangle" ? metres.width : metres.length,
      footing: draft.footing,
      fence: draft.fence,
      items: draft.items.map(({ name, kind, xMetres, yMetres, acrossMetres, downMetres, rule }) => ({
        name,
        kind,
        x_m: xMetres,
        y_m: yMetres,
        rule: rule ?? null,
        across_m: acrossMetres,
        down_m: downMetres,
      })),
    };
    setMessage(null);
    const checked = check(placeSchema, body);
    if (!checked.ok) {
      setProblems(checked.problems);
      setMessage(checked.problems[0]?.message ?? null);
      return;
    }
    setProblems([]);
    setBusy(true);
    const sent = await send<{ id: string }>(
      id === undefined ? "POST" : "PUT",
      id === undefined ? "/api/places" : `/api/places/${id}`,
      body,
    );
    setBusy(false);
    if (sent.ok) {
      router.push("/places");
      router.refresh();
      return;
    }
    setProblems(sent.fields);
    setMessage(sent.message);
  };

  const item = selected === null ? undefined : draft.items[selected];
  const measure = (label: string, key: "xMetres" | "yMetres" | "acrossMetres" | "downMetres", least: number) =>
    item !== undefined && (
      <label className="text-sm font-semibold">
        {label}, {unit}
        <input
          key={`${selected}-${key}-${item[key]}`}
          type="number"
          step="any"
          defaultValue={shownLength(item[key], units)}
          onBlur={(event) => {
            const value = typedMetres(event.target.value, units);
            if (selected === null || outline === null || typeof value !== "number" || !Number.isFinite(value)) return;
            setItem(selected, putInside(outline, { ...item, [key]: Math.max(least, value) }));
          }}
          className="field-box figures mt-0.5 font-normal"
        />
      </label>
    );

  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
      noValidate
      className="grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-7 lg:grid-cols-[20rem_minmax(0,1fr)]"
    >
      <div className="grid content-start gap-4">
        <Field id="name" label="Name" error={problem("name")}>
          <input
            {...tied("name", problem("name"))}
            value={draft.name}
            onChange={(event) => setDraft({ ...draft, name: event.target.value })}
            className="field-box"
            autoComplete="off"
          />
        </Field>
        <fieldset>
          <legend className="mb-1 font-semibold">Shape</legend>
          <div className="grid grid-cols-3 gap-1.5">
            {PLACE_SHAPES.map((shape) => (
              <button
                key={shape}
                type="button"
                aria-pressed={draft.shape === shape}
                onClick={() => setDraft({ ...draft, shape })}
                className={`min-h-11 rounded border-2 border-ink px-1 ${draft.shape === shape ? "bg-ink text-on-ink" : "bg-paper"}`}
              >
                {shape}
              </button>
            ))}
          </div>
        </fieldset>
        <div className="grid grid-cols-2 gap-3">
          <Field id="length_m" label={`${draft.shape === "rectangle" ? "Length" : "Across"}, ${unit}`} error={problem("length_m")}>
            <input
              {...tied("length_m", problem("length_m"))}
              value={typed.length}
              onChange={(event) => setTyped({ ...typed, length: event.target.value })}
              inputMode="decimal"
              className="field-box figures"
            />
          </Field>
          {draft.shape === "rectangle" && (
            <Field id="width_m" label={`Width, ${unit}`} error={problem("width_m")}>
              <input
                {...tied("width_m", problem("width_m"))}
                value={typed.width}
                onChange={(event) => setTyped({ ...typed, width: event.target.value })}
                inputMode="decimal"
                className="field-box figures"
              />
            </Field>
          )}
        </div>
        <Field id="footing" label="Footing" error={problem("footing")}>
          <input
            {...tied("footing", problem("footing"))}
            value={draft.footing}
            list="footings"
            onChange={(event) => setDraft({ ...draft, footing: event.target.value })}
            className="field-box"
          />
          <datalist id="footings">
            {FOOTINGS.map((one) => (
              <option key={one} value={one} />
            ))}
          </datalist>
        </Field>
        <Field id="fence" label="Fence" error={problem("fence")}>
          <input
            {...tied("fence", problem("fence"))}
            value={draft.fence}
            onChange={(event) => setDraft({ ...draft, fence: event.target.value })}
            className="field-box"
          />
        </Field>
      </div>
      <div>
        {outline === null ? (
          <p className="grid min-h-60 place-items-center rounded border-2 border-dashed border-hair p-6 text-center text-soft">
            With its size the place is drawn here, and zones can be put in it.
          </p>
        ) : (
          <>
            <PlacePlan
              outline={outline}
              items={draft.items}
              label={`${draft.name === "" ? "The place" : draft.name} from above`}
              selected={selected}
              onSelect={setSelected}
              onMove={setItem}
              scaleWords={(m) => lengthWords(m, units)}
              letters={40}
            />
            <p className="text-sm text-soft">Drag a zone, or walk to it with Tab and move it with the arrow keys (Shift: a whole metre).</p>
          </>
        )}
        <fieldset className="mt-3 flex flex-wrap gap-1.5" disabled={outline === null || draft.items.length >= MOST_PLACE_ITEMS}>
          <legend className="mb-1 font-semibold">Put in</legend>
          {draft.shape !== "round" && (
            <button type="button" onClick={addCorners} className="act-quiet min-h-10! px-3! disabled:opacity-40">
              <Plus size={16} aria-hidden="true" /> four corners
            </button>
          )}
          {PLACE_ITEM_KINDS.filter((kind) => kind !== "corner").map((kind) => (
            <button key={kind} type="button" onClick={() => add(kind)} className="act-quiet min-h-10! px-3! disabled:opacity-40">
              <Plus size={16} aria-hidden="true" /> {PLACE_ITEM_WORDS[kind]}
            </button>
          ))}
        </fieldset>
        {item !== undefined && selected !== null && (
          <fieldset className="mt-4 grid grid-cols-2 gap-3 border-l-4 border-tarn pl-4 sm:grid-cols-4">
            <legend className="sr-only">{item.name}</legend>
            <label className="col-span-2 text-sm font-semibold">
              Name
              <input
                value={item.name}
                maxLength={80}
                onChange={(event) => setItem(selected, { ...item, name: event.target.value })}
                className="field-box mt-0.5 font-normal"
              />
            </label>
            <label className="text-sm font-semibold">
              Kind
              <select
                value={item.kind}
                onChange={(event) => setItem(selected, { ...item, kind: event.target.value as PlaceItemKind })}
                className="field-box mt-0.5 font-normal"
              >
                {PLACE_ITEM_KINDS.map((kind) => (
                  <option key={kind} value={kind}>
                    {PLACE_ITEM_WORDS[kind]}
                  </option>
                ))}
              </select>
            </label>
            <button type="button" onClick={() => remove(selected)} className="act-quiet self-end">
              <Trash2 size={16} aria-hidden="true" /> Take out
            </button>
            <label className="col-span-2 text-sm font-semibold">
              What holds here
              <select
                value={item.rule ?? ""}
                onChange={(event) =>
                  setItem(selected, { ...item, rule: event.target.value === "" ? undefined : (event.target.value as ZoneRule) })
                }
                className="field-box mt-0.5 font-normal"
              >
                <option value="">nothing in particular</option>
                {ZONE_RULES.map((rule) => (
                  <option key={rule} value={rule}>
                    {ZONE_RULE_WORDS[rule]}
                  </option>
                ))}
              </select>
            </label>
            <p className="col-span-2 self-end text-sm text-soft">The recorder says it when the horse is tapped in there.</p>
            {measure("From the left", "xMetres", 0)}
            {measure("From the top", "yMetres", 0)}
            {measure("Size across", "acrossMetres", 0.2)}
            {measure("Size down", "downMetres", 0.2)}
          </fieldset>
        )}
        {problems
          .filter(({ path }) => path.startsWith("items"))
          .map(({ path, message: words }) => (
            <p key={path} role="alert" className="mt-2 font-semibold text-brick">
              {words}
            </p>
          ))}
      </div>
      <div className="flex flex-wrap items-center gap-4 lg:col-span-2">
        <button type="submit" className="act" disabled={busy}>
          {id === undefined ? "Add the place" : "Save"}
        </button>
        {message !== null && (
          <p role="alert" className="font-semibold text-brick">
            {message}
          </p>
        )}
      </div>
    </form>
  );
}
