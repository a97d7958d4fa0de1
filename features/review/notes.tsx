"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { v4 as newId } from "uuid";
import type { SessionEvent } from "@/core/schemas";
import { recorderId } from "../work/device/recorder-id";
import { senderFor } from "../work/device/sender";

/** Notes of the session, and a place to add one. They go the same way as every tap. */
export function Notes({
  storeId,
  sessionId,
  notes,
}: {
  storeId: string;
  sessionId: string;
  notes: readonly { id: string; text: string }[];
}) {
  const router = useRouter();
  const [text, setText] = useState("");
  const [message, setMessage] = useState<string | null>(null);
  const add = async () => {
    const trimmed = text.trim();
    if (trimmed === "") return;
    const event: SessionEvent = {
      id: newId(),
      session: sessionId,
      recorder: recorderId("review"),
      load: newId(),
      seq: 0,
      mono_ms: Math.round(performance.now() * 10) / 10,
      wall_ms: Date.now(),
      type: "note",
      payload: { text: trimmed },
    };
    const sender = senderFor(storeId);
    const kept = await sender.keep([event]);
    const sent = await sender.flush(4000);
    if (kept || sent) setText("");
    setMessage(
      sent
        ? "Saved."
        : kept
          ? "Kept on this device. The server does not answer; it is sent as soon as it does."
          : "Not saved yet: this device does not keep it and the server does not answer. Keep this page open; it is sent as soon as it can be.",
    );
    router.refresh();
  };
  return (
    <section>
      <h2 className="mb-2 text-xl">Notes</h2>
      {notes.map((note) => (
        <p key={note.id} className="mb-2 max-w-prose whitespace-pre-wrap">
          {note.text}
        </p>
      ))}
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
