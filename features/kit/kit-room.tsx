"use client";

import { useState } from "react";
import { type KitInput, kitSchema } from "@/core/schemas";
import { KIT_KINDS, KIT_WITH_BUCKLES, KIT_WITH_LENGTH, type KitKind, SHORTEST_SAFE_LINE_METRES } from "@/core/welfare";
import { BinButton, Field, FormEnd, orNothing, savedUnder, tied, useSentForm } from "@/ui/form";
import { lengthUnit, lengthWords, shownLength, typedMetres, useUnits } from "@/ui/units";

export type KitLine = KitInput & { readonly id: string };

const EMPTY: KitInput = { name: "", kind: "line", length_m: null, mass_g: null, buckles_equal: null, note: "" };

function KitForm({ id, start, onDone }: { id?: string; start: KitInput; onDone: () => void }) {
  const units = useUnits();
  const { register, submit, error, problem, busy, watch } = useSentForm<KitInput>({
    schema: kitSchema,
    start: { ...start, length_m: shownLength(start.length_m ?? null, units) as unknown as number },
    target: savedUnder("/api/kit", id),
    onSaved: onDone,
  });
  const kind = watch("kind") as KitKind;
  return (
    <form onSubmit={submit} noValidate className="grid max-w-3xl gap-4 border-l-4 border-tarn pl-4 sm:grid-cols-6">
      <div className="sm:col-span-4">
        <Field id="name" label="Name" error={error("name")}>
          <input {...register("name")} {...tied("name", error("name"))} className="field-box" autoComplete="off" />
        </Field>
      </div>
      <div className="sm:col-span-2">
        <Field id="kind" label="Kind" error={error("kind")}>
          <select {...register("kind")} {...tied("kind", error("kind"))} className="field-box">
            {KIT_KINDS.map((one) => (
              <option key={one}>{one}</option>
            ))}
          </select>
        </Field>
      </div>
      {KIT_WITH_LENGTH.includes(kind) && (
        <div className="sm:col-span-2">
          <Field
            id="length_m"
            label={`Length, ${lengthUnit(units)}`}
            hint={
              kind === "line" ? `For loading, or a horse that leaves: ${lengthWords(SHORTEST_SAFE_LINE_METRES, units)} or more` : undefined
            }
            error={error("length_m")}
          >
            <input
              {...register("length_m", { setValueAs: (value) => orNothing.setValueAs(typedMetres(value, units)) })}
              {...tied("length_m", error("length_m"))}
              inputMode="decimal"
              className="field-box figures"
            />
          </Field>
        </div>
      )}
      <div className="sm:col-span-2">
        <Field id="mass_g" label={kind === "feed" ? "One piece, g" : "Mass, g"} error={error("mass_g")}>
          <input
            {...register("mass_g", orNothing)}
            {...tied("mass_g", error("mass_g"))}
            inputMode="decimal"
            className="field-box figures"
          />
        </Field>
      </div>
      {KIT_WITH_BUCKLES.includes(kind) && (
        <div className="sm:col-span-3">
          <Field id="buckles_equal" label="Left and right buckles" error={error("buckles_equal")}>
            <select
              {...register("buckles_equal", {
                setValueAs: (value) => (value === true || value === "true" ? true : value === false || value === "false" ? false : null),
              })}
              {...tied("buckles_equal", error("buckles_equal"))}
              className="field-box"
            >
              <option value="">not looked at</option>
              <option value="true">on the same holes</option>
              <option value="false">on different holes</option>
            </select>
          </Field>
        </div>
      )}
      <div className="sm:col-span-6">
        <Field id="note" label="Note" error={error("note")}>
          <input {...register("note")} {...tied("note", error("note"))} className="field-box" />
        </Field>
      </div>
      <FormEnd label={id === undefined ? "Add it" : "Save"} busy={busy} problem={problem} onLeave={onDone} />
    </form>
  );
}

/** The kit of the yard, with the lengths and masses the cautions need. */
export function KitRoom({ kit }: { kit: readonly KitLine[] }) {
  const units = useUnits();
  const [editing, setEditing] = useState<string | null>(null);
  const facts = (one: KitLine) =>
    [
      one.length_m == null ? null : lengthWords(one.length_m, units),
      one.mass_g == null
        ? null
        : one.mass_g >= 1000
          ? `${Math.round(one.mass_g / 100) / 10} kg`
          : `${one.mass_g} g${one.kind === "feed" ? " a piece" : ""}`,
      KIT_WITH_BUCKLES.includes(one.kind)
        ? one.buckles_equal == null
          ? "buckles not looked at"
          : one.buckles_equal
            ? "buckles equal"
            : "buckles on different holes"
        : null,
      one.note === "" ? null : one.note,
    ].filter((part) => part !== null);
  return (
    <>
      <div className="flex flex-wrap items-baseline justify-between gap-4">
        <h1 className="text-[2rem]">Kit</h1>
        {editing !== "new" && (
          <button type="button" className="act" onClick={() => setEditing("new")}>
            Add kit
          </button>
        )}
      </div>
      {editing === "new" && (
        <div className="mt-5">
          <KitForm start={EMPTY} onDone={() => setEditing(null)} />
        </div>
      )}
      {kit.length === 0 && editing !== "new" && (
        <p className="mt-4 max-w-prose text-lg">
          Note lines and sticks with their length: before work it is said where one is too short for what is planned.
        </p>
      )}
      <ul className="mt-5 border-b-2 border-hair">
        {kit.map((one) => (
          <li key={one.id} className="border-t-2 border-hair py-3">
            {editing === one.id ? (
              <KitForm id={one.id} start={one} onDone={() => setEditing(null)} />
            ) : (
              <div className="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1">
                <p>
                  <strong className="font-head text-lg">{one.name}</strong> <span className="text-soft">{one.kind}</span>
                  <span className={`figures block ${one.buckles_equal === false ? "text-brick" : "text-soft"}`}>
                    {facts(one).join(" · ")}
                  </span>
                </p>
                <p className="flex gap-5">
                  <button type="button" className="link" onClick={() => setEditing(one.id)}>
                    Change
                  </button>
                  <BinButton kind="kit" id={one.id} name={one.name} onwards={null} />
                </p>
              </div>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
