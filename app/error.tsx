"use client";

/** What happened, what was kept, and what to do, by the kind of failure the store had. */
const WORDS: Readonly<Record<string, { readonly title: string; readonly text: string; readonly todo: string }>> = {
  "store-full": {
    title: "The computer's disk is full",
    text: "What was saved before is kept, and taps not yet sent stay on their devices.",
    todo: "Make room on the disk of the computer that runs the program; nothing has to be started anew.",
  },
  "store-held": {
    title: "The data is held by another program",
    text: "Nothing was changed. Taps stay on their devices until it is free.",
    todo: "Close whatever else has the file open, a copying or syncing program perhaps, then try again.",
  },
  "store-unwritable": {
    title: "The data cannot be read or written",
    text: "What was saved before is kept, and taps not yet sent stay on their devices.",
    todo: "See on the computer that the folder of the data is there and may be written, and that its disk is sound.",
  },
  "row-unread": {
    title: "This version cannot read what belongs here",
    text: "It was kept by another version, or damaged. Nothing of it is lost, and everything else goes on.",
    todo: "Go back and choose another; a newer version of the program may read it.",
  },
  "store-damaged": {
    title: "The data is damaged",
    text: "Nothing was changed. Taps not yet sent stay on their devices, and those sent in the last thirty days as well.",
    todo: "Stop the program and go back to a copy: npm run restore -- FILE. What is there now is set aside, not lost.",
  },
};

/** What a page shows when the server failed it. */
export default function PageError({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  const words = WORDS[error.digest ?? ""];
  return (
    <main className="mx-auto max-w-2xl px-5 py-16">
      <h1 className="text-3xl">{words?.title ?? "This page did not come together"}</h1>
      <p className="mt-3">{words?.text ?? "What was saved is kept, and taps not yet sent stay on this device."}</p>
      <p className="mt-3 font-semibold">{words?.todo ?? "Try again; if it stays like this, stop and start the program."}</p>
      <button type="button" className="act mt-5" onClick={reset}>
        Try again
      </button>
    </main>
  );
}
