import { chainRunsOf } from "@/core/behaviour";
import {
  actCountsOf,
  actTrend,
  cameBackWords,
  type DatedActs,
  ownTimesOf,
  passesOf,
  retreatsOf,
  type WrongKind,
  wrongChoicesOf,
} from "@/core/conversation";
import { PART_WORDS } from "@/core/events/parts";
import { dangerSigns, type SessionRecord } from "@/core/record";
import { counted } from "@/core/words";
import { decimals } from "@/ui/measure";
import { MeasureRow } from "./measure-row";

const kindsWords = (kinds: readonly WrongKind[], unsaid: string) =>
  kinds.map(({ name, count, seconds, timed }) => `${name ?? unsaid} ${count}${timed > 0 ? `, ${decimals(seconds, 0)} s` : ""}`).join("; ");

/** Of fewer the two halves say nothing, whatever they are. */
const FEWEST_TO_COMPARE = 4;

function Wrong({ record }: { record: SessionRecord }) {
  const wrong = wrongChoicesOf(record);
  if (wrong === null) return null;
  return (
    <MeasureRow
      label="wrong choices"
      value={`${wrong.count}`}
      testId="wrong-choices"
      below={
        <>
          <span className="block">
            {wrong.perTenMinutes === null ? "" : `${decimals(wrong.perTenMinutes, 1)} in ten minutes of work; `}
            {wrong.timed === 0
              ? "none timed"
              : `${decimals(wrong.pressureSeconds, 0)} s under pressure, ${wrong.timed} of ${wrong.count} timed`}
          </span>
          <span className="block">It: {kindsWords(wrong.byChoice, "not said")}.</span>
          <span className="block">It met: {kindsWords(wrong.byAnswer, "not said")}.</span>
          {wrong.byBegin.some(({ name }) => name !== null) && (
            <span className="block">Began: {kindsWords(wrong.byBegin, "not said")}.</span>
          )}
          {wrong.halves !== null && wrong.count >= FEWEST_TO_COMPARE && <span className="block">{cameBackWords(wrong.halves)}</span>}
        </>
      }
      how={
        <>
          What follows a choice and makes it rarer is punishment in the analyst's words; pressure that ends with the right choice is
          negative reinforcement. How many came in each half of the working time is counted and no more: in one session bouts of them, and a
          horse that tires or settles, look the same as one that learns. Choices that met nothing, or a release, are no pressure.
        </>
      }
    />
  );
}

function OwnTimesRows({ record }: { record: SessionRecord }) {
  return ownTimesOf(record).map(({ what, curve, times }) => (
    <MeasureRow
      key={what}
      label={what === "looks" ? "looks by its own will" : "until it settled"}
      value={curve.medianSeconds === null ? "–" : `${decimals(curve.medianSeconds, 1)} s`}
      testId={`own-${what}`}
      below={
        <>
          {counted(times.length, "time")}
          {curve.censored > 0 && `, ${curve.censored} cut off`}
          {curve.medianSeconds === null ? "; fewer than half were ended by the horse" : "; half were over by then"}
        </>
      }
      how={<>What was cut off, by you, an ask or the end of the work, counts up to there (Kaplan and Meier 1958).</>}
    />
  ));
}

function Acts({ record, earlier }: { record: SessionRecord; earlier: readonly DatedActs[] }) {
  const acts = actCountsOf(record);
  if (acts === null) return null;
  const now = record.startWallMs === null ? [] : [{ startedMs: record.startWallMs, ...acts }];
  return Object.entries(acts.counts)
    .sort((a, b) => b[1] - a[1])
    .map(([act, n]) => {
      const trend = actTrend([...earlier, ...now], act);
      return (
        <MeasureRow
          key={act}
          label={`you: ${act}`}
          value={`${n}`}
          testId={`act-${act}`}
          below={
            <>
              {acts.minutes > 0 ? `${decimals(n / acts.minutes, 1)} a minute` : ""}
              {trend !== null &&
                `; × ${decimals(trend.factor, 2)} a week over ${trend.sessions} sessions, could be ${decimals(trend.interval[0], 2)} to ${decimals(trend.interval[1], 2)}`}
            </>
          }
          how={
            <>
              A minute of working time. The trend is of this handler with this horse: least squares on the logarithm of the rate; none under
              five sessions.
            </>
          }
        />
      );
    });
}

function Grades({ record }: { record: SessionRecord }) {
  return (["ease", "movement"] as const).flatMap((what) => {
    const passes = passesOf(record, what);
    if (passes === null) return [];
    return (
      <MeasureRow
        key={what}
        label={`${what}, first time through and later`}
        value={`${decimals(passes.first.mean, 1)} → ${decimals(passes.later.mean, 1)}`}
        testId={`passes-${what}`}
        below={`${passes.first.n} graded in the first block on a rung, ${passes.later.n} in later ones`}
        how={<>Mean of the grades from 0 to 4, on rungs worked more than once. Of one session: nothing is tested.</>}
      />
    );
  });
}

function Retreats({ record }: { record: SessionRecord }) {
  const retreats = retreatsOf(record);
  if (retreats === null) return null;
  return (
    <MeasureRow
      label="backed off as the reward"
      value={`${retreats.count}`}
      testId="retreats"
      below={
        <>
          {retreats.nearestMetres === null ? "no distance said" : `nearest ${decimals(retreats.nearestMetres, 1)} m`}
          {retreats.byZone.length > 0 && `; ${retreats.byZone.map(({ zone, count }) => `${zone} ${count}`).join(", ")}`}
        </>
      }
      how={<>Approach and retreat: each is a trial of its rung, and going away before the horse does is what it earned.</>}
    />
  );
}

type Run = ReturnType<typeof chainRunsOf>["runs"][number];

/** Runs of a chain: each link's time, and where it broke. */
function Runs({ runs }: { runs: readonly Run[] }) {
  return runs.map((run, i) => (
    <MeasureRow
      key={`${i}-${run.chain}`}
      label={`${run.name}, run ${i + 1}`}
      value={run.whole ? "whole" : run.broke === null ? "stopped" : `broke on ${run.broke}`}
      below={
        <>
          {run.links
            .slice(run.from - 1)
            .map((link, at) => `${link} ${run.linkSeconds[at] === undefined ? "–" : `${decimals(run.linkSeconds[at], 1)} s`}`)
            .join(" → ")}
          {run.reason !== null && `; ${run.reason}`}
          {run.did !== null && `; ${run.did}`}
        </>
      }
      how={<>Time of each link from the one before, or from the beginning of the run.</>}
    />
  ));
}

/** Who was there, how the rig was, and what was done where it was not safe. */
function NotedFacts({ record }: { record: SessionRecord }) {
  const rigs = record.facts.filter((fact) => fact.type === "rig");
  const withs = record.facts.filter((fact) => fact.type === "with");
  const safety = safetyOf(record);
  if (rigs.length + withs.length + safety.length === 0) return null;
  return (
    <ul className="mt-3 grid gap-1">
      {withs.map(({ id, payload }) => (
        <li key={id}>
          {payload.who} {PART_WORDS[payload.part]}.
        </li>
      ))}
      {rigs.map(({ id, payload }) => (
        <li key={id}>
          Rig{payload.side === "L" ? ", left" : payload.side === "R" ? ", right" : ""}:{" "}
          {payload.skipped === true ? "skipped" : (payload.checks ?? []).join(", ") || "nothing"}
          {(payload.open ?? []).length > 0 && <strong className="text-brick">; not right yet: {(payload.open ?? []).join(", ")}</strong>}.
        </li>
      ))}
      {safety.map((fact) =>
        fact.type === "safety" ? (
          <li key={fact.id} className="border-l-4 border-brick pl-3">
            {fact.payload.what}
            {fact.payload.hurt === "fall" && "; a fall"}
            {fact.payload.hurt === "injury" && "; somebody or the horse hurt"}. Then: {fact.payload.then}
            {fact.payload.why !== undefined && `, because: ${fact.payload.why}`}.
          </li>
        ) : null,
      )}
    </ul>
  );
}

/** Safety facts with something said of them beside what was done. */
const safetyOf = ({ facts }: SessionRecord) =>
  facts.filter((fact) => fact.type === "safety" && (fact.payload.why !== undefined || fact.payload.hurt !== undefined));

/** What happened between the asks, as far as it was logged; nothing where none of it was. */
export function Between({ record, earlierActs }: { record: SessionRecord; earlierActs: readonly DatedActs[] }) {
  const { runs } = chainRunsOf(record);
  const counts = new Map<string, number>();
  for (const fact of record.facts)
    if (fact.type === "signal" && fact.payload.class === "count") counts.set(fact.payload.name, (counts.get(fact.payload.name) ?? 0) + 1);
  const any =
    wrongChoicesOf(record) !== null ||
    ownTimesOf(record).length > 0 ||
    actCountsOf(record) !== null ||
    retreatsOf(record) !== null ||
    runs.length > 0 ||
    counts.size > 0 ||
    record.facts.some(({ type }) => type === "rig" || type === "with") ||
    safetyOf(record).length > 0 ||
    passesOf(record, "movement") !== null ||
    dangerSigns(record) > 1;
  if (!any) return null;
  return (
    <section className="mt-8 max-w-4xl">
      <h2 className="mb-2 text-xl">Between the asks</h2>
      <div className="gap-x-12 md:columns-2 [&>div]:break-inside-avoid">
        <Wrong record={record} />
        <OwnTimesRows record={record} />
        <Retreats record={record} />
        <Acts record={record} earlier={earlierActs} />
        <Grades record={record} />
        {[...counts]
          .sort((a, b) => b[1] - a[1])
          .map(([name, n]) => (
            <MeasureRow key={name} label={name} value={`${n}`} how={<>Counted; it says nothing by itself.</>} />
          ))}
        <Runs runs={runs} />
      </div>
      <NotedFacts record={record} />
    </section>
  );
}
