"use client";

import { useRouter } from "next/navigation";
import { type FormEvent, useState } from "react";
import { balanceOf, HAND_KINDS, LOAD_KINDS, type LoadEntry, type LoadWeek, relearnedOf, relearnedSentence } from "@/core/circle";
import { dayWords } from "@/core/day";
import { wholeParts } from "@/core/words";
import { SeriesChart } from "@/ui/chart";
import { send } from "@/ui/form";
import { How } from "@/ui/measure";
import { ScrollBox } from "@/ui/scroll-box";
import { lengthWords, useUnits } from "@/ui/units";
import { type DatedDigest, doseChart, recoveryChart, sharpest, sidesChart } from "./load-charts";
import { typedNumber } from "./words";

const min = (value: number) => String(Math.round(value));

function ByHand({
  horseId,
  today,
  byHand,
}: {
  horseId: string;
  today: string;
  byHand: readonly { readonly id: string; readonly day: string; readonly kind: string; readonly minutes: number; readonly note: string }[];
}) {
  const router = useRouter();
  const [draft, setDraft] = useState({ day: today, kind: "ridden", minutes: "", note: "" });
  const [message, setMessage] = useState<{ readonly text: string; readonly bad: boolean } | null>(null);
  const add = async (event: FormEvent) => {
    event.preventDefault();
    const sent = await send("POST", `/api/horses/${horseId}/load`, {
      day: draft.day,
      kind: draft.kind,
      minutes: typedNumber(draft.minutes) ?? draft.minutes,
      note: draft.note.trim(),
    });
    setMessage(sent.ok ? { text: "Added.", bad: false } : { text: sent.fields[0]?.message ?? sent.message, bad: true });
    if (!sent.ok) return;
    setDraft({ ...draft, minutes: "", note: "" });
    router.refresh();
  };
  const remove = async (id: string) => {
    const sent = await send("DELETE", `/api/horses/${horseId}/load/${id}`, undefined);
    if (!sent.ok) return setMessage({ text: sent.message, bad: true });
    setMessage({ text: "Taken out.", bad: false });
    router.refresh();
  };
  return (
    <section aria-label="By hand" className="no-print">
      <h2 className="text-2xl">By hand</h2>
      <form onSubmit={(event) => void add(event)} noValidate className="mt-2 flex flex-wrap items-end gap-3">
        <label className="grid text-sm">
          Day
          <input
            type="date"
            value={draft.day}
            max={today}
            className="field-box mt-0.5"
            onChange={(event) => setDraft({ ...draft, day: event.target.value })}
          />
        </label>
        <label className="grid text-sm">
          What
          <select value={draft.kind} className="field-box mt-0.5" onChange={(event) => setDraft({ ...draft, kind: event.target.value })}>
            {HAND_KINDS.map((kind) => (
              <option key={kind}>{kind}</option>
            ))}
          </select>
        </label>
        <label className="grid text-sm">
          Minutes
          <input
            inputMode="decimal"
            value={draft.minutes}
            className="field-box figures mt-0.5 w-24 text-right"
            onChange={(event) => setDraft({ ...draft, minutes: event.target.value })}
          />
        </label>
        <label className="grid grow text-sm">
          Note
          <input
            value={draft.note}
            maxLength={200}
            className="field-box mt-0.5"
            onChange={(event) => setDraft({ ...draft, note: event.target.value })}
          />
        </label>
        <button type="submit" className="act-quiet">
          Add
        </button>
      </form>
      <p
        role={message?.bad === true ? "alert" : "status"}
        className={`mt-1 text-sm ${message?.bad === true ? "font-semibold text-brick" : ""}`}
      >
        {message?.text}
      </p>
      {byHand.length > 0 && (
        <ul className="mt-2">
          {byHand.map(({ id, day, kind, minutes, note }) => (
            <li key={id} className="flex flex-wrap items-center gap-x-4 border-t border-hair py-1">
              <span className="w-40">{dayWords(day)}</span>
              <span>
                {kind}, {min(minutes)} min
              </span>
              <span className="grow text-soft">{note}</span>
              <button
                type="button"
                className="link min-h-11"
                aria-label={`Take out ${kind} of ${dayWords(day)}`}
                onClick={() => void remove(id)}
              >
                Take out
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

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
  byHand: readonly { readonly id: string; readonly day: string; readonly kind: string; readonly minutes: number; readonly note: string }[];
  resting: number | null;
  capSentence: string | null;
  /** The week's cap, or null. */
  capMinutes: number | null;
}) {
  const units = useUnits();
  const shown = weeks.slice(-13);
  const parts = (week: LoadWeek) => wholeParts(kinds.map((kind) => week.minutesByKind[kind]));
  const kinds = LOAD_KINDS.filter((kind) => shown.some(({ minutesByKind }) => minutesByKind[kind] > 0));
  const balance = balanceOf(entries, today);
  const relearned = relearnedOf(sessions.map(({ digest }) => digest));
  const recovery = recoveryChart(horse.id, sessions, resting);
  const circled = shown.some(({ circlingMinutes }) => circlingMinutes > 0);
  return (
    <>
      <h1 className="text-[2rem]">Load book, {horse.name}</h1>
      {capSentence !== null && <p className="mt-2">{capSentence}</p>}
      {balance.share !== null && (
        <p className="mt-2 border-l-4 border-tarn pl-4">
          The last fourteen days on the circle: {min(balance.left)} min left, {min(balance.right)} min right;{" "}
          {Math.round(balance.share * 100)} and {100 - Math.round(balance.share * 100)} %.
        </p>
      )}
      {shown.every(({ minutes }) => minutes === 0) ? (
        <p className="mt-4">
          Nothing in the last thirteen weeks. Sessions of every kind stand here by themselves; riding and driving are entered below.
        </p>
      ) : (
        <ScrollBox label="Weeks in a row" className="mt-5">
          <table className="figures w-full min-w-[44rem] text-sm">
            <caption className="sr-only">Weeks in a row</caption>
            <thead>
              <tr className="border-b-2 border-ink text-left align-bottom">
                <th className="py-1 pr-3">Week from</th>
                {kinds.map((kind) => (
                  <th key={kind} className="pr-3 text-right">
                    {kind}, min
                  </th>
                ))}
                <th className="pr-3 text-right">all, min</th>
                <th className="pr-3 text-right">circling, min</th>
                <th className="pr-3 text-right">change</th>
                <th className="pr-3 text-right">sessions with it</th>
                <th className="pr-3 text-right">left / right</th>
                <th className="pr-3 text-right">laps tapped</th>
                <th className="pr-3 text-right">distance</th>
                <th className="text-right">dose, g·min</th>
              </tr>
            </thead>
            <tbody>
              {[...shown].reverse().map((week) => (
                <tr key={week.monday} className="border-b border-hair">
                  <th scope="row" className="py-1.5 pr-3 text-left font-normal whitespace-nowrap">
                    {dayWords(week.monday)}
                    {week.running && <span className="text-soft">, running</span>}
                  </th>
                  {/* What stands here adds up to what stands under all. */}
                  {kinds.map((kind, i) => (
                    <td key={kind} className="pr-3 text-right">
                      {week.minutesByKind[kind] > 0 ? parts(week)[i] : "–"}
                    </td>
                  ))}
                  <td className="pr-3 text-right font-semibold">{min(kinds.reduce((sum, kind) => sum + week.minutesByKind[kind], 0))}</td>
                  <td
                    className={`pr-3 text-right font-semibold ${capMinutes !== null && week.circlingMinutes > capMinutes ? "text-brick" : ""}`}
                  >
                    {min(week.circlingMinutes)}
                    {capMinutes !== null && week.circlingMinutes > capMinutes ? " over the cap" : ""}
                  </td>
                  <td className="pr-3 text-right">
                    {week.change === null ? "–" : `${week.change > 0 ? "+" : ""}${Math.round(week.change * 100)} %`}
                  </td>
                  <td className="pr-3 text-right">{week.circleSessions || "–"}</td>
                  <td className="pr-3 text-right">
                    {week.leftMinutes + week.rightMinutes > 0 ? `${min(week.leftMinutes)} / ${min(week.rightMinutes)}` : "–"}
                  </td>
                  <td className="pr-3 text-right">{week.laps || "–"}</td>
                  <td className="pr-3 text-right">{week.metres > 0 ? lengthWords(Math.round(week.metres), units) : "–"}</td>
                  <td className="text-right">{week.doseGMinutes === null ? "–" : week.doseGMinutes.toFixed(1)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </ScrollBox>
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
      {relearned.length > 0 && (
        <section aria-label="In the pen" className="mt-8">
          <h2 className="text-2xl">In the pen</h2>
          <ul className="mt-2 grid gap-1">
            {relearned.map((one) => (
              <li key={one.sign}>{relearnedSentence(one)}</li>
            ))}
          </ul>
          <How of="learned again">
            Time from the beginning of a direction to the sign, the second direction against the first, session by session; exact sign test,
            said where it would come by chance in fewer than five of a hundred (the savings measure: Ebbinghaus 1885, from memory).
          </How>
        </section>
      )}
      {sessions.length > 0 && (
        <section aria-label="Session by session" className="mt-8">
          <h2 className="text-2xl">Session by session</h2>
          <ScrollBox label="Session by session">
            <table className="figures mt-2 w-full min-w-[36rem] text-sm">
              <thead>
                <tr className="border-b-2 border-ink text-left">
                  <th className="py-1 pr-3">Session</th>
                  <th className="pr-3 text-right">in motion, min</th>
                  <th className="pr-3 text-right">radius</th>
                  <th className="pr-3 text-right">most sideways, m/s²</th>
                  <th className="pr-3 text-right">most lean</th>
                  <th className="pr-3 text-right">dose, g·min</th>
                  <th>cool-down</th>
                </tr>
              </thead>
              <tbody>
                {[...sessions]
                  .reverse()
                  .slice(0, 20)
                  .map(({ id, startedMs, digest }) => {
                    const most = sharpest(digest);
                    const moving =
                      Object.entries(digest.seconds).reduce((sum, [key, seconds]) => (key.startsWith("stand") ? sum : sum + seconds), 0) /
                      60;
                    return (
                      <tr key={id} className="border-b border-hair">
                        <td className="py-1.5 pr-3">
                          <a className="link" href={`/horses/${horse.id}/review/${id}`}>
                            {dayWords(new Date(startedMs).toISOString().slice(0, 10))}
                          </a>
                        </td>
                        <td className="pr-3 text-right">{min(moving)}</td>
                        <td className="pr-3 text-right">{digest.radius === null ? "–" : lengthWords(digest.radius, units)}</td>
                        <td className="pr-3 text-right">{most === null ? "–" : `${most.sidewaysMps2.toFixed(2)} ${most.gait}`}</td>
                        <td className="pr-3 text-right">{most === null ? "–" : `${most.leanDegrees.toFixed(1)}°`}</td>
                        <td className="pr-3 text-right">{digest.dose === null ? "–" : digest.dose.toFixed(1)}</td>
                        <td>
                          {digest.cool === null
                            ? "not taken"
                            : digest.cool.ended === "cooled"
                              ? "cooled"
                              : digest.cool.ended === "left"
                                ? `left: ${digest.cool.reason ?? ""}`
                                : "not finished"}
                        </td>
                      </tr>
                    );
                  })}
              </tbody>
            </table>
          </ScrollBox>
        </section>
      )}
      <div className="mt-8">
        <ByHand horseId={horse.id} today={today} byHand={byHand} />
      </div>
    </>
  );
}
