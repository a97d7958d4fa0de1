import { agreementWords, type Connection } from "@/core/know";
import { percentSpan } from "@/core/words";
import { Day } from "@/ui/day";
import { Whisker } from "@/ui/measure";

/** What the horse goes to when unsure, and what to teach next. */
export function ConnectionView({
  watched,
  children,
}: {
  watched: { readonly startedMs: number; readonly beepSeconds: number | null; readonly result: Connection } | null;
  children: React.ReactNode;
}) {
  return (
    <>
      <h1 className="text-[2rem]">What it goes to</h1>
      {watched === null ? (
        <p className="mt-3 mb-5 max-w-prose text-lg">
          When it is unsure, does it look for people, other horses, a place, a thing or a pattern it knows? Watch ten minutes with a beep
          and a tap; the answer says what to teach first.
        </p>
      ) : (
        <div className="mt-3 mb-6 max-w-3xl">
          <p className="text-xl">{watched.result.sentence}</p>
          <p className="mt-1 font-head text-xl font-bold text-tarn">{watched.result.teachNext}</p>
          <ul className="mt-5 grid gap-2.5">
            {watched.result.shares.map(({ answer, n, share, interval }) => (
              <li key={answer} className="figures grid grid-cols-[9rem_1fr] items-center gap-x-4 sm:grid-cols-[12rem_14rem_1fr]">
                <span className="font-semibold">{answer}</span>
                <Whisker share={share} interval={interval} width={220} />
                <span className="text-sm text-soft max-sm:col-start-2">
                  {n} of {watched.result.n}, {percentSpan(interval)}
                </span>
              </li>
            ))}
          </ul>
          <p className="mt-4 text-sm text-soft">
            Watched on <Day ms={watched.startedMs} />
            {watched.beepSeconds !== null && `, a beep each ${watched.beepSeconds} s`}: momentary time sampling (Altmann 1974). Looks close
            together resemble each other: the ranges go by how many independent ones they are worth.
            {watched.result.agreement !== null && ` ${agreementWords(watched.result.agreement)}`}
          </p>
        </div>
      )}
      {children}
    </>
  );
}
