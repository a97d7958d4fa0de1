const FILES = ["trials.csv", "sessions.csv", "events.csv"];

/** The session as files. */
export function TakeAlong({ sessionId }: { sessionId: string }) {
  return (
    <section className="no-print">
      <h2 className="mb-2 text-xl">Take it along</h2>
      <p className="flex flex-wrap gap-x-6 gap-y-2">
        {FILES.map((name) => (
          <a key={name} href={`/api/sessions/${sessionId}/${name}`} download={name} className="link">
            {name}
          </a>
        ))}
      </p>
      <p className="mt-2 text-sm text-soft">
        <code>npm run -s analyse -- trials.csv --sessions sessions.csv</code> gives the same numbers.
      </p>
    </section>
  );
}
