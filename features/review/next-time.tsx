import type { NextStart } from "@/core/word";

/** Where the next session begins, and why. Nothing where no ladder was worked. */
export function NextTime({ next }: { next: NextStart | null }) {
  if (next === null) return null;
  return (
    <section className="mt-9 border-t-2 border-ink pt-4">
      <h2 className="inline text-2xl text-tarn">Next time: {next.headline.charAt(0).toLowerCase() + next.headline.slice(1)}</h2>
      <p className="text-soft lg:ml-5 lg:inline">{next.reason}</p>
      {next.beside !== undefined && <p className="text-sm text-soft">{next.beside}</p>}
    </section>
  );
}
