import Link from "next/link";
import { type BeforeItGoes, FOLLOWS_WITHIN_SECONDS, type GoodMoment, type PastSpan, precursorWords } from "@/core/past";
import { counted, inHundredths } from "@/core/words";
import { type ChartSpec, SeriesChart } from "@/ui/chart";
import { How, percent } from "@/ui/measure";
import { ScrollBox } from "@/ui/scroll-box";
import { restsOn } from "./figure";
import { LadderChoice, SpanChoice, spanKeys } from "./span-choice";

/** What a view of moments opens on. */
export const MOMENTS_SPAN = "91";

function turnChart({ curve }: GoodMoment): ChartSpec | null {
  if (curve === null || curve.answered === 0) return null;
  const steps = [[0, 1, 0] as const, ...curve.steps];
  return {
    title: "Not turned yet after so many good answers",
    points: steps.map(([good]) => ({ x: good })),
    series: [
      {
        name: "sessions still good",
        colour: "tarn",
        style: "steps",
        values: steps.map(([, share]) => share),
        low: steps.map(([, share, error]) => (error === null ? null : Math.max(0, share - 1.96 * error))),
        high: steps.map(([, share, error]) => (error === null ? null : Math.min(1, share + 1.96 * error))),
        words: steps.map(([, share]) => percent(share)),
      },
    ],
    x: { kind: "number", title: "good answers" },
    y: { title: "sessions", least: 0, most: 1, percent: true },
  };
}

/** Points with the sign that is read as one. */
const points = (share: number) => String(inHundredths(share)).replace("-", "−");

function GoesTable({ before }: { before: BeforeItGoes }) {
  return (
    <ScrollBox label="What comes before it goes" className="mt-3">
      <table className="figures text-left">
        <thead className="text-sm text-soft">
          <tr className="*:py-1 *:pr-6">
            {["after", "it went", "any moment", "more by, could be", "sessions", "so"].map((head) => (
              <th key={head} scope="col" className="font-normal whitespace-nowrap">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {before.precursors.slice(0, 12).map((one) => (
            <tr key={`${one.kind} ${one.name}`} className={`border-t border-hair *:py-1.5 *:pr-6 ${one.called ? "font-semibold" : ""}`}>
              <th scope="row" className="font-[inherit]">
                {precursorWords(one)}
              </th>
              <td className="whitespace-nowrap">
                {one.followed} of {one.bouts}
              </td>
              <td>{percent(one.base)}</td>
              <td className="whitespace-nowrap">
                {one.interval === null ? "too few sessions" : `${points(one.interval[0])} to ${points(one.interval[1])} points`}
              </td>
              <td>{one.sessions}</td>
              <td>{one.called ? (one.prompts ? "shown; said at the horse" : "shown") : "not shown"}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </ScrollBox>
  );
}

/** When to stop, and what comes before it goes. */
export function MomentsView({
  horseId,
  ladders,
  ladder,
  span,
  good,
  before,
}: {
  horseId: string;
  ladders: readonly { readonly id: string; readonly name: string }[];
  ladder: string | null;
  span: PastSpan;
  good: GoodMoment;
  before: BeforeItGoes;
}) {
  const path = `/horses/${horseId}/review/moments`;
  const chart = turnChart(good);
  const filter = { ...(ladder === null ? {} : { ladder }), kind: "work" };
  const rests = restsOn(horseId, filter, { span: span.key === "own" ? undefined : span.key, from: span.from, to: span.to });
  return (
    <>
      <h1 className="text-[2rem]">Moments</h1>
      <div className="mt-3 mb-5 grid gap-3">
        <LadderChoice path={path} ladders={ladders} chosen={ladder} kept={spanKeys(span, MOMENTS_SPAN)} all />
        <SpanChoice path={path} span={span} kept={{ ladder: ladder ?? undefined }} usual={MOMENTS_SPAN} />
      </div>
      <section>
        <h2 className="flex items-baseline gap-2 text-xl">
          When to stop
          <How of="when to stop">
            A session turns where two asks running failed, took half as long again as its own first good answers on that rung and side, or
            were less easy. Sessions that were stopped before are cut off there (Kaplan and Meier 1958). Any order of asks has two bad ones
            running somewhere, so it is said only where later asks are worse than shuffled ones of the same session, at p under 0.01.
            <p className="mt-2">
              <Link href={rests} className="link">
                The trials it rests on
              </Link>
            </p>
          </How>
        </h2>
        <p className="mt-1 text-lg" data-testid="good-moment">
          {good.sentence}
        </p>
        {good.next !== null && <p className="mt-1">{good.next.sentence}</p>}
        {chart !== null && (
          <div className="mt-4 max-w-2xl">
            <SeriesChart spec={chart} />
          </div>
        )}
      </section>
      <section className="mt-9">
        <h2 className="flex items-baseline gap-2 text-xl">
          What comes before it goes
          <How of="what comes before it goes">
            How often it left or showed danger within {FOLLOWS_WITHIN_SECONDS} s after each sign, zone, wrong choice, clearer ask or wait,
            beside how often it did after any second of the same sessions (lag analysis; after Bakeman and Quera 2011). What repeats within
            the window is one, and the session is the unit. Called at 0.05 over how many were looked at. It says what comes before, not what
            makes it go.
            <p className="mt-2">
              <Link href={rests} className="link">
                The trials of these sessions
              </Link>
            </p>
          </How>
        </h2>
        <p className="mt-1 text-lg" data-testid="before-it-goes">
          {before.sentence}
        </p>
        {before.precursors.length > 0 && (
          <>
            <p className="text-sm text-soft" hidden={before.precursors.every(({ called }) => !called)}>
              {counted(before.goes, "time")} it left or showed danger, in {counted(before.sessions, "session")}.
            </p>
            <GoesTable before={before} />
          </>
        )}
        <p className="mt-3 max-w-prose text-sm text-soft">
          A danger sign brings the stop card whatever this says. Where a horse shows danger again and again, work with a qualified
          professional; where pain may be behind it, ask a veterinarian.
        </p>
      </section>
    </>
  );
}
