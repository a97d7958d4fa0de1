import { RANGE_MEANS } from "@/core/compare";
import type { OverWeeks, WeeklyChange } from "@/core/past";
import { counted, percentSpan } from "@/core/words";
import { Figure } from "./figure";

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

/** The trials a figure rests on, as an address. */
type Rests = (more?: object) => string;

/** How often it was met, how light, how soon, how often a minute. */
function MainFigures({ over, rests }: { over: OverWeeks; rests: Rests }) {
  const { all } = over;
  const perRung = new Set(over.points.flatMap(({ trials }) => trials.map(({ version, rung }) => `${version} ${rung}`))).size;
  return (
    <>
      <Figure
        label="met"
        value={`${all.met} of ${all.n}`}
        testId="weeks-met"
        below={over.share.interval === null ? over.share.sentence : `could be anywhere from ${percentSpan(over.share.interval)}`}
        how={
          <>
            Met over asks of all rungs worked in this span, {counted(perRung, "rung")} of them. {RANGE_MEANS} It rises and falls with what
            was asked.
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
            Met answers at phase 1 over met answers with a phase. A week’s change is the slope of least squares over sessions with its 95 %
            t interval, neighbouring sessions taken for alike; a change is called where that leaves nothing out.
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
            Johansen 1978). The bars in the chart are the times at which one half cannot be ruled out (after Brookmeyer and Crowley 1982).
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
            Met answers per minute of the blocks worked on it. The factor a week is least squares on the logarithm of each session’s rate
            (celeration; Pennypacker, Gutierrez and Lindsley 2003) with its 95 % t interval, neighbouring sessions taken for alike; a
            session without a right answer counts as one in its time. Analysts call it the response rate.
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
    </>
  );
}

/** What was kept overnight, and ease, where there is something to say of them. */
function OtherFigures({ over, rests }: { over: OverWeeks; rests: Rests }) {
  const trials = over.points.flatMap((point) => point.trials);
  return (
    <>
      {over.warmUps.length > 0 && (
        <Figure
          label="overnight"
          value={`${over.warmUps.reduce((sum, { before }) => sum + before, 0)} → ${over.warmUps.reduce((sum, { today }) => sum + today, 0)} of ${over.warmUps.reduce((sum, { ofToday }) => sum + ofToday, 0)}`}
          below={`last five before against first five, ${counted(over.warmUps.length, "time")} on the same rung`}
          how={
            <>
              Of sessions that began where the one before ended: met of its last five, then of the first five. The analyst’s warm-up loss.
            </>
          }
          rests={rests()}
        />
      )}
      {over.easeChange !== null && (
        <Figure
          label="calm"
          value={(
            trials.reduce((sum, { ease }) => sum + (ease ?? 0), 0) / Math.max(1, trials.filter(({ ease }) => ease !== null).length)
          ).toFixed(1)}
          below={changeWords(over.easeChange, (value) => signed(value, 2, ""), "calmer", "less calm")}
          how={<>Mean of the grades given, 0 frantic to 4 deeply relaxed, and its change a week over sessions.</>}
          rests={rests({ holds: "ease" })}
        />
      )}
    </>
  );
}

/** What a behaviour comes to over a span, each figure with the trials it rests on. */
export function WeekFigures({ over, rests }: { over: OverWeeks; rests: Rests }) {
  return (
    <section aria-label="What it comes to" className="mt-3 grid grid-cols-[minmax(0,1fr)] gap-x-12 md:grid-cols-2 xl:grid-cols-3">
      <MainFigures over={over} rests={rests} />
      <OtherFigures over={over} rests={rests} />
    </section>
  );
}
