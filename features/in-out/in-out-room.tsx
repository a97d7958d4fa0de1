import { Importer } from "./importer";

/** What leaves the yard as open files, and what comes in. */
export function InOutRoom({ horses }: { horses: readonly { readonly id: string; readonly name: string }[] }) {
  return (
    <>
      <h1 className="text-[2rem]">In and out</h1>
      <div className="mt-5 grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-9 lg:grid-cols-2">
        <section>
          <h2 className="border-b-2 border-ink pb-1 text-xl">Out</h2>
          <p className="mt-2">
            The whole yard as one file, to keep or to take to another computer: horses, people, places, plans and every tap, as open tables
            (a Data Package). Passphrases and what only this computer needs stay here.
          </p>
          <p className="mt-3">
            <a href="/api/package" download className="act">
              The whole yard
            </a>
          </p>
          <h3 className="mt-6 text-lg">One horse, as tables</h3>
          <p className="text-sm text-soft">
            Sessions of work, and circle work on a ladder. First looks, watches, touching and circle work on no ladder are left out; the
            whole yard has them.
          </p>
          <ul className="mt-1">
            {horses.map(({ id, name }) => (
              <li key={id} className="flex flex-wrap gap-x-4 border-b border-hair py-1.5">
                <span className="grow basis-full sm:basis-40">{name}</span>
                <a href={`/api/horses/${id}/files/trials.csv?span=all`} download className="link">
                  trials.csv
                </a>
                <a href={`/api/horses/${id}/files/sessions.csv?span=all`} download className="link">
                  sessions.csv
                </a>
              </li>
            ))}
          </ul>
        </section>
        <section>
          <h2 className="border-b-2 border-ink pb-1 text-xl">In</h2>
          <p className="mt-2">
            A yard from another computer, taps of a session (events.csv), or a table of trials, also from a spreadsheet. What is here
            already is not doubled, and stays as it is here.
          </p>
          <Importer horses={horses} />
        </section>
      </div>
    </>
  );
}
