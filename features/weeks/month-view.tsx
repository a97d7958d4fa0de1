import Link from "next/link";
import { RANGE_MEANS } from "@/core/compare";
import { SESSION_KIND_FACTS } from "@/core/events/session-kind";
import { type HoursOfKind, type MonthCautions, type MonthLine, movedWords } from "@/core/past";
import { counted } from "@/core/words";
import { How, Whisker } from "@/ui/measure";
import { restsOn } from "./figure";
import { OwnerReport } from "./owner-report";
import { type AddressKeys, addressOf } from "./span-choice";

/** What it can do of one behaviour, by the end of the month. */
function AbilityLine({ horseId, line, days }: { horseId: string; line: MonthLine; days: AddressKeys }) {
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 border-b border-hair py-2.5 break-inside-avoid md:grid-cols-[minmax(0,1fr)_18rem]">
      <div>
        <p>
          <Link href={`/horses/${horseId}/shape/${line.ladder}`} className="font-semibold hover:underline">
            {line.name}
          </Link>{" "}
          <span className="text-soft">
            {line.held === null ? `no rung held yet; rung ${line.worked} of ${line.rungs} worked` : `rung ${line.held} of ${line.rungs}`}
          </span>
        </p>
        {line.canDo !== null && <p>{line.canDo}</p>}
        <p className="text-sm text-soft">
          {[
            line.lightestCue === "" ? "" : `cue: ${line.lightestCue}`,
            line.places.length === 0 ? "" : `at ${line.places.join(", ")}`,
            line.tether === null || line.tether === "" ? "" : line.tether,
            line.handlers.length === 0 ? "" : `with ${line.handlers.join(", ")}`,
          ]
            .filter((one) => one !== "")
            .join(" · ")}
        </p>
      </div>
      <div className="figures text-sm">
        <Link
          href={restsOn(horseId, { ladder: line.ladder, ...(line.held === null ? {} : { rung: String(line.held) }) }, days)}
          className="hover:underline"
        >
          {line.share.sentence}
        </Link>
        <Whisker share={line.share.share} interval={line.share.interval} width={220} />
      </div>
    </div>
  );
}

/** What moved, how long it was worked, and what limits and cautions there were. */
function MonthAtAGlance({
  lines,
  hours,
  cautions,
  care,
  caps,
}: {
  lines: readonly MonthLine[];
  hours: readonly HoursOfKind[];
  cautions: MonthCautions;
  care: readonly string[];
  caps: readonly string[];
}) {
  const moved = lines.filter((line) => movedWords(line) !== null);
  return (
    <div className="mt-6 grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-6 md:grid-cols-3">
      <section>
        <h2 className="border-b-2 border-ink pb-1 text-xl">What moved</h2>
        {moved.length === 0 ? (
          <p className="mt-2">No rung more was held than before.</p>
        ) : (
          <ul className="mt-2">
            {moved.map((line) => (
              <li key={line.ladder}>
                {line.name}: {movedWords(line)}
              </li>
            ))}
          </ul>
        )}
      </section>
      <section>
        <h2 className="border-b-2 border-ink pb-1 text-xl">Time</h2>
        <ul className="figures mt-2">
          {hours.map(({ kind, sessions, minutes }) => (
            <li key={kind} className="flex justify-between gap-4">
              <span>{SESSION_KIND_FACTS[kind].word}</span>
              <span>
                {minutes >= 90 ? `${(minutes / 60).toFixed(1)} hours` : `${Math.round(minutes)} minutes`} in {counted(sessions, "session")}
              </span>
            </li>
          ))}
        </ul>
      </section>
      <section>
        <h2 className="border-b-2 border-ink pb-1 text-xl">Limits and cautions</h2>
        <ul className="mt-2">
          {caps.map((cap) => (
            <li key={cap}>{cap}</li>
          ))}
          <li>
            The longest session {cautions.longestMinutes} minutes, the most asks in one {cautions.mostAsks}.
          </li>
          {cautions.danger > 0 && <li className="font-semibold text-brick">{counted(cautions.danger, "danger sign")} seen.</li>}
          {cautions.left > 0 && <li>It left {counted(cautions.left, "time")}.</li>}
          {care.map((sentence) => (
            <li key={sentence}>{sentence}</li>
          ))}
        </ul>
      </section>
    </div>
  );
}

/** One month of a horse on a sheet or two. */
export function MonthView({
  horseId,
  horse,
  month,
  earlier,
  later,
  lines,
  hours,
  cautions,
  care,
  caps,
  report,
  days,
}: {
  horseId: string;
  horse: string;
  /** Its name: "November 2026". */
  month: string;
  earlier: string;
  /** Null where it lies ahead. */
  later: string | null;
  lines: readonly MonthLine[];
  hours: readonly HoursOfKind[];
  cautions: MonthCautions;
  /** What holds today: age, injuries, advice. */
  care: readonly string[];
  /** How much of each limit was used, in words. */
  caps: readonly string[];
  report: string;
  /** First day of the month and the last, for the trials behind it. */
  days: AddressKeys;
}) {
  const path = `/horses/${horseId}/review/month`;
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-2">
        <h1 className="text-[2rem]">
          {horse}, {month}
        </h1>
        <nav aria-label="Month" className="no-print flex gap-x-4">
          <Link href={addressOf(path, { month: earlier })} className="link">
            the month before
          </Link>
          {later !== null && (
            <Link href={addressOf(path, { month: later })} className="link">
              the month after
            </Link>
          )}
        </nav>
      </div>
      {lines.length === 0 && hours.length === 0 ? (
        <p className="mt-5 text-lg">Nothing was recorded in {month}.</p>
      ) : (
        <>
          <section className="mt-5">
            <h2 className="flex items-baseline gap-2 border-b-2 border-ink pb-1 text-xl">
              What it can do
              <How of="what it can do">
                The highest rung on which the ladder’s own rule held by the end of the month, in the work of that month and the two before.
                Shares are over all that was asked in the month. {RANGE_MEANS}
              </How>
            </h2>
            {lines.length === 0 && <p className="mt-2">Nothing was worked on a ladder.</p>}
            {lines.map((line) => (
              <AbilityLine key={line.ladder} horseId={horseId} line={line} days={days} />
            ))}
          </section>
          <MonthAtAGlance lines={lines} hours={hours} cautions={cautions} care={care} caps={caps} />
          <OwnerReport key={report} start={report} title={`${horse}, ${month}`} />
        </>
      )}
    </>
  );
}
