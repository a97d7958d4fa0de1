import Link from "next/link";
import { RANGE_MEANS } from "@/core/compare";
import type { OverWeeks, PastSpan, WeeklyChange } from "@/core/past";
import { counted, percentSpan } from "@/core/words";
import { SeriesChart } from "@/ui/chart";
import { How } from "@/ui/measure";
import {
  askCharts,
  connectedChart,
  cumulativeChart,
  easeChart,
  halfChart,
  lightnessChart,
  metChart,
  ratesChart,
  rungChart,
  signsChart,
  staysChart,
  warmUpChart,
} from "./charts";
import { Figure, restsOn } from "./figure";
import { addressOf, type Kept, LadderChoice, SpanChoice, spanKeys } from "./span-choice";

/** A change a week as it may be said: with its interval, and whether it is one. */
function changeWords(change: WeeklyChange | null, unit: (value: number) => string, up: string, down: string): string {
  if (change === null) return "five sessions on different days are needed to say more";
  const [low, high] = change.interval;
  const span = `${unit(low)} to ${unit(high)} a week`;
  if (low > 0) return `${up}, ${span}`;
  if (high < 0) return `${down}, ${span}`;
  return `no change shown yet: ${span}`;
}

const factorWords = (trend: OverWeeks["responseTrend"]) => {
  if (trend === null) return "five sessions on different days are needed to say more";
  const [low, high] = trend.interval;
  const span = `× ${low.toFixed(2)} to ${high.toFixed(2)} a week`;
  return low > 1 ? `grows, ${span}` : high < 1 ? `falls, ${span}` : `no change shown yet: ${span}`;
};

const signed = (value: number, places: number, unit: string) => `${value < 0 ? "−" : "+"}${Math.abs(value).toFixed(places)}${unit}`;

/** One behaviour over weeks: what it comes to, then each thing as a chart. */
export function OverWeeksView({
  horseId,
  ladders,
  ladder,
  span,
  over,
  by,
  handlers,
}: {
  horseId: string;
  ladders: readonly { readonly id: string; readonly name: string }[];
  ladder: { readonly id: string; readonly name: string };
  span: PastSpan;
  over: OverWeeks;
  by: "sessions" | "asks";
  /** Names of who handled, in the order they came. */
  handlers: readonly string[];
}) {
  const path = `/horses/${horseId}/review/weeks`;
  const kept: Kept = { ladder: ladder.id, ...(by === "asks" ? { by } : {}) };
  const rests = (more: object = {}) => restsOn(horseId, { ...over.filter, ...more }, spanKeys(span));
  const { points, all } = over;
  const trials = points.flatMap((point) => point.trials);
  let at = 0;
  const seams = points.map((point) => {
    at += point.trials.length;
    return at + 0.5;
  });
  const perRung = new Set(trials.map(({ version, rung }) => `${version} ${rung}`)).size;
  return (
    <>
      <h1 className="text-[2rem]">{ladder.name}</h1>
      <div className="mt-3 grid gap-3">
        <LadderChoice path={path} ladders={ladders} chosen={ladder.id} kept={spanKeys(span)} />
        <SpanChoice path={path} span={span} kept={kept} />
      </div>
      {points.length === 0 ? (
        <p className="mt-6 text-lg">Not worked in {span.label}.</p>
      ) : (
        <>
          <p className="mt-4 text-lg">
            {counted(points.length, "session")} and {counted(trials.length, "ask")}, {span.label}.
          </p>
          <section aria-label="What it comes to" className="mt-3 grid grid-cols-[minmax(0,1fr)] gap-x-12 md:grid-cols-2 xl:grid-cols-3">
            <Figure
              label="met"
              value={`${all.met} of ${all.n}`}
              testId="weeks-met"
              below={over.share.interval === null ? over.share.sentence : `could be anywhere from ${percentSpan(over.share.interval)}`}
              how={
                <>
                  Met over asks of all rungs worked in this span, {counted(perRung, "rung")} of them. {RANGE_MEANS} It rises and falls with
                  what was asked.
                </>
              }
              rests={rests()}
            />
            <Figure
              label="at the lightest cue"
              value={over.lightness.share === null ? "–" : `${Math.round(over.lightness.share * 100)} %`}
              testId="weeks-lightness"
              below={changeWords(over.lightnessChange, (value) => signed(value * 100, 1, " points"), "lighter", "less light")}
              how={
                <>
                  Met answers at phase 1 over met answers with a phase. A week’s change is the slope of least squares over sessions with its
                  95 % t interval, neighbouring sessions taken for alike; a change is called where that leaves nothing out.
                </>
              }
              rests={rests({ holds: "phase" })}
            />
            <Figure
              label="half answered after"
              value={over.half === null ? "–" : over.half.seconds === null ? "fewer than half" : `${over.half.seconds.toFixed(2)} s`}
              testId="weeks-half"
              below={
                over.half === null
                  ? "no times logged: the Timed way gives them"
                  : changeWords(over.halfChange, (value) => signed(value, 2, " s"), "slower", "quicker")
              }
              how={
                <>
                  Ask to the first movement of a met or try answer; something else ends an ask without one (cumulative incidence, Aalen and
                  Johansen 1978). The bars in the chart are the times at which one half cannot be ruled out (after Brookmeyer and Crowley
                  1982).
                </>
              }
              rests={rests({ holds: "timed" })}
            />
            <Figure
              label="right answers a minute"
              value={all.responsesPerMinute === null ? "–" : all.responsesPerMinute.toFixed(2)}
              testId="weeks-responses"
              below={factorWords(over.responseTrend)}
              how={
                <>
                  Met answers per minute of the blocks worked on it. The factor a week is least squares on the logarithm of each session’s
                  rate (celeration; Pennypacker, Gutierrez and Lindsley 2003) with its 95 % t interval, neighbouring sessions taken for
                  alike; a session without a right answer counts as one in its time. Analysts call it the response rate.
                </>
              }
              rests={rests()}
            />
            <Figure
              label="reinforced a minute"
              value={all.reinforcedPerMinute === null ? "–" : all.reinforcedPerMinute.toFixed(2)}
              below={factorWords(over.reinforcedTrend)}
              how={<>Answers that earned their release, mark, food or another reinforcer, per minute of the same blocks.</>}
              rests={rests({ holds: "reinforced" })}
            />
            {over.warmUps.length > 0 && (
              <Figure
                label="overnight"
                value={`${over.warmUps.reduce((sum, { before }) => sum + before, 0)} → ${over.warmUps.reduce((sum, { today }) => sum + today, 0)} of ${over.warmUps.reduce((sum, { ofToday }) => sum + ofToday, 0)}`}
                below={`last five before against first five, ${counted(over.warmUps.length, "time")} on the same rung`}
                how={
                  <>
                    Of sessions that began where the one before ended: met of its last five, then of the first five. The analyst’s warm-up
                    loss.
                  </>
                }
                rests={rests()}
              />
            )}
            {over.easeChange !== null && (
              <Figure
                label="ease"
                value={(
                  trials.reduce((sum, { ease }) => sum + (ease ?? 0), 0) / Math.max(1, trials.filter(({ ease }) => ease !== null).length)
                ).toFixed(1)}
                below={changeWords(over.easeChange, (value) => signed(value, 2, ""), "calmer", "less calm")}
                how={<>Mean of the grades given, 0 frantic to 4 deeply relaxed, and its change a week over sessions.</>}
                rests={rests({ holds: "ease" })}
              />
            )}
          </section>
          <p className="no-print mt-6 flex flex-wrap items-baseline gap-x-1">
            {(["sessions", "asks"] as const).map((one) => (
              <Link
                key={one}
                href={addressOf(path, { ...spanKeys(span), ladder: ladder.id, by: one === "asks" ? one : undefined })}
                aria-current={by === one ? "true" : undefined}
                className={`rounded px-2 py-1 ${by === one ? "bg-tarn-wash font-semibold" : "hover:underline"}`}
              >
                {one === "sessions" ? "session by session" : "ask by ask"}
              </Link>
            ))}
            <span className="ml-3 text-sm text-soft">
              <Link href={rests()} className="link">
                all {counted(trials.length, "ask")} in words
              </Link>
            </span>
          </p>
          <div className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-9 lg:grid-cols-2">
            {(by === "asks"
              ? askCharts(trials, seams.slice(0, -1))
              : [
                  rungChart(horseId, over, handlers),
                  metChart(horseId, over),
                  lightnessChart(horseId, over),
                  ...(over.half === null ? [] : [halfChart(horseId, over)]),
                  ratesChart(horseId, over),
                  cumulativeChart(over),
                  ...(points.some(({ meanEase }) => meanEase !== null) ? [easeChart(horseId, over)] : []),
                  ...(points.some(({ departures }) => departures > 0) ? [connectedChart(horseId, over)] : []),
                  staysChart(over),
                  signsChart(horseId, over),
                  warmUpChart(horseId, over),
                ].filter((spec) => spec !== null)
            ).map((spec) => (
              <SeriesChart
                key={spec.title}
                spec={spec}
                level={2}
                help={HELP[spec.title] === undefined ? undefined : <How of={spec.title}>{HELP[spec.title]}</How>}
              />
            ))}
          </div>
        </>
      )}
    </>
  );
}

/** What a chart shows, where its name does not say it. */
const HELP: Readonly<Record<string, string>> = {
  "Rung worked":
    "The highest rung worked in each session, warm-up and the easy one at its end aside. Dashed lines: a new version of the plan, or two weeks and more without it. A mark under a session: something was special, said when you point at it.",
  Met: "Bars are the 95 % score interval of that session alone (Wilson 1927).",
  "Right answers and reinforcers a minute":
    "On a logarithmic axis equal steps are equal factors. The dashed line is the factor a week (celeration; Pennypacker, Gutierrez and Lindsley 2003).",
  "Right answers, added up":
    "Right answers against working time, breaks taken out: steeper is more often. Rings are reinforced ones (cumulative record; Ferster and Skinner 1957). Times written from memory are left out.",
  "With the handler": "One less the share of the working time it was away.",
  "Still there after":
    "Of stays that ended because it left; one long enough, or that the handler ended, is cut off there (Kaplan and Meier 1958, bars by Greenwood’s formula).",
  "First five against the last five before": "Only where a session began on the rung the one before ended on.",
};
