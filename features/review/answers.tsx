import { toldShare } from "@/core/compare";
import { sumsOfSessions } from "@/core/evidence";
import type { SessionSummary } from "@/core/record";
import { counted, percentSpan } from "@/core/words";
import { decimals, percent, Whisker } from "@/ui/measure";
import { MeasureRow } from "./measure-row";

/** What earned what, told apart; the pieces add up to all that were given. */
function earnedWords({ released, marked, fed, other, unsaid, piecesInTrials, piecesOutside }: SessionSummary["earned"]): string {
  const kinds = [
    [released, "released"],
    [marked, "marked"],
    [fed, "fed"],
    [other, "other"],
    [unsaid, "not said how"],
  ] as const;
  const by = kinds.flatMap(([n, word]) => (n === 0 ? [] : [`${n} ${word}`])).join(", ");
  const pieces = counted(piecesInTrials + piecesOutside, "piece");
  if (piecesInTrials + piecesOutside === 0) return by;
  const food = piecesOutside === 0 ? `${pieces} of food` : `${pieces} of food, ${piecesOutside} of them outside the trials`;
  return by === "" ? food : `${by}; ${food}`;
}

/** How often it was met: of one ladder with its interval, of several ladder by ladder. */
function MetRow({ summary: { measures: m, ladders } }: { summary: SessionSummary }) {
  const told = toldShare(sumsOfSessions([{ met: m.met, of: m.n }]));
  const pooled = ladders.length > 1;
  return (
    <MeasureRow
      label="met"
      value={`${m.met} of ${m.n}`}
      testId="met"
      below={
        pooled ? (
          ladders.map(({ behaviour, met, of }, i) => (
            <span key={i} className="block">
              {behaviour}: {met} of {of}
            </span>
          ))
        ) : m.n === 0 ? undefined : (
          <>
            {told.interval === null
              ? "too few to tell"
              : `${percent(m.success ?? 0)}; in this one session could be ${percentSpan(told.interval)}`}
            <Whisker share={m.success} interval={told.interval} width={360} />
          </>
        )
      }
      how={
        pooled ? (
          <>Trials met over all trials, ladder by ladder. Shares of several ladders make no one share.</>
        ) : (
          <>
            Trials met over all trials, with the 95 % score interval (Wilson 1927) of this session alone. Trials of one session resemble
            each other: another day can lie elsewhere, and the ladder says what several sessions come to.
          </>
        )
      }
    />
  );
}

/** Answers nobody had asked for, and the share that came on cue. Nothing where none were offered. */
function OfferRows({
  offers,
  rate,
  perWork,
}: {
  offers: SessionSummary["offers"];
  rate: (value: number | null) => string;
  perWork: string;
}) {
  if (offers.count === 0) return null;
  return (
    <>
      <MeasureRow
        label="offers"
        value={`${offers.count}`}
        testId="offers"
        below={
          <>
            {rate(offers.perMinute)} a minute
            {offers.afterRelease > 0 && `; ${offers.afterRelease} moved on after the release`}
          </>
        }
        how={<>Answers nobody had asked for, {perWork}. They are no trials.</>}
      />
      <MeasureRow
        label="answers on cue"
        value={percent(offers.onCueShare ?? 0)}
        testId="on-cue"
        how={<>Met and tried answers that came after an ask, of all answers, offers too.</>}
      />
    </>
  );
}

/** What the horse answered, how often and how surely. */
export function Answers({ summary }: { summary: SessionSummary }) {
  const m = summary.measures;
  // Minutes from memory carry no rate.
  const rate = (value: number | null) => (summary.late ? "–" : decimals(value, 2));
  const perWork = `per minute of working time: ${decimals(summary.workSeconds / 60, 2)} min, first block to finish, less breaks`;
  return (
    <section>
      <h2 className="mb-2 text-xl">Answers</h2>
      <div>
        <MetRow summary={summary} />
        <MeasureRow label="asks a minute" value={rate(m.asksPerMinute)} testId="asks-per-min" how={<>Asks (here: trials), {perWork}.</>} />
        <MeasureRow
          label="responses a minute"
          value={rate(m.responsesPerMinute)}
          testId="responses-per-min"
          how={<>Met answers {perWork}. Analysts call it the response rate.</>}
        />
        <MeasureRow
          label="reinforced a minute"
          value={rate(m.reinforcedPerMinute)}
          testId="reinforced-per-min"
          below={
            <>
              {m.reinforced} reinforced: {earnedWords(summary.earned)}
            </>
          }
          how={
            <>Trials whose answer earned its release, mark, food or another reinforcer, {perWork}. One answer may have earned several.</>
          }
        />
        <MeasureRow
          label="tries a minute"
          value={rate(m.triesPerMinute)}
          below={
            <>
              {counted(m.try, "try", "tries")}, {m.miss} something else, {m.refused} no answer
            </>
          }
          how={<>Right idea, short of the rung, {perWork}.</>}
        />
        <OfferRows offers={summary.offers} rate={rate} perWork={perWork} />
        <MeasureRow
          label="between met answers"
          value={summary.medianInterResponseSeconds === null ? "–" : `${decimals(summary.medianInterResponseSeconds, 1)} s`}
          how={<>Median time from one met answer to the next inside a block, breaks taken out.</>}
        />
      </div>
    </section>
  );
}
