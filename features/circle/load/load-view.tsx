"use client";

import { balanceOf, type LoadEntry, type LoadWeek } from "@/core/circle";
import { SeriesChart } from "@/ui/chart";
import { How } from "@/ui/measure";
import { ByHand, type HandEntry } from "./by-hand";
import { LearnedAgain } from "./learned-again";
import { type DatedDigest, doseChart, recoveryChart, sidesChart } from "./load-charts";
import { SessionsTable } from "./sessions-table";
import { WeeksTable } from "./weeks-table";
import { wholeMinutes } from "./whole-minutes";

const SHOWN_WEEKS = 13;

/** The load book: weeks in a row, what of them was on the circle, and what it came to in turning. */
export function LoadView({
  horse,
  today,
  weeks,
  entries,
  sessions,
  byHand,
  resting,
  capSentence,
  capMinutes,
}: {
  horse: { readonly id: string; readonly name: string };
  today: string;
  weeks: readonly LoadWeek[];
  entries: readonly LoadEntry[];
  sessions: readonly DatedDigest[];
  byHand: readonly HandEntry[];
  resting: number | null;
  capSentence: string | null;
  /** The week's cap, or null. */
  capMinutes: number | null;
}) {
  const shown = weeks.slice(-SHOWN_WEEKS);
  const { share, left, right } = balanceOf(entries, today);
  const recovery = recoveryChart(horse.id, sessions, resting);
  const circled = shown.some(({ circlingMinutes }) => circlingMinutes > 0);
  return (
    <>
      <h1 className="text-[2rem]">Load book, {horse.name}</h1>
      {capSentence !== null && <p className="mt-2">{capSentence}</p>}
      {share !== null && (
        <p className="mt-2 border-l-4 border-tarn pl-4">
          The last fourteen days on the circle: {wholeMinutes(left)} min left, {wholeMinutes(right)} min right; {Math.round(share * 100)}{" "}
          and {100 - Math.round(share * 100)} %.
        </p>
      )}
      {shown.every(({ minutes }) => minutes === 0) ? (
        <p className="mt-4">
          Nothing in the last thirteen weeks. Sessions of every kind stand here by themselves; riding and driving are entered below.
        </p>
      ) : (
        <WeeksTable weeks={shown} capMinutes={capMinutes} />
      )}
      <How of="the load book">
        Circling counts what moved on a circle or in a pen, and blocks of behaviours that go on a circle. Minutes by gait are those that
        were tapped, otherwise the plan’s. Turning dose is v²/(g·r) times minutes (textbook mechanics), to compare one session with another,
        never a medical limit; a week still running has no change.
      </How>
      {circled && (
        <div className="mt-6 grid gap-8 lg:grid-cols-2">
          <SeriesChart level={2} spec={sidesChart(shown)} />
          {shown.some(({ doseGMinutes }) => doseGMinutes !== null) && <SeriesChart level={2} spec={doseChart(shown)} />}
          {recovery !== null && <SeriesChart level={2} spec={recovery} />}
        </div>
      )}
      <LearnedAgain sessions={sessions} />
      {sessions.length > 0 && <SessionsTable horseId={horse.id} sessions={sessions} />}
      <div className="mt-8">
        <ByHand horseId={horse.id} today={today} byHand={byHand} />
      </div>
    </>
  );
}
