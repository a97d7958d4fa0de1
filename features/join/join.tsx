"use client";

import { useState } from "react";
import type { Part } from "@/core/events/parts";
import { Field, send, tied } from "@/ui/form";
import { takePart } from "../device/part";
import { PartChoice } from "./part-choice";

/** Joins a running session by the code that was read out, with a part of one's own. */
export function Join() {
  const [code, setCode] = useState("");
  const [part, setPart] = useState<Part | undefined>("watches");
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const join = async () => {
    setBusy(true);
    setProblem(null);
    const sent = await send<{ session: string; horse: string }>("POST", "/api/join", { code });
    if (!sent.ok) {
      setBusy(false);
      return setProblem(sent.message);
    }
    const { session, horse } = sent.value;
    takePart(session, part);
    window.location.assign(`/pen?horse=${horse}&session=${session}`);
  };
  return (
    <>
      <h1 className="text-[2rem]">Join a session</h1>
      <p className="mt-2 max-w-prose">
        Whoever works the horse opens “more”, “another pair of hands”, and reads five figures out. They are good for ten minutes.
      </p>
      <form
        className="mt-5 grid max-w-md gap-5"
        onSubmit={(event) => {
          event.preventDefault();
          void join();
        }}
      >
        <Field id="code" label="Code" error={problem ?? undefined}>
          <input
            {...tied("code", problem ?? undefined)}
            value={code}
            maxLength={12}
            inputMode="numeric"
            autoComplete="off"
            onChange={(event) => setCode(event.target.value)}
            className="field-box figures min-h-16 text-3xl tracking-[0.2em]"
          />
        </Field>
        <PartChoice value={part} onChange={setPart} />
        <button type="submit" className="act min-h-16 text-xl" disabled={busy || code.trim() === ""}>
          Join
        </button>
      </form>
    </>
  );
}
