/** The signs of the session against the horse's own usual. Nothing where none can be told. */
export function SignsAgainstUsual({ signs, usualDays }: { signs: readonly string[]; usualDays: number }) {
  if (signs.length === 0) return null;
  return (
    <section className="mt-8">
      <h2 className="mb-1 text-xl">Signs, against its own usual</h2>
      {signs.map((words) => (
        <p key={words} className="figures">
          {words}
        </p>
      ))}
      <details className="text-sm text-soft">
        <summary>how</summary>
        Against earlier sessions of the same kind in the {usualDays} days before, session by session, since signs come in bouts and days:
        unusual is what lies outside the 95 % prediction interval of their roots (Anscombe 1948, Student 1908). Signs and minutes of work
        alone.
      </details>
    </section>
  );
}
