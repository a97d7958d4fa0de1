"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { type HorseDateInput, horseDateSchema } from "@/core/schemas";
import { DATE_KINDS } from "@/core/welfare";
import { Field, FormEnd, orNothing, send, tied, useSentForm } from "@/ui/form";

/** One date as the list shows it. */
export interface ShownDate {
  readonly id: string;
  readonly words: string;
  /** Said where it is due, or null. */
  readonly due: string | null;
  /** When it was done, in words; null where it lies ahead. */
  readonly done: string | null;
}

const KIND_WORDS: Record<(typeof DATE_KINDS)[number], string> = {
  "comes back on": "comes back into work",
  trim: "trim or shoeing",
  fitting: "fitting of kit",
  vet: "veterinarian",
  other: "something else",
};

function DateForm({ horseId, onDone }: { horseId: string; onDone: () => void }) {
  const { register, submit, error, problem, busy } = useSentForm<HorseDateInput>({
    schema: horseDateSchema,
    start: { kind: "trim", day: "", every_weeks: null, note: "" },
    target: { method: "POST", url: `/api/horses/${horseId}/dates` },
    onSaved: onDone,
  });
  return (
    <form onSubmit={submit} noValidate className="mt-4 grid max-w-3xl gap-4 border-l-4 border-tarn pl-4 sm:grid-cols-6">
      <div className="sm:col-span-2">
        <Field id="date-kind" label="What" error={error("kind")}>
          <select {...register("kind")} {...tied("date-kind", error("kind"))} className="field-box">
            {DATE_KINDS.map((kind) => (
              <option key={kind} value={kind}>
                {KIND_WORDS[kind]}
              </option>
            ))}
          </select>
        </Field>
      </div>
      <div className="sm:col-span-2">
        <Field id="date-day" label="Day" error={error("day")}>
          <input type="date" {...register("day", orNothing)} {...tied("date-day", error("day"))} className="field-box figures" />
        </Field>
      </div>
      <div className="sm:col-span-2">
        <Field id="date-every" label="Every, weeks" hint="Empty: once" error={error("every_weeks")}>
          <input
            {...register("every_weeks", orNothing)}
            {...tied("date-every", error("every_weeks"))}
            inputMode="numeric"
            className="field-box figures"
          />
        </Field>
      </div>
      <div className="sm:col-span-6">
        <Field id="date-note" label="Note" error={error("note")}>
          <input {...register("note")} {...tied("date-note", error("note"))} className="field-box" autoComplete="off" />
        </Field>
      </div>
      <FormEnd label="Add the date" busy={busy} problem={problem} onLeave={onDone} />
    </form>
  );
}

/** What comes when for this horse: trims, fittings, the vet, coming back into work. The yard says it when it is due. */
export function Dates({ horseId, today, dates }: { horseId: string; today: string; dates: readonly ShownDate[] }) {
  const router = useRouter();
  const [adding, setAdding] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const act = async (method: "POST" | "DELETE", id: string) => {
    const sent = await send(method, `/api/horses/${horseId}/dates/${id}`, method === "POST" ? { day: today } : undefined);
    setProblem(sent.ok ? null : sent.message);
    if (sent.ok) router.refresh();
  };
  return (
    <section className="mt-10 border-t-2 border-hair pt-5" aria-labelledby="dates">
      <h2 id="dates" className="text-xl">
        Dates
      </h2>
      <p className="mt-1 max-w-prose text-soft">Shows on the Yard page from a week before until you tick it off.</p>
      <ul className="mt-3">
        {dates.map(({ id, words, due, done }) => (
          <li key={id} className="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1 border-t border-hair py-2.5">
            <p className={done === null ? "text-lg" : "text-soft"}>
              {words}
              {due !== null && <span className="ml-3 font-semibold text-ochre">{due}</span>}
              {done !== null && <span className="ml-3 text-sm">done on {done}</span>}
            </p>
            <p className="no-print flex gap-5">
              {done === null && (
                <button type="button" className="link" aria-label={`Done: ${words}`} onClick={() => void act("POST", id)}>
                  Done
                </button>
              )}
              <button type="button" className="link" aria-label={`Remove: ${words}`} onClick={() => void act("DELETE", id)}>
                Remove
              </button>
            </p>
          </li>
        ))}
      </ul>
      {problem !== null && (
        <p role="alert" className="mt-2 font-semibold text-brick">
          {problem}
        </p>
      )}
      {adding ? (
        <DateForm
          horseId={horseId}
          onDone={() => {
            setAdding(false);
            router.refresh();
          }}
        />
      ) : (
        <button type="button" className="act-quiet mt-4" onClick={() => setAdding(true)}>
          Add a date
        </button>
      )}
    </section>
  );
}
