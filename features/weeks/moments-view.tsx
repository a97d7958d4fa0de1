import { type BeforeItGoes, FOLLOWS_WITHIN_SECONDS, type GoodMoment, type PastSpan, precursorWords } from "@/core/past";
import { counted, inHundredths } from "@/core/words";
import { SeriesChart } from "@/ui/chart";
import { percent } from "@/ui/measure";
import { ScrollBox } from "@/ui/scroll-box";
import { turnChart } from "./charts";
import { restsOn, ToldHead } from "./figure";
import { LadderChoice, SpanChoice, spanKeys } from "./span-choice";

/** What a view of moments opens on. */
export const MOMENTS_SPAN = "91";

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
        <ToldHead title="When to stop" of="when to stop" rests={rests}>
          A session turns where two asks running failed, took half as long again as its own first good answers on that rung and side, or
          were less easy. Sessions that were stopped before are cut off there (Kaplan and Meier 1958). Any order of asks has two bad ones
          running somewhere, and whoever stops after two makes every session end in them. So it is said only where asks late in a session
          are worse than those before let expect (a score test, after Rao 1948), at p under 0.0075.
        </ToldHead>
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
        <ToldHead title="What comes before it goes" of="what comes before it goes" rests={rests} restsWords="The trials of these sessions">
          How often it left or showed danger within {FOLLOWS_WITHIN_SECONDS} s after each sign, zone, wrong choice, clearer ask or wait,
          beside how often it would by chance (lag analysis; after Bakeman and Quera 2011). What repeats within the window is one, and
          chance is the same bouts moved on within the same third of their session, 2000 times, since signs and leaving come in bouts and
          both late. Called at 0.05 over how many were looked at. It says what comes before, not what makes it go.
        </ToldHead>
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
