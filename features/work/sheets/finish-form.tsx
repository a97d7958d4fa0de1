"use client";

import { useState } from "react";
import type { FinishNotes } from "../acts/session-acts";

const LINES: readonly { readonly key: keyof FinishNotes; readonly label: string }[] = [
  { key: "better", label: "What was better" },
  { key: "next", label: "What to do next time" },
  { key: "handler", label: "My own point" },
];

/** The end of the session: one line each to remember it by, if wanted. */
export function FinishForm({ onFinish }: { onFinish: (notes: FinishNotes) => void }) {
  const [notes, setNotes] = useState<FinishNotes>({ better: "", next: "", handler: "" });
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        onFinish(notes);
      }}
    >
      {LINES.map(({ key, label }) => (
        <label key={key} className="mb-3 block font-semibold">
          {label}
          <input
            value={notes[key]}
            onChange={(event) => setNotes({ ...notes, [key]: event.target.value })}
            maxLength={300}
            autoComplete="off"
            className="field-box mt-1 min-h-12 font-normal"
          />
        </label>
      ))}
      <p className="text-sm text-soft">Each may stay empty. The next session begins with what you write for next time.</p>
      <button type="submit" className="act mt-4 min-h-16 w-full text-xl">
        Finish the session
      </button>
    </form>
  );
}
