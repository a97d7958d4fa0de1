"use client";

import { yupResolver } from "@hookform/resolvers/yup";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { useForm } from "react-hook-form";
import { dayWords } from "@/core/day";
import { PERSON_ROLES, type PersonInput, type PracticeInput, personSchema, practiceSchema } from "@/core/schemas";
import { Field, send, tied } from "@/ui/form";

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
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const { register, handleSubmit, formState } = useForm<PersonInput>({
    defaultValues: start,
    resolver: yupResolver(personSchema) as never,
  });
  const error = (name: keyof PersonInput) => formState.errors[name]?.message;
  const submit = handleSubmit(async (values) => {
    const sent = await send(id === undefined ? "POST" : "PUT", id === undefined ? "/api/people" : `/api/people/${id}`, values);
    if (sent.ok) {
      onDone();
      router.refresh();
    } else setProblem(sent.message);
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
      <p className="flex items-center gap-4 sm:col-span-2">
        <button type="submit" className="act" disabled={formState.isSubmitting}>
          {id === undefined ? "Add the person" : "Save"}
        </button>
        <button type="button" className="act-quiet" onClick={onDone}>
          Leave it
        </button>
        {problem !== null && <span className="font-semibold text-brick">{problem}</span>}
      </p>
    </form>
  );
}

function PracticeForm({ person, today, onDone }: { person: string; today: string; onDone: () => void }) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const { register, handleSubmit, formState } = useForm<PracticeInput>({
    defaultValues: { day: today, what: "", minutes: 10, note: "" },
    resolver: yupResolver(practiceSchema, { context: { today } }) as never,
  });
  const error = (name: keyof PracticeInput) => formState.errors[name]?.message;
  const submit = handleSubmit(async (values) => {
    const sent = await send("POST", `/api/people/${person}/practice`, values);
    if (sent.ok) {
      onDone();
      router.refresh();
    } else setProblem(sent.message);
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
      <p className="flex items-center gap-4 sm:col-span-3">
        <button type="submit" className="act" disabled={formState.isSubmitting}>
          Note it
        </button>
        <button type="button" className="act-quiet" onClick={onDone}>
          Leave it
        </button>
        {problem !== null && <span className="font-semibold text-brick">{problem}</span>}
      </p>
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
                  </p>
                </div>
              )}
              {open?.kind === "practice" && open.id === person.id && <PracticeForm person={person.id} today={today} onDone={close} />}
              {person.practice.length > 0 && (
                <details className="mt-1">
                  <summary className="figures text-soft">
                    Practice without a horse: {person.practice.length} times, {minutes} minutes
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
