"use client";

import { useState } from "react";
import type { Fact } from "@/core/schemas";
import { useWay } from "@/ui/way";
import { LOGGED_WORDS, logApart } from "../device/log-apart";

interface Note {
  readonly id: string;
  readonly about: string;
  readonly text: string;
}

/** A note being changed. */
function NoteForm({ note, onSave, onLeave }: { note: Note; onSave: (text: string) => void; onLeave: () => void }) {
  const [text, setText] = useState(note.text);
  return (
    <form
      className="mb-3 max-w-prose"
      onSubmit={(event) => {
        event.preventDefault();
        const words = text.trim();
        if (words !== "") onSave(words);
      }}
    >
      <label htmlFor={`note-${note.id}`} className="sr-only">
        The note
      </label>
      <textarea
        id={`note-${note.id}`}
        value={text}
        maxLength={2000}
        rows={2}
        onChange={(event) => setText(event.target.value)}
        className="field-box"
      />
      <div className="mt-1 flex gap-3">
        <button type="submit" className="act-quiet">
          Save
        </button>
        <button type="button" className="link" onClick={() => onLeave()}>
          Leave it
        </button>
      </div>
    </form>
  );
}

/** Notes of the session, and a place to add one. They go the same way as every tap. */
export function Notes({ storeId, sessionId, notes }: { storeId: string; sessionId: string; notes: readonly Note[] }) {
  const way = useWay();
  const [text, setText] = useState("");
  const [editing, setEditing] = useState<string | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const log = async (fact: Fact) => {
    const logged = await logApart(storeId, sessionId, [fact]);
    if (fact.type === "note" && logged !== "held") setText("");
    setEditing(null);
    setMessage(LOGGED_WORDS[logged]);
    way.refresh();
  };
  const add = async () => {
    const trimmed = text.trim();
    if (trimmed !== "") await log({ type: "note", payload: { text: trimmed } });
  };
  return (
    <section>
      <h2 className="mb-2 text-xl">Notes</h2>
      {notes.map((note) =>
        editing === note.id ? (
          <NoteForm
            key={note.id}
            note={note}
            onSave={(text) => void log({ type: "correct", payload: { event: note.id, payload: { text }, reason: "the note was changed" } })}
            onLeave={() => setEditing(null)}
          />
        ) : (
          <div key={note.id} className="mb-2 max-w-prose">
            <p className="whitespace-pre-wrap">
              {note.about}
              {note.text}
            </p>
            <p className="no-print flex gap-4 text-sm">
              <button type="button" className="link" onClick={() => setEditing(note.id)}>
                Change
              </button>
              <button
                type="button"
                className="link"
                aria-label={`Put the note in the bin: ${note.text}`}
                onClick={() => void log({ type: "correct", payload: { event: note.id, strike: true, reason: "put in the bin" } })}
              >
                Put in the bin
              </button>
            </p>
          </div>
        ),
      )}
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void add();
        }}
      >
        <label htmlFor="note" className="sr-only">
          Add a note
        </label>
        <textarea
          id="note"
          value={text}
          onChange={(event) => setText(event.target.value)}
          maxLength={2000}
          rows={2}
          placeholder="Add a note"
          className="field-box max-w-prose"
        />
        <div className="mt-2 flex items-center gap-4">
          <button type="submit" className="act-quiet" disabled={text.trim() === ""}>
            Add
          </button>
          <p role="status">{message}</p>
        </div>
      </form>
    </section>
  );
}
