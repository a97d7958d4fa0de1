import Link from "next/link";
import type { Past, PastFilter, PastSpan, PastTrial } from "@/core/past";
import { counted, SIDE_WORDS } from "@/core/words";
import { Day } from "@/ui/day";
import { OutcomeMark, OutcomeSymbols } from "@/ui/ribbon";
import { ScrollBox } from "@/ui/scroll-box";
import { type AddressKeys, addressOf } from "./span-choice";

export const TRIALS_PAGE = 200;

const WORDS: Readonly<Record<string, string>> = { met: "met", try: "try", miss: "something else", refused: "no answer" };
const KEY_WORDS: Readonly<Partial<Record<keyof PastFilter, string>>> = {
  rungs: "first session on a rung or later",
  begins: "began on side",
  wrong: "a wrong choice met",
  holds: "only those with",
};

/** What a filter says, in words. */
export function filterWords(filter: PastFilter, names: ReadonlyMap<string, string>): string {
  const said = Object.entries(filter).map(([key, value]) => {
    if (key === "session") return "one session";
    if (key === "from" || key === "to") return key === "from" ? "since a session" : "before a session";
    if (key === "side") return value === "L" ? SIDE_WORDS.L : value === "R" ? SIDE_WORDS.R : "no side";
    const name = names.get(value) ?? value;
    return ["ladder", "handler", "place", "kit"].includes(key) ? name : `${KEY_WORDS[key as keyof PastFilter] ?? key} ${name}`;
  });
  return said.length === 0 ? "everything" : said.join(", ");
}

const seconds = (value: number | null) => (value === null ? "" : value.toFixed(2));

/** The trials a figure rests on, every one, a page at a time. */
export function TrialsList({
  horseId,
  past,
  trials,
  names,
  said,
  span,
  page,
  kept,
}: {
  horseId: string;
  past: Past;
  trials: readonly PastTrial[];
  names: ReadonlyMap<string, string>;
  said: string;
  span: PastSpan;
  page: number;
  kept: AddressKeys;
}) {
  const path = `/horses/${horseId}/review/trials`;
  const pages = Math.max(1, Math.ceil(trials.length / TRIALS_PAGE));
  const shown = trials.slice((page - 1) * TRIALS_PAGE, page * TRIALS_PAGE);
  const met = trials.filter(({ outcome }) => outcome === "met").length;
  return (
    <>
      <h1 className="text-[2rem]">The trials it rests on</h1>
      <p className="mt-2">
        {said}, {span.label}: {counted(trials.length, "trial")}, {met} met.
      </p>
      {trials.length === 0 ? null : (
        <ScrollBox label="Trials" className="mt-4">
          <OutcomeSymbols />
          <table className="figures w-full text-left text-[0.95rem]">
            <thead className="text-sm text-soft">
              <tr>
                {["session", "trial", "answer", "rung", "side", "phase", "answered s", "waited s", "release s", "ease", "handler"].map(
                  (head) => (
                    <th key={head} scope="col" className="py-1 pr-5 font-normal whitespace-nowrap">
                      {head}
                    </th>
                  ),
                )}
              </tr>
            </thead>
            <tbody>
              {shown.map((trial) => {
                const session = past.sessions[trial.session];
                return (
                  <tr key={`${trial.session} ${trial.number}`} className="border-t border-hair *:py-1 *:pr-5">
                    <td className="whitespace-nowrap">{session === undefined ? "" : <Day ms={session.startedMs} time />}</td>
                    <td>
                      <Link href={`/horses/${horseId}/review/${session?.id}?trial=${trial.number}`} className="link">
                        {trial.number}
                      </Link>
                    </td>
                    <td className="whitespace-nowrap">
                      <span className="inline-flex items-center gap-1.5">
                        <OutcomeMark outcome={trial.outcome} size={16} /> {WORDS[trial.outcome]}
                      </span>
                    </td>
                    <td>{trial.rung ?? ""}</td>
                    <td>{trial.side === null ? "" : SIDE_WORDS[trial.side]}</td>
                    <td>{trial.phase ?? ""}</td>
                    <td>{seconds(trial.latencySeconds)}</td>
                    <td>{seconds(trial.waitedSeconds)}</td>
                    <td>{seconds(trial.releaseLagSeconds)}</td>
                    <td>{trial.ease ?? ""}</td>
                    <td className="whitespace-nowrap">{trial.handler === null ? "" : (names.get(trial.handler) ?? trial.handler)}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </ScrollBox>
      )}
      {pages > 1 && (
        <nav aria-label="Pages" className="mt-4 flex flex-wrap gap-x-5">
          {page > 1 && (
            <Link href={addressOf(path, { ...kept, page: page > 2 ? String(page - 1) : undefined })} className="link">
              Earlier ones
            </Link>
          )}
          <span>
            page {page} of {pages}
          </span>
          {page < pages && (
            <Link href={addressOf(path, { ...kept, page: String(page + 1) })} className="link">
              Later ones
            </Link>
          )}
        </nav>
      )}
    </>
  );
}
