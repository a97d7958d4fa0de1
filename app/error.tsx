"use client";

/** What a page shows when the server failed it. */
export default function PageError({ reset }: { reset: () => void }) {
  return (
    <main className="mx-auto max-w-2xl px-5 py-16">
      <h1 className="text-3xl">This page did not come together</h1>
      <p className="mt-3">
        What was saved is kept, and taps not yet sent stay on this device. Try again; if it stays like this, stop and start the program.
      </p>
      <button type="button" className="act mt-5" onClick={reset}>
        Try again
      </button>
    </main>
  );
}
