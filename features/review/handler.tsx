import type { SidePicture } from "@/core/compare";
import { LATE_FEED_SECONDS, LATE_RELEASE_SECONDS } from "@/core/evidence";
import { firstLookOf, lookSidesSentence } from "@/core/know";
import type { SessionRecord, SessionSummary } from "@/core/record";
import { clockWords, decimals, LagStrip, percent } from "@/ui/measure";
import { MeasureRow } from "./measure-row";

/** What was measured of a kind of lag, trial by trial; nothing where it was not. */
function lagsOf({ trials }: SessionRecord, key: "releaseLagSeconds" | "markLagSeconds" | "feedDelaySeconds"): readonly number[] {
  return trials.flatMap((trial) => trial[key] ?? []);
}

/** How long after the criterion the pressure was gone. */
function ReleaseLag({ record, summary }: { record: SessionRecord; summary: SessionSummary }) {
  const { median, lateShare, n, p90 } = summary.measures.releaseLag;
  const lags = lagsOf(record, "releaseLagSeconds");
  return (
    <>
      {lags.length > 0 && <LagStrip lags={lags} limitSeconds={LATE_RELEASE_SECONDS} />}
      <MeasureRow
        label="release lag"
        value={median === null ? "–" : `${decimals(median, 2)} s`}
        testId="release-lag"
        below={
          lateShare === null ? (
            "the Timed way gives it"
          ) : (
            <>
              late {percent(lateShare)} of {n}; nine in ten within {decimals(p90, 2)} s
            </>
          )
        }
        how={
          <>
            Criterion reached to release: median, 90th percentile and the share over {LATE_RELEASE_SECONDS} s (common practice). By hand it
            is known to about ±0.15 s. Below zero: released too early.
          </>
        }
      />
    </>
  );
}

/** How long after the criterion the mark came, and the food after the mark. */
function MarkAndFood({ record, summary }: { record: SessionRecord; summary: SessionSummary }) {
  const { markLag, feedDelay } = summary.measures;
  const marksLate = lagsOf(record, "markLagSeconds");
  const foodLate = lagsOf(record, "feedDelaySeconds");
  const marks = record.facts.filter((fact) => fact.type === "mark");
  const heardMarks = marks.filter(({ payload }) => payload.heard !== undefined).length;
  return (
    <>
      {heardMarks > 0 && (
        <MeasureRow
          label="marks the phone heard"
          value={`${heardMarks} of ${marks.length}`}
          testId="marks-heard"
          how={<>The others were tapped by hand. A heard one is known to about 0.02 s by itself.</>}
        />
      )}
      {marksLate.length > 1 && <LagStrip lags={marksLate} limitSeconds={LATE_RELEASE_SECONDS} />}
      {markLag.n > 0 && (
        <MeasureRow
          label="mark lag"
          value={`${decimals(markLag.median, 2)} s`}
          below={
            <>
              late {percent(markLag.lateShare ?? 0)} of {markLag.n}
            </>
          }
          how={
            <>
              Criterion reached to mark, as for the release.
              {heardMarks > 0 && " A mark the phone heard is known to about 0.02 s by itself; the answer before it was tapped by hand."}
            </>
          }
        />
      )}
      {foodLate.length > 1 && <LagStrip lags={foodLate} limitSeconds={LATE_FEED_SECONDS} />}
      {feedDelay.n > 0 && (
        <MeasureRow
          label="food after the mark"
          value={`${decimals(feedDelay.median, 2)} s`}
          below={
            <>
              over 3 s in {percent(feedDelay.lateShare ?? 0)} of {feedDelay.n}
            </>
          }
          how={<>Mark to food, median; over 3 s is late (common practice).</>}
        />
      )}
    </>
  );
}

/** How the planned dwell was kept, and steps in the wrong order. */
function DwellAndOrder({ record, summary }: { record: SessionRecord; summary: SessionSummary }) {
  const faults = Object.entries(summary.faultCounts);
  const slips = record.trials.flatMap(({ number, askMs, faults: own }) => own.map((fault) => ({ number, askMs, fault })));
  return (
    <>
      {summary.dwell.n > 0 && (
        <MeasureRow
          label="dwell kept"
          value={percent(summary.dwell.share ?? 0)}
          testId="dwell-kept"
          below={
            <>
              {summary.dwell.within} of {summary.dwell.n} steps; too soon {summary.dwell.tooSoon}, too late {summary.dwell.tooLate}
            </>
          }
          how={<>Share of phase steps within 25 % of the planned dwell (common practice). A phase is left by a press only.</>}
        />
      )}
      {faults.length > 0 && (
        <MeasureRow
          label="order slips"
          value={String(faults.reduce((sum, [, n]) => sum + n, 0))}
          below={
            <>
              {faults.map(([name, n]) => `${name} ${n}`).join(", ")}
              <details>
                <summary>each, in order</summary>
                <ol>
                  {slips.map(({ number, askMs, fault }, i) => (
                    <li key={i}>
                      <a href={`?trial=${number}#put-right`} className="hover:underline">
                        {clockWords(askMs / 1000)} trial {number}: {fault}
                      </a>
                    </li>
                  ))}
                </ol>
              </details>
            </>
          }
          how={
            <>
              Steps in the wrong order: mark before the answer, food before the mark, food before the polite wait is over, the ask raised
              during a try, a release without a try.
            </>
          }
        />
      )}
    </>
  );
}

/** Left against right, in this session and over the last days. Nothing where no side was named. */
function Sides({
  record,
  summary: { left, right },
  sides,
  sidesDays,
}: {
  record: SessionRecord;
  summary: SessionSummary;
  sides: SidePicture;
  sidesDays: number;
}) {
  if (left.n + right.n === 0) return null;
  const side = (words: string, met: number, n: number) => (
    <p className="figures flex justify-between">
      <span>{words}</span>
      <span>{n === 0 ? "none" : `${met} of ${n}`}</span>
    </p>
  );
  // A first look is on no rung: its items are held against each other, side by side.
  const lookSides = lookSidesSentence(firstLookOf(record));
  return (
    <>
      <h2 className="mt-6 mb-2 text-xl">Left and right</h2>
      {side("left, met", left.met, left.n)}
      {side("right, met", right.met, right.n)}
      <p className="mt-1 text-sm text-soft">
        {lookSides ?? "One session says nothing of sides."} Over the last {sidesDays} days: {sides.headline}. {sides.reason}
      </p>
      <details className="text-sm text-soft">
        <summary>how</summary>
        Right less left within each rung, session by session, tested by turning the signs of the sessions about; called at p under 0.01,
        since it is looked at again and again. Left out: first looks, what was written from memory, rungs that name one side.
      </details>
    </>
  );
}

/** The handler's own timing, and left against right. */
export function Handler({
  record,
  summary,
  sides,
  sidesDays,
}: {
  record: SessionRecord;
  summary: SessionSummary;
  /** What the horse's sessions of late say of its sides. */
  sides: SidePicture;
  sidesDays: number;
}) {
  return (
    <section>
      <h2 className="mb-2 text-xl">My release</h2>
      <ReleaseLag record={record} summary={summary} />
      <MarkAndFood record={record} summary={summary} />
      <DwellAndOrder record={record} summary={summary} />
      <Sides record={record} summary={summary} sides={sides} sidesDays={sidesDays} />
    </section>
  );
}
