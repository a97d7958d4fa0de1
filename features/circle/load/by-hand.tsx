"use client";

import { useRouter } from "next/navigation";
import { type FormEvent, useState } from "react";
import { HAND_KINDS } from "@/core/circle";
import { dayWords } from "@/core/day";
import { Choice, NumberBox, type Outcome, OutcomeLine, send, TextBox, typedNumber } from "@/ui/form";
import { wholeMinutes } from "./whole-minutes";

/** Work that no session holds, written in by hand. */
export interface HandEntry {
  readonly id: string;
  readonly day: string;
  readonly kind: string;
  readonly minutes: number;
  readonly note: string;
}

/** Writes work in by hand, and takes it out again. */
export function ByHand({ horseId, today, byHand }: { horseId: string; today: string; byHand: readonly HandEntry[] }) {
  const router = useRouter();
  const [draft, setDraft] = useState({ day: today, kind: "ridden", minutes: "", note: "" });
  const [outcome, setOutcome] = useState<Outcome | null>(null);
  const set = (part: Partial<typeof draft>) => setDraft({ ...draft, ...part });
  const add = async (event: FormEvent) => {
    event.preventDefault();
    const sent = await send("POST", `/api/horses/${horseId}/load`, {
      day: draft.day,
      kind: draft.kind,
      minutes: typedNumber(draft.minutes) ?? draft.minutes,
      note: draft.note.trim(),
    });
    setOutcome(sent.ok ? { text: "Added.", bad: false } : { text: sent.fields[0]?.message ?? sent.message, bad: true });
    if (!sent.ok) return;
    set({ minutes: "", note: "" });
    router.refresh();
  };
  const remove = async (id: string) => {
    const sent = await send("DELETE", `/api/horses/${horseId}/load/${id}`, undefined);
    if (!sent.ok) return setOutcome({ text: sent.message, bad: true });
    setOutcome({ text: "Taken out.", bad: false });
    router.refresh();
  };
  return (
    <section aria-label="By hand" className="no-print">
      <h2 className="text-2xl">By hand</h2>
      <form onSubmit={(event) => void add(event)} noValidate className="mt-2 flex flex-wrap items-end gap-3">
        <TextBox small label="Day" type="date" value={draft.day} max={today} onTyped={(day) => set({ day })} />
        <Choice small label="What" value={draft.kind} options={HAND_KINDS} onChosen={(kind) => set({ kind })} />
        <NumberBox small label="Minutes" value={draft.minutes} width="w-24 text-right" onTyped={(minutes) => set({ minutes })} />
        <TextBox small className="grow" label="Note" value={draft.note} maxLength={200} onTyped={(note) => set({ note })} />
        <button type="submit" className="act-quiet">
          Add
        </button>
      </form>
      <OutcomeLine outcome={outcome} className="mt-1 text-sm" />
      {byHand.length > 0 && (
        <ul className="mt-2">
          {byHand.map(({ id, day, kind, minutes, note }) => (
            <li key={id} className="flex flex-wrap items-center gap-x-4 border-t border-hair py-1">
              <span className="w-40">{dayWords(day)}</span>
              <span>
                {kind}, {wholeMinutes(minutes)} min
              </span>
              <span className="grow text-soft">{note}</span>
              <button
                type="button"
                className="link min-h-11"
                aria-label={`Take out ${kind} of ${dayWords(day)}`}
                onClick={() => void remove(id)}
              >
                Take out
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
