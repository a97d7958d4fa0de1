import Link from "next/link";
import { endOfWorkMs, type SessionRecord } from "@/core/session";
import { Day } from "@/ui/day";
import { minutesWords } from "@/ui/measure";
import { Ribbon } from "@/ui/ribbon";

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
  /** The session being worked at this moment, or null. */
  readonly runningId: string | null;
  readonly last: {
    readonly sessionId: string;
    readonly startedMs: number;
    readonly finished: boolean;
    readonly workSeconds: number;
    readonly n: number;
    readonly met: number;
    readonly record: SessionRecord;
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

function Line({ line }: { line: YardLine }) {
  const { last, next } = line;
  return (
    <li className="grid grid-cols-[minmax(0,1fr)] items-center gap-x-8 gap-y-3 border-t-2 border-hair py-5 md:grid-cols-[13rem_1fr_19rem]">
      <div>
        <Link href={`/horses/${line.id}/know`} className="font-head text-2xl font-bold hover:underline">
          {line.name}
        </Link>
        {line.apart !== "" && <span className="ml-2 text-soft">{line.apart}</span>}
        {line.limits.map((limit) => (
          <p key={limit} className="mt-1 text-sm leading-snug text-brick">
            {limit}
          </p>
        ))}
      </div>
      {last === null ? (
        <p className="text-soft">No session yet.</p>
      ) : (
        <Link href={`/horses/${line.id}/review/${last.sessionId}`} className="group block min-w-0">
          <Ribbon
            record={last.record}
            view={{ fromMs: 0, toMs: endOfWorkMs(last.record) * 1.01 + 1000, width: 560, height: 84 }}
            radius={3.2}
            label={`Last session of ${line.name}: ${last.met} of ${last.n} met`}
          />
          <span className="figures text-sm text-soft group-hover:underline">
            <Day ms={last.startedMs} />, {minutesWords(last.workSeconds)}, {last.met} of {last.n} met{last.finished ? "" : ", not finished"}
          </span>
        </Link>
      )}
      {line.runningId !== null ? (
        <Link href={`/horses/${line.id}/work/${line.runningId}`} prefetch={false} className="act justify-self-start">
          Running: go on with it
        </Link>
      ) : next === null ? (
        <Link href={`/horses/${line.id}/shape/new`} className="link">
          Plan a first ladder
        </Link>
      ) : (
        <Link href={`/horses/${line.id}/work`} className="group block">
          <span className="block font-head text-lg font-bold text-tarn group-hover:underline">{next.headline}</span>
          <span className="text-sm text-soft">
            {next.behaviour}. {next.reason}
          </span>
        </Link>
      )}
    </li>
  );
}

/** All horses today. */
export function Yard({ lines }: { lines: readonly YardLine[] }) {
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
          <Link href="/bin" className="link">
            Bin
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
      {sample && (
        <p className="mt-3 max-w-prose border-l-4 border-ochre pl-3 text-[0.95rem]">
          Sample data: these horses, people and sessions are invented. They can be taken out in one step under{" "}
          <Link href="/settings" className="link">
            Settings
          </Link>
          .
        </p>
      )}
      {lines.length === 0 ? (
        <Empty />
      ) : (
        <ul className="mt-6 border-b-2 border-hair">
          {working.map((line) => (
            <Line key={line.id} line={line} />
          ))}
        </ul>
      )}
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
