"use client";

import { Plus } from "lucide-react";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { type FieldErrors, type Resolver, useForm } from "react-hook-form";
import { PLACE_ITEM_KINDS, PLACE_ITEM_WORDS, type PlaceItem, type PlaceOutline } from "@/core/place";
import { check, type FieldProblem, MOST_PLACE_ITEMS, placeSchema } from "@/core/schemas";
import type { UnitSystem } from "@/core/units";
import { Problem, savedUnder, send } from "@/ui/form";
import { PlacePlan } from "@/ui/place-plan";
import { lengthWords, shownLength, useUnits } from "@/ui/units";
import { missingCorners, newItem, outlineTyped, type PlaceDraft, type PlaceValues, placeBody } from "./draft";
import { FactsFields } from "./facts-fields";
import { ItemFields } from "./item-fields";

/** Problems of the body that is sent, at the fields that hold them. */
function atFields(problems: readonly FieldProblem[]): FieldErrors<PlaceValues> {
  const errors: Record<string, { type: string; message: string }> = {};
  for (const { path, message } of problems) {
    const name = path.startsWith("items") ? "items" : path.replace(/_m$/, "");
    errors[name] ??= { type: "validate", message };
  }
  return errors as FieldErrors<PlaceValues>;
}

/** Checks what is typed by the same schema as the route. */
const resolverIn =
  (units: UnitSystem): Resolver<PlaceValues> =>
  async (values) => {
    const checked = check(placeSchema, placeBody(values, units));
    return checked.ok ? { values, errors: {} } : { values: {}, errors: atFields(checked.problems) };
  };

/** A place as a form: checked, sent, and what the server finds wrong put at its field. */
function usePlaceForm(start: PlaceDraft, id: string | undefined) {
  const router = useRouter();
  const units = useUnits();
  const [resolver] = useState(() => resolverIn(units));
  const [message, setMessage] = useState<string | null>(null);
  const form = useForm<PlaceValues>({
    resolver,
    defaultValues: {
      ...start,
      length: shownLength(start.length, units),
      width: shownLength(start.width, units),
      items: [...start.items],
    },
  });
  const wrong = (errors: FieldErrors<PlaceValues>) => {
    const [first] = Object.values(errors);
    setMessage(first !== undefined && "message" in first && typeof first.message === "string" ? first.message : null);
  };
  const submit = form.handleSubmit(async (values) => {
    setMessage(null);
    const { method, url } = savedUnder("/api/places", id);
    const sent = await send<{ id: string }>(method, url, placeBody(values, units));
    if (sent.ok) {
      router.push("/places");
      router.refresh();
      return;
    }
    for (const [name, error] of Object.entries(atFields(sent.fields)))
      form.setError(name as keyof PlaceValues, error as { message: string });
    setMessage(sent.message);
  }, wrong);
  return { form, submit, message, busy: form.formState.isSubmitting };
}

/** Adds zones and objects; each of a kind once more, or the four corners at once. */
function PutIn({
  outline,
  round,
  items,
  onAdd,
}: {
  outline: PlaceOutline | null;
  round: boolean;
  items: readonly PlaceItem[];
  onAdd: (items: readonly PlaceItem[]) => void;
}) {
  const button = "act-quiet min-h-10! px-3! disabled:opacity-40";
  return (
    <fieldset className="mt-3 flex flex-wrap gap-1.5" disabled={outline === null || items.length >= MOST_PLACE_ITEMS}>
      <legend className="mb-1 font-semibold">Put in</legend>
      {!round && (
        <button type="button" onClick={() => outline !== null && onAdd(missingCorners(outline, items))} className={button}>
          <Plus size={16} aria-hidden="true" /> four corners
        </button>
      )}
      {PLACE_ITEM_KINDS.filter((kind) => kind !== "corner").map((kind) => (
        <button key={kind} type="button" onClick={() => outline !== null && onAdd([newItem(kind, outline, items)])} className={button}>
          <Plus size={16} aria-hidden="true" /> {PLACE_ITEM_WORDS[kind]}
        </button>
      ))}
    </fieldset>
  );
}

/** Draws a place from its shape and size, and puts named zones and objects in it. */
export function PlaceEditor({ start, id }: { start: PlaceDraft; id?: string }) {
  const units = useUnits();
  const { form, submit, message, busy } = usePlaceForm(start, id);
  const [selected, setSelected] = useState<number | null>(null);
  const values = form.watch();
  const { items } = values;
  const outline = outlineTyped(values, units);
  const setItems = (next: readonly PlaceItem[]) => form.setValue("items", [...next]);
  const setItem = (index: number, item: PlaceItem) => setItems(items.map((one, i) => (i === index ? item : one)));
  const add = (more: readonly PlaceItem[]) => {
    setItems([...items, ...more]);
    if (more.length === 1) setSelected(items.length);
  };
  const item = selected === null ? undefined : items[selected];
  return (
    <form
      onSubmit={(event) => void submit(event)}
      noValidate
      className="grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-7 lg:grid-cols-[20rem_minmax(0,1fr)]"
    >
      <FactsFields form={form} />
      <div>
        {outline === null ? (
          <p className="grid min-h-60 place-items-center rounded border-2 border-dashed border-hair p-6 text-center text-soft">
            With its size the place is drawn here, and zones can be put in it.
          </p>
        ) : (
          <>
            <PlacePlan
              outline={outline}
              items={items}
              label={`${values.name === "" ? "The place" : values.name} from above`}
              selected={selected}
              onSelect={setSelected}
              onMove={setItem}
              scaleWords={(m) => lengthWords(m, units)}
              letters={40}
            />
            <p className="text-sm text-soft">Drag a zone, or walk to it with Tab and move it with the arrow keys (Shift: a whole metre).</p>
          </>
        )}
        <PutIn outline={outline} round={values.shape === "round"} items={items} onAdd={add} />
        {item !== undefined && selected !== null && (
          <ItemFields
            key={selected}
            item={item}
            outline={outline}
            onChange={(next) => setItem(selected, next)}
            onRemove={() => {
              setSelected(null);
              setItems(items.filter((_, i) => i !== selected));
            }}
          />
        )}
        <Problem className="mt-2">{form.formState.errors.items?.message}</Problem>
      </div>
      <div className="flex flex-wrap items-center gap-4 lg:col-span-2">
        <button type="submit" className="act" disabled={busy}>
          {id === undefined ? "Add the place" : "Save"}
        </button>
        <Problem>{message}</Problem>
      </div>
    </form>
  );
}
