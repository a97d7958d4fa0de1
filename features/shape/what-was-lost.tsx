/** What of a ladder could not be read, and what stands in its place, before it is saved again. */
export function WhatWasLost({
  plan,
  involves,
  prerequisites,
  text,
}: {
  plan: readonly string[];
  involves: boolean;
  prerequisites: boolean;
  /** What is kept of the plan, as it stands there. */
  text: string;
}) {
  return (
    <section aria-label="What could not be read" className="mb-6 max-w-prose border-l-4 border-brick pl-4">
      {plan.length > 0 && (
        <>
          <p className="font-semibold">This version cannot read: {plan.join(", ")}.</p>
          {plan.some((part) => part.startsWith("rung ")) && (
            <p className="mt-1">A rung that was lost asks what the rung below it asks, and of calm at least soft.</p>
          )}
          {plan.some((part) => part === "when it moves on" || part === "all of it") && (
            <p className="mt-1">Until you say otherwise it wants three calm days.</p>
          )}
          {plan.some((part) => part.startsWith("strand") || part === "its strands" || part === "all of it") && (
            <p className="mt-1">If it asked for calm, see that it still does.</p>
          )}
          <p className="mt-1">Look at every rung before you save; nobody works on this ladder until then.</p>
        </>
      )}
      {involves && (
        <p className="mt-1">
          What the work involves is lost. Everything is ticked, so that a restriction still closes it. Untick what it does not involve.
        </p>
      )}
      {prerequisites && <p className="mt-1">What it rests on is lost. Say it again.</p>}
      {text !== "" && (
        <details className="mt-2">
          <summary className="link">The plan as it is kept</summary>
          <pre className="mt-2 whitespace-pre-wrap break-all text-sm">{text}</pre>
          <p className="mt-1">It stays in the data when you save.</p>
        </details>
      )}
    </section>
  );
}
