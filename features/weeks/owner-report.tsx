"use client";

import { useState, useSyncExternalStore } from "react";

const never = () => () => {};

/** The month in the trainer's words, to be changed and handed on: by the device's own share sheet where it has one, copied, or printed. */
export function OwnerReport({ start, title }: { start: string; title: string }) {
  const [text, setText] = useState(start);
  const [said, setSaid] = useState("");
  const shares = useSyncExternalStore(
    never,
    () => typeof navigator.share === "function",
    () => false,
  );
  const share = async () => {
    try {
      await navigator.share({ title, text });
      setSaid("Handed to the device.");
    } catch (error) {
      // Closing the sheet is no fault.
      if (!(error instanceof DOMException && error.name === "AbortError")) setSaid("The device could not share it; copy it instead.");
    }
  };
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(text);
      setSaid("Copied.");
    } catch {
      setSaid("The browser does not let pages copy here; mark the text and copy it by hand.");
    }
  };
  return (
    <section className="mt-9">
      <h2 className="text-xl">For the owner</h2>
      <p className="no-print text-sm text-soft">A draft for the owner. Edit it before you send it. It isn't saved.</p>
      <label className="sr-only" htmlFor="owner-report">
        Report for the owner
      </label>
      <textarea
        id="owner-report"
        value={text}
        onChange={(event) => setText(event.target.value)}
        rows={Math.min(24, text.split("\n").length + 3)}
        className="field-box no-print mt-2 w-full max-w-3xl"
      />
      <p className="hidden whitespace-pre-wrap print:block">{text}</p>
      <p className="no-print mt-3 flex flex-wrap items-center gap-3">
        {shares && (
          <button type="button" className="act" onClick={() => void share()}>
            Share
          </button>
        )}
        <button type="button" className="act-quiet" onClick={() => void copy()}>
          Copy
        </button>
        <button type="button" className="act-quiet" onClick={() => window.print()}>
          Print
        </button>
        <span role="status">{said}</span>
      </p>
    </section>
  );
}
