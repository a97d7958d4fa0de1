"use client";

import { useState } from "react";
import { dayWords } from "@/core/day";
import { PERSON_ROLES, type PersonInput, type PracticeInput, personSchema, practiceSchema } from "@/core/schemas";
import { BinButton, Field, FormEnd, savedUnder, tied, useSentForm } from "@/ui/form";

export interface PersonLine {
  readonly id: string;
  readonly name: string;
  readonly role: PersonInput["role"];
  readonly practice: readonly {
    readonly id: string;
    readonly day: string;
    readonly what: string;
    readonly minutes: number;
    readonly note: string;
  }[];
}

function PersonForm({ id, start, onDone }: { id?: string; start: PersonInput; onDone: () => void }) {
  const { register, submit, error, problem, busy } = useSentForm<PersonInput>({
    schema: personSchema,
    start,
    target: savedUnder("/api/people", id),
    onSaved: onDone,
  });
  return (
    <form onSubmit={submit} noValidate className="grid max-w-2xl gap-4 border-l-4 border-tarn pl-4 sm:grid-cols-2">
      <Field id="name" label="Name" error={error("name")}>
        <input {...register("name")} {...tied("name", error("name"))} className="field-box" autoComplete="off" />
      </Field>
      <Field id="role" label="Part" error={error("role")}>
        <select {...register("role")} {...tied("role", error("role"))} className="field-box">
          {PERSON_ROLES.map((role) => (
            <option key={role}>{role}</option>
          ))}
        </select>
      </Field>
      <FormEnd label={id === undefined ? "Add the person" : "Save"} busy={busy} problem={problem} onLeave={onDone} />
    </form>
  );
}

function PracticeForm({ person, today, onDone }: { person: string; today: string; onDone: () => void }) {
  const { register, submit, error, problem, busy } = useSentForm<PracticeInput>({
    schema: practiceSchema,
    start: { day: today, what: "", minutes: 10, note: "" },
    context: { today },
    target: { method: "POST", url: `/api/people/${person}/practice` },
    onSaved: onDone,
  });
  return (
    <form onSubmit={submit} noValidate className="mt-3 grid max-w-2xl gap-4 border-l-4 border-tarn pl-4 sm:grid-cols-[1fr_2fr_1fr]">
      <Field id="day" label="Day" error={error("day")}>
        <input type="date" max={today} {...register("day")} {...tied("day", error("day"))} className="field-box figures" />
      </Field>
      <Field id="what" label="What" hint="For example folding the line, marking a bounced ball" error={error("what")}>
        <input {...register("what")} {...tied("what", error("what"))} className="field-box" />
      </Field>
      <Field id="minutes" label="Minutes" error={error("minutes")}>
        <input {...register("minutes")} {...tied("minutes", error("minutes"))} inputMode="numeric" className="field-box figures" />
      </Field>
      <div className="sm:col-span-3">
        <Field id="note" label="Note" error={error("note")}>
          <input {...register("note")} {...tied("note", error("note"))} className="field-box" />
        </Field>
      </div>
      <FormEnd label="Note it" busy={busy} problem={problem} onLeave={onDone} />
    </form>
  );
}

/** The people of the yard, each with their own practice without a horse. */
export function PeopleRoom({ people, today }: { people: readonly PersonLine[]; today: string }) {
  const [open, setOpen] = useState<{ kind: "new" | "edit" | "practice"; id: string } | null>(null);
  const close = () => setOpen(null);
  return (
    <>
      <div className="flex flex-wrap items-baseline justify-between gap-4">
        <h1 className="text-[2rem]">People</h1>
        {open?.kind !== "new" && (
          <button type="button" className="act" onClick={() => setOpen({ kind: "new", id: "" })}>
            Add a person
          </button>
        )}
      </div>
      {open?.kind === "new" && (
        <div className="mt-5">
          <PersonForm start={{ name: "", role: "handler" }} onDone={close} />
        </div>
      )}
      {people.length === 0 && open?.kind !== "new" && <p className="mt-4 text-lg">Nobody is noted yet.</p>}
      <ul className="mt-5 border-b-2 border-hair">
        {people.map((person) => {
          const minutes = person.practice.reduce((sum, one) => sum + one.minutes, 0);
          return (
            <li key={person.id} className="border-t-2 border-hair py-3.5">
              {open?.kind === "edit" && open.id === person.id ? (
                <PersonForm id={person.id} start={person} onDone={close} />
              ) : (
                <div className="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1">
                  <p>
                    <strong className="font-head text-lg">{person.name}</strong> <span className="text-soft">{person.role}</span>
                  </p>
                  <p className="flex gap-5">
                    <button type="button" className="link" onClick={() => setOpen({ kind: "practice", id: person.id })}>
                      Note practice
                    </button>
                    <button type="button" className="link" onClick={() => setOpen({ kind: "edit", id: person.id })}>
                      Change
                    </button>
                    <BinButton kind="person" id={person.id} name={person.name} onwards={null} />
                  </p>
                </div>
              )}
              {open?.kind === "practice" && open.id === person.id && <PracticeForm person={person.id} today={today} onDone={close} />}
              {person.practice.length > 0 && (
                <details className="mt-1">
                  <summary className="figures text-soft">
                    Practice without a horse: {person.practice.length === 1 ? "once" : `${person.practice.length} times`}, {minutes} minutes
                  </summary>
                  <ul className="figures mt-1">
                    {person.practice.map((one) => (
                      <li key={one.id} className="py-0.5">
                        {dayWords(one.day)}: {one.what}, {one.minutes} min{one.note !== "" && `. ${one.note}`}
                      </li>
                    ))}
                  </ul>
                </details>
              )}
            </li>
          );
        })}
      </ul>
    </>
  );
}
