import type { Metadata } from "next";
import { type Day, dayBeginsIn, dayIn, isDay } from "@/core/day";
import { monthCautions, monthLines, ownerReport, type PastSpan } from "@/core/past";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import type { Allowance } from "@/core/welfare";
import { counted } from "@/core/words";
import { MonthView } from "@/features/weeks/month-view";
import { ReviewNav } from "@/features/weeks/review-nav";
import { getHorse, hoursByKind } from "@/store";
import { findOr404 } from "../../../../../server/find-or-404";
import { horseCare } from "../../../../../server/horse-care";
import { type Asked, oneOf, pastView } from "../../../../../server/past-of";
import { RunningLine } from "../../../../../server/running-line";
import { getStore } from "../../../../../server/store";

export const metadata: Metadata = { title: "Month" };

/** How long before a month work is looked at for what a horse can do by its end. */
const LOOK_BACK_DAYS = 60;

/** The month after or before one, "2026-11" being its name. */
const moved = (month: string, by: number) => {
  const [year, number] = month.split("-").map(Number);
  return new Date(Date.UTC(year ?? 1970, (number ?? 1) - 1 + by, 1)).toISOString().slice(0, 7);
};
const inWords = (month: string) =>
  new Date(`${month}-15T12:00:00Z`).toLocaleDateString("en-GB", { month: "long", year: "numeric", timeZone: "UTC" });

/** How much of each limit that holds was used. */
function capsUsed({ workMinutes, repetitions, noWork }: Allowance, minutes: readonly number[], asks: readonly number[]): string[] {
  const used = (name: string, cap: number, unit: string, list: readonly number[]) =>
    `${name} at most ${cap} ${unit}: up to ${Math.round(Math.max(0, ...list))} used, passed in ${list.filter((one) => one > cap).length} of ${counted(list.length, "session")}.`;
  return [
    ...(noWork === null ? [] : [noWork.why]),
    ...(workMinutes === null ? [] : [used("Work a session", workMinutes.value, "minutes", minutes)]),
    ...(repetitions === null ? [] : [used("Asks a session", repetitions.value, "asks", asks)]),
  ];
}

export default async function MonthPage({ params, searchParams }: { params: Promise<{ horse: string }>; searchParams: Promise<Asked> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const now = dayIn(store.now(), store.timeZone).slice(0, 7);
  const asked = oneOf((await searchParams).month) ?? "";
  const month = isDay(`${asked}-01`) && asked <= now ? asked : now;
  const firstDay: Day = `${month}-01`;
  const fromMs = dayBeginsIn(firstDay, store.timeZone);
  const toMs = dayBeginsIn(`${moved(month, 1)}-01`, store.timeZone);
  const lastDay = dayIn(toMs - 43_200_000, store.timeZone);
  const span: PastSpan = {
    key: "own",
    fromMs: fromMs - LOOK_BACK_DAYS * MILLISECONDS_PER_DAY,
    toMs,
    label: inWords(month),
    from: firstDay,
    to: lastDay,
  };
  const [{ past, ladders, names }, hours, care] = await Promise.all([
    pastView(store, horse.id, span),
    hoursByKind(store, horse.id, fromMs, toMs),
    horseCare(store, horse),
  ]);
  const lines = monthLines(
    past,
    fromMs,
    ladders.map(({ id, behaviour, version, plan }) => ({ id, name: behaviour.name, version, plan })),
    names,
  );
  const cautions = monthCautions(past, fromMs);
  const own = past.sessions.flatMap((session, i) => (session.startedMs < fromMs ? [] : [{ session, i }]));
  const asks = own.map(({ i }) => past.trials.filter((trial) => trial.session === i).length);
  // Limits are those of today; what held in an earlier month is not kept by the day.
  const present = month === now;
  return (
    <>
      <RunningLine horseId={horse.id} />
      <ReviewNav horseId={horse.id} here="month" />
      <MonthView
        horseId={horse.id}
        horse={horse.name}
        month={inWords(month)}
        earlier={moved(month, -1)}
        later={present ? null : moved(month, 1)}
        lines={lines}
        hours={hours}
        cautions={cautions}
        care={present ? care.sentences : []}
        caps={
          present
            ? capsUsed(
                care.allowance,
                own.map(({ session }) => session.workSeconds / 60),
                asks,
              )
            : []
        }
        report={ownerReport(horse.name, inWords(month), lines, hours, cautions)}
        days={{ from: firstDay, to: lastDay }}
      />
    </>
  );
}
