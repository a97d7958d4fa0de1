import { FEWEST_TRIALS_TO_TELL } from "@/core/evidence";
import type { SessionSummary } from "@/core/record";
import { counted, percentSpan } from "@/core/words";
import { decimals, percent, Whisker } from "@/ui/measure";
import { MeasureRow } from "./measure-row";

/** What the horse answered, how often and how surely. */
export function Answers({ summary }: { summary: SessionSummary }) {
  const m = summary.measures;
  // Minutes from memory carry no rate.
  const rate = (value: number | null) => (summary.late ? "–" : decimals(value, 2));
  const { offers } = summary;
  const perWork = `per minute of working time: ${decimals(summary.workSeconds / 60, 2)} min, first block to finish, less breaks`;
  return (
    <section>
      <h2 className="mb-2 text-xl">Answers</h2>
      <div>
        <MeasureRow
          label="met"
          value={`${m.met} of ${m.n}`}
          testId="met"
          below={
            m.wilson95 === null ? undefined : (
              <>
                {m.n < FEWEST_TRIALS_TO_TELL ? "too few to tell" : `${percent(m.success ?? 0)}, could be ${percentSpan(m.wilson95)}`}
                <Whisker share={m.success} interval={m.wilson95} width={360} />
              </>
            )
          }
          how={
            <>
              Trials met over all trials, with the 95 % score interval (Wilson 1927). It takes each trial as a fresh draw; trials of one
              session resemble each other, so the truth is a little wider.
            </>
          }
        />
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
              {m.reinforced} reinforced: {counted(m.released, "release")}, {counted(m.marked, "mark")}, {counted(m.foodPieces, "piece")} of
              food
            </>
          }
          how={<>Trials whose answer earned its release, mark, food or another reinforcer, {perWork}.</>}
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
        {offers.count > 0 && (
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
        )}
        <MeasureRow
          label="between met answers"
          value={summary.medianInterResponseSeconds === null ? "–" : `${decimals(summary.medianInterResponseSeconds, 1)} s`}
          how={<>Median time from one met answer to the next inside a block, breaks taken out.</>}
        />
      </div>
    </section>
  );
}
