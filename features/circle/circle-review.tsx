import { type CircleWork, COUNTED_FAULTS, circleWorkOf, transitionSums, workedHard } from "@/core/circle";
import { cornerStands, edgeZonesOf, heartReadings, lastTemperature, type SessionRecord } from "@/core/record";
import type { YardSettings } from "@/core/settings";
import type { UnitSystem } from "@/core/units";
import { recoveryOf } from "@/core/welfare";
import { counted, percentSpan } from "@/core/words";
import { CircleStrip } from "@/ui/circle-strip";
import { clockWords, How } from "@/ui/measure";
import { RecoveryCurve } from "@/ui/measure/recovery-curve";
import { ScrollBox } from "@/ui/scroll-box";
import { lengthWords } from "@/ui/units";
import { WayLink } from "@/ui/way";
import { minutesWords, SIDE_WORDS } from "./words";

const OVERRIDE_WORDS: Readonly<Record<string, string>> = {
  "too-long": "longer than the cap",
  week: "over the week’s minutes",
  visits: "over the week’s sessions",
  "canter-small": "canter on a small circle",
  "too-soon": "too soon after the last",
  "too-young": "young",
  "new-kit": "first time in kit",
  "same-way": "the same way again",
  traffic: "traffic without a leader",
  release: "the quick release not tried",
};

function Minutes({ work, units }: { work: CircleWork; units: UnitSystem }) {
  const gaits = [...new Set(work.gaits.map(({ gait }) => gait))];
  const seconds = (gait: string, side: "L" | "R") => work.seconds[`${gait} ${side}`] ?? 0;
  return (
    <table className="figures w-full max-w-2xl">
      <thead>
        <tr className="border-b-2 border-ink text-left">
          <th className="py-1">Gait</th>
          <th className="text-right">left</th>
          <th className="text-right">right</th>
          <th className="text-right">laps tapped</th>
          <th className="text-right">speed</th>
          <th className="text-right">sideways</th>
          <th className="text-right">lean</th>
        </tr>
      </thead>
      <tbody>
        {gaits.map((gait) => {
          const laps = (work.laps[`${gait} L`] ?? 0) + (work.laps[`${gait} R`] ?? 0);
          const turning = work.turning?.byGait[gait];
          return (
            <tr key={gait} className="border-b border-hair">
              <th scope="row" className="py-1 text-left font-normal">
                {gait}
              </th>
              <td className="text-right">{clockWords(seconds(gait, "L"))}</td>
              <td className="text-right">{clockWords(seconds(gait, "R"))}</td>
              <td className="text-right">{laps || "–"}</td>
              <td className="text-right">
                {work.speedMps[gait] === undefined
                  ? "not counted"
                  : `${lengthWords(Math.round((work.speedMps[gait] ?? 0) * 100) / 100, units)}/s`}
              </td>
              <td className="text-right">{turning === undefined ? "–" : `${turning.sidewaysMps2.toFixed(2)} m/s²`}</td>
              <td className="text-right">{turning === undefined ? "–" : `${turning.leanDegrees.toFixed(1)}°`}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function Transitions({ work }: { work: CircleWork }) {
  const sums = transitionSums(work.transitions);
  if (sums.length === 0) return null;
  return (
    <div>
      <h3 className="mt-5 mb-1 text-lg">Transitions</h3>
      <ul className="grid gap-1">
        {sums.map(({ to, side, n, came, voiceAlone, voice95, asksEach, halfSeconds, outSeconds }) => (
          <li key={`${to} ${side}`}>
            <strong>
              To {to}, {SIDE_WORDS[side]}
            </strong>
            : {came} of {n} came; on voice alone {voiceAlone} of {n}
            {n < 5 ? ", too few to tell" : `, could be anywhere from ${percentSpan(voice95)}`}
            {asksEach === null ? "" : `; ${asksEach.toFixed(1)} asks each`}
            {halfSeconds === null ? "; fewer than half came" : `; half had come after ${halfSeconds.toFixed(1)} s`}
            {outSeconds === null ? "" : `; the circle let out again after ${outSeconds.toFixed(0)} s`}.
          </li>
        ))}
      </ul>
    </div>
  );
}

function Faults({ work }: { work: CircleWork }) {
  const rows = COUNTED_FAULTS.flatMap((name) => {
    const [left, right] = [work.faults[`${name} L`] ?? 0, work.faults[`${name} R`] ?? 0];
    return left + right === 0 ? [] : [{ name, left, right }];
  });
  if (rows.length === 0 && work.slack.times === 0) return null;
  return (
    <div>
      <h3 className="mt-5 mb-1 text-lg">What it did</h3>
      <ul className="figures flex flex-wrap gap-x-6 gap-y-1">
        {rows.map(({ name, left, right }) => (
          <li key={name}>
            {name}: {left} left, {right} right
          </li>
        ))}
        {work.slack.times > 0 && (
          <li>
            line slack {counted(work.slack.times, "time")}, {Math.round(work.slack.seconds)} s
          </li>
        )}
      </ul>
    </div>
  );
}

function Directions({ work, record }: { work: CircleWork; record: SessionRecord }) {
  if (work.directions.length === 0) return null;
  const said = (seconds: number | null) => (seconds === null ? "not shown" : `${Math.round(seconds)} s`);
  const stands = cornerStands(record, edgeZonesOf(record, []));
  const [first, second] = work.directions;
  const saved = (["ear comes in", "turns in", "lowers head"] as const).flatMap((sign) => {
    const [before, after] = [first?.shown[sign] ?? null, second?.shown[sign] ?? null];
    return before === null || after === null || before === 0 ? [] : [`${sign} after ${said(after)} in place of ${said(before)}`];
  });
  return (
    <div>
      <h3 className="mt-5 mb-1 text-lg">Direction by direction</h3>
      <ol className="grid gap-1">
        {work.directions.map(({ side, startSeconds, seconds, shown }) => (
          <li key={startSeconds}>
            {SIDE_WORDS[side]}, {minutesWords(seconds / 60)}: ear in {said(shown["ear comes in"])}, turns in {said(shown["turns in"])}, head
            lowered {said(shown["lowers head"])}
          </li>
        ))}
      </ol>
      {stands.length > 0 && (
        <p className="mt-1">
          Stood in the corner for more than five seconds: {counted(stands.length, "time")},{" "}
          {Math.round(stands.reduce((sum, { seconds }) => sum + seconds, 0))} s in all.
        </p>
      )}
      {saved.length > 0 && <p className="mt-1">After the change of direction: {saved.join("; ")}. One session alone says little.</p>}
    </div>
  );
}

function Steps({ work }: { work: CircleWork }) {
  if (work.form !== "lines") return null;
  const counts = new Map<string, { n: number; metres: number }>();
  for (const { what, side, metres } of work.steps) {
    const key = side === null ? what : `${what} ${SIDE_WORDS[side]}`;
    const had = counts.get(key) ?? { n: 0, metres: 0 };
    counts.set(key, { n: had.n + 1, metres: had.metres + (metres ?? 0) });
  }
  const { lines } = work.plan;
  return (
    <div>
      <h3 className="mt-5 mb-1 text-lg">In long lines{lines === null ? "" : `: ${lines.step}`}</h3>
      {lines !== null && (
        <p className="text-soft">
          {[
            lines.head === "" ? "nobody at the head" : `${lines.head} at the head`,
            lines.blinkers === "none" ? null : `blinkers ${lines.blinkers}`,
            lines.traces ? "traces" : null,
            lines.breeching ? "breeching" : null,
            lines.traffic === "none" ? null : `traffic ${SIDE_WORDS[lines.traffic]}`,
            lines.companion === null
              ? null
              : `${lines.companion.name} on the ${SIDE_WORDS[lines.companion.side]}, rope ${lines.companion.ropeSlack ? "slack" : "tight"}, head at ${lines.companion.headAt}`,
            lines.releaseChecked ? "quick release tried" : "quick release not tried",
          ]
            .filter((one) => one !== null)
            .join(", ")}
        </p>
      )}
      <ul className="figures flex flex-wrap gap-x-6">
        {[...counts].map(([key, { n, metres }]) => (
          <li key={key}>
            {key}: {n}
            {metres > 0 ? `, about ${Math.round(metres)} m` : ""}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** What a session on the circle came to: planned against done, minutes by gait and side, transitions, what it did, the way down. */
export function CircleReview({
  record,
  horseId,
  sessionId,
  restingBreaths,
  settings,
  units,
}: {
  record: SessionRecord;
  horseId: string;
  sessionId: string;
  restingBreaths: number | null;
  settings: Pick<YardSettings, "coolWithinShare">;
  units: UnitSystem;
}) {
  const work = circleWorkOf(record);
  if (work === null) return null;
  const planned = work.plan.segments.map(({ gait, side, minutes }) => ({ gait, side, seconds: minutes * 60 }));
  const done = work.gaits.map(({ gait, side, startSeconds, endSeconds, seen }) => ({
    gait,
    side,
    seconds: endSeconds - startSeconds,
    seen,
  }));
  const longest = Math.max(...[planned, done].map((list) => list.reduce((sum, { seconds }) => sum + seconds, 0)));
  const believed = work.gaits.filter(({ seen }) => !seen).reduce((sum, { startSeconds, endSeconds }) => sum + endSeconds - startSeconds, 0);
  const recovery = recoveryOf(work.cool?.readings ?? [], restingBreaths, {
    hearts: heartReadings(record),
    celsius: lastTemperature(record),
    hard: workedHard(work),
    withinShare: settings.coolWithinShare,
  });
  return (
    <section aria-label="On the circle" className="mt-6">
      <h2 className="text-2xl">{work.form === "circle" ? "On the circle" : work.form === "pen" ? "In the pen" : "Long lines"}</h2>
      <p className="mt-1">
        {minutesWords(work.movingSeconds / 60)} in motion
        {work.cutShortSeconds > 30 ? `, ${minutesWords(work.cutShortSeconds / 60)} of the plan not worked` : ""}
        {work.distanceMetres > 0 ? `, about ${lengthWords(Math.round(work.distanceMetres), units)}` : ""}
        {work.turning === null ? "" : `, turning dose ${work.turning.doseGMinutes.toFixed(1)} g·min`}
        {work.easy === null ? "" : work.easy ? "; the walk at the end was easy" : "; the walk at the end was not easy"}.{" "}
        <WayLink href={`/horses/${horseId}/review/load`} className="link">
          Load book
        </WayLink>
      </p>
      <div className="mt-3 grid max-w-xl gap-1">
        <p className="text-sm text-soft">planned</p>
        <CircleStrip stretches={planned} label="Planned" longestSeconds={longest} />
        <p className="text-sm text-soft">done{believed > 0 ? ", dashed where nobody tapped the gait and the plan is believed" : ""}</p>
        <CircleStrip stretches={done} label="Done" longestSeconds={longest} />
      </div>
      <ScrollBox label="Minutes by gait and side" className="mt-4">
        <Minutes work={work} units={units} />
      </ScrollBox>
      <How of="these figures">
        Left stands above the line, right below. Speed is counted from laps that lie whole in one gait; without them the usual ones are
        taken. Sideways pull v²/r, lean atan(v²/(g·r)), dose v²/(g·r) times minutes (textbook mechanics): to compare one session with
        another, never a medical limit.
      </How>
      {work.overrides.length > 0 && (
        <p className="mt-3 border-l-4 border-ochre pl-4">
          Gone against: {work.overrides.map(({ key, why }) => `${OVERRIDE_WORDS[key] ?? key} (${why})`).join("; ")}.
        </p>
      )}
      <Transitions work={work} />
      <Faults work={work} />
      <Directions work={work} record={record} />
      <Steps work={work} />
      <h3 className="mt-5 mb-1 text-lg">Cool-down</h3>
      {work.cool === null ? (
        <p>Not taken.</p>
      ) : (
        <div className="max-w-md">
          <p>
            {work.cool.ended === "cooled"
              ? "Cooled down."
              : work.cool.ended === "left"
                ? `Closed without: ${work.cool.reason ?? ""}.`
                : "Not closed yet: breathing was not back within the horse’s own limit."}{" "}
            {work.cool.handedTo === null ? "" : `Handed to ${work.cool.handedTo}. `}
            {recovery.readings.length > 0 ? recovery.sentence : ""}
          </p>
          {work.cool.ended === null && (
            <WayLink href={`/horses/${horseId}/work/${sessionId}`} className="link">
              Go on with the cool-down
            </WayLink>
          )}
          {recovery.readings.length > 1 && <RecoveryCurve recovery={recovery} restingPerMinute={restingBreaths} />}
        </div>
      )}
    </section>
  );
}
