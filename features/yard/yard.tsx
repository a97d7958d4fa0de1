import Link from "next/link";
import { counted } from "@/core/words";
import type { TourStop } from "@/ui/frame";
import { BeginTour } from "./begin-tour";
import { HorseList } from "./horse-list";

/** One horse in the yard: its last session in small, and what comes next. */
export interface YardLine {
  readonly id: string;
  readonly name: string;
  readonly sample: boolean;
  /** Tells it from a horse of the same name; empty where there is none. */
  readonly apart: string;
  /** Why it is put away, or null where it is in work. */
  readonly away: string | null;
  /** Restrictions and age cautions that hold today. */
  readonly limits: readonly string[];
  /** Dates that are due. */
  readonly due: readonly string[];
  /** Of a sample horse: what to look at; empty where there is nothing. */
  readonly lookAt: string;
  /** The session being worked at this moment, or null. */
  readonly runningId: string | null;
  readonly last: {
    readonly sessionId: string;
    readonly startedMs: number;
    readonly finished: boolean;
    readonly workSeconds: number;
    readonly n: number;
    readonly met: number;
    /** Its ribbon in small. */
    readonly drawing: string;
  } | null;
  readonly next: { readonly behaviour: string; readonly headline: string; readonly reason: string } | null;
}

function Empty() {
  return (
    <div className="max-w-xl py-6">
      <p className="text-lg">The yard is empty. Begin with one horse: its name is enough, the rest can follow.</p>
      <Link href="/horses/new" className="act mt-5">
        Add a horse
      </Link>
      <p className="mt-8 text-soft">
        To look round first, stop this and run <code className="font-semibold">npm run demo</code>: an invented yard with three months of
        sessions, in a file of its own.
      </p>
    </div>
  );
}

/** All horses today. */
export function Yard({
  lines,
  tour = [],
  waiting = 0,
}: {
  lines: readonly YardLine[];
  tour?: readonly TourStop[];
  /** Changes of helpers that wait for whoever looks. */
  waiting?: number;
}) {
  const sample = lines.some((line) => line.sample);
  const working = lines.filter((line) => line.away === null);
  const away = lines.filter((line) => line.away !== null);
  return (
    <>
      <div className="flex flex-wrap items-baseline justify-between gap-4">
        <h1 className="text-[2rem]">Yard</h1>
        <p className="flex flex-wrap items-baseline gap-x-6 gap-y-1">
          <Link href="/places" className="link">
            Places
          </Link>
          <Link href="/kit" className="link">
            Kit
          </Link>
          <Link href="/people" className="link">
            People
          </Link>
          <Link href="/network" className="link">
            Network
          </Link>
          <Link href="/bin" className="link">
            Bin
          </Link>
          <Link href="/in-out" className="link">
            In and out
          </Link>
          <Link href="/store" className="link">
            Data
          </Link>
          <Link href="/settings" className="link">
            Settings
          </Link>
          {lines.length > 0 && (
            <Link href="/horses/new" className="link">
              Add a horse
            </Link>
          )}
        </p>
      </div>
      {waiting > 0 && (
        <p className="mt-3 max-w-prose border-l-4 border-brick pl-3">
          {counted(waiting, "change")} of helpers {waiting === 1 ? "waits" : "wait"} for you under{" "}
          <Link href="/store" className="link">
            Data
          </Link>
          .
        </p>
      )}
      {sample && (
        <p className="mt-3 max-w-prose border-l-4 border-ochre pl-3 text-[0.95rem]">
          Sample data: these horses, people and sessions are invented. They can be taken out in one step under{" "}
          <Link href="/settings" className="link">
            Settings
          </Link>
          . <BeginTour stops={tour} />
        </p>
      )}
      {lines.length === 0 ? <Empty /> : <HorseList lines={working} />}
      {away.length > 0 && (
        <section className="mt-8">
          <h2 className="text-xl">Put away</h2>
          <ul className="mt-1">
            {away.map((line) => (
              <li key={line.id} className="py-1">
                <Link href={`/horses/${line.id}/know`} className="link">
                  {line.name}
                </Link>{" "}
                <span className="text-soft">{[line.apart, line.away].filter((part) => part !== "").join(", ")}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}
