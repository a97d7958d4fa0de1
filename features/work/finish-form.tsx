"use client";

import { useState } from "react";

/** The end of the session: one line to remember it by, if wanted. */
export function FinishForm({ onFinish, busy, problem }: { onFinish: (note: string) => void; busy: boolean; problem: string | null }) {
  const [note, setNote] = useState("");
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        onFinish(note.trim());
      }}
    >
      <label htmlFor="finish-note" className="mb-1 block font-semibold">
        Note
      </label>
      <textarea
        id="finish-note"
        value={note}
        onChange={(event) => setNote(event.target.value)}
        maxLength={2000}
        rows={3}
        className="field-box"
        aria-describedby="finish-hint"
      />
      <p id="finish-hint" className="mt-1 text-sm text-soft">
        What was better; what to do next time. May stay empty.
      </p>
      {problem !== null && (
        <p role="alert" className="mt-3 font-semibold text-brick">
          {problem}
        </p>
      )}
      <button type="submit" className="act mt-4 min-h-16 w-full text-xl" disabled={busy}>
        Finish the session
      </button>
    </form>
  );
}
