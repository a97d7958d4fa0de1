import Link from "next/link";
import { beginWith, compareLooks, FIRST_LOOK_ITEMS, type FirstLook, type LookAround, READY_BEHAVIOURS, readinessOf } from "@/core/know";
import type { Allowance } from "@/core/welfare";
import { SIDE_WORDS } from "@/core/words";
import { Day } from "@/ui/day";
import { ScrollBox } from "@/ui/scroll-box";
import { Strengths } from "./strengths";

interface DatedLook {
  readonly sessionId: string;
  readonly startedMs: number;
  readonly look: FirstLook;
  /** Signs of danger or pain in it, by name. */
  readonly danger: readonly string[];
}

const nameOf = (key: string) => FIRST_LOOK_ITEMS.find((item) => item.key === key)?.name ?? key;

/** The interval of a difference on a line from 100 points less to 100 more. */
function DifferenceLine({ difference, interval }: { difference: number; interval: readonly [number, number] }) {
  const x = (value: number) => 60 + value * 58;
  return (
    <svg viewBox="0 0 120 16" width="120" height="16" className="block shrink-0" aria-hidden="true">
      <path d="M2 8 H118" stroke="var(--hair)" strokeWidth="2" />
      <path d="M60 2 V14" stroke="var(--ink)" strokeWidth="1.5" />
      <path d={`M${x(interval[0])} 8 H${x(interval[1])}`} stroke="var(--tarn)" strokeOpacity="0.45" strokeWidth="7" />
      <path d={`M${x(difference)} 1 V15`} stroke="var(--tarn)" strokeWidth="4" />
    </svg>
  );
}

/** Today against an earlier look: the change with its interval, not only the difference. */
function Comparison({ before, now }: { before: DatedLook; now: DatedLook }) {
  const comparison = compareLooks(before.look, now.look);
  const { together } = comparison;
  return (
    <section className="mt-9">
      <h2 className="text-xl">
        Since <Day ms={before.startedMs} />
      </h2>
      {together === null ? (
        <p className="mt-1">{comparison.words}</p>
      ) : (
        <>
          <p className="figures mt-1 flex flex-wrap items-center gap-x-4 gap-y-1 text-lg">
            All shared items together: {together.before.met} of {together.before.of} then, {together.now.met} of {together.now.of} now.
            <DifferenceLine {...together} />
            <span className="text-base text-soft">{comparison.words}</span>
          </p>
          <details className="mt-3">
            <summary className="link inline-block">Item by item</summary>
            <ScrollBox label="Item by item" className="mt-2">
              <table className="figures w-full min-w-[36rem] text-sm">
                <thead className="text-left text-soft">
                  <tr>
                    <th scope="col" className="py-1 pr-4 font-normal">
                      Item
                    </th>
                    <th scope="col" className="pr-4 font-normal">
                      Then
                    </th>
                    <th scope="col" className="pr-4 font-normal">
                      Now
                    </th>
                    <th scope="col" className="font-normal">
                      Change
                    </th>
                  </tr>
                </thead>
                <tbody>
                  {comparison.steps.map((step) => (
                    <tr key={`${step.key}${step.side}`} className="border-t border-hair align-top">
                      <th scope="row" className="py-1.5 pr-4 text-left font-semibold">
                        {nameOf(step.key)}
                        {step.side !== null && `, ${SIDE_WORDS[step.side]}`}
                      </th>
                      <td className="py-1.5 pr-4">
                        {step.before.met} of {step.before.n}
                      </td>
                      <td className="py-1.5 pr-4">
                        {step.now.met} of {step.now.n}
                      </td>
                      <td className="flex gap-3 py-1.5">
                        <DifferenceLine {...step.change} />
                        {step.words}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </ScrollBox>
          </details>
        </>
      )}
      <p className="mt-2 text-sm text-soft">
        Difference of two shares with its 95 % interval (Newcombe 1998). Under five asks a step: too few to tell.
      </p>
    </section>
  );
}

/** What the look says is ready, and what to begin with. */
function Ready({ look, horseId, around }: { look: FirstLook; horseId: string; around: LookAround }) {
  const list = readinessOf(look, around);
  const begin = beginWith(look);
  const groups = (["not today", "ready to try", "not sure", "not yet", "not looked at"] as const).map((state) => ({
    state,
    items: list.filter((one) => one.state === state),
  }));
  return (
    <section className="mt-9">
      {begin === null ? (
        <h2 className="text-2xl text-tarn">
          {list.every((one) => one.state === "not looked at")
            ? "Too little looked at to say where to begin"
            : "Nothing that was looked at stands in the way"}
        </h2>
      ) : (
        <>
          <h2 className="text-2xl text-tarn">
            Begin with: {begin.name}
            {begin.side !== null && `, ${SIDE_WORDS[begin.side]} first`}
          </h2>
          <p className="text-soft">{begin.reason[0]?.toUpperCase() + begin.reason.slice(1)}</p>
        </>
      )}
      <div className="mt-4 grid gap-y-5">
        {groups
          .filter(({ items }) => items.length > 0)
          .map(({ state, items }) => (
            <div key={state}>
              <h3 className="border-b-2 border-ink pb-1 text-base">
                {state} <span className="font-normal text-soft">{items.length}</span>
              </h3>
              <ul className="gap-x-10 sm:columns-2 lg:columns-3">
                {items.map(({ name, missing }) => (
                  <li key={name} className="break-inside-avoid border-b border-hair py-1.5">
                    {state === "ready to try" || state === "not sure" ? (
                      <Link href={`/horses/${horseId}/shape/new?behaviour=${encodeURIComponent(name)}`} className="link">
                        {name}
                      </Link>
                    ) : (
                      <span className="font-semibold">{name}</span>
                    )}
                    {missing.map((words) => (
                      <span key={words} className="block text-sm text-soft">
                        {words}
                      </span>
                    ))}
                  </li>
                ))}
              </ul>
            </div>
          ))}
      </div>
      <p className="mt-2 text-sm text-soft">
        What each of these {READY_BEHAVIOURS.length} rests on is common practice. Ready to try takes four of five asks, none dangerous, in
        the last fortnight. Fewer is not sure.
      </p>
    </section>
  );
}

/** The first look and its re-tests. */
export function FirstLookView({
  horseId,
  looks,
  chosen,
  allowance,
  nowWallMs,
  children,
}: {
  horseId: string;
  looks: readonly DatedLook[];
  chosen: number;
  /** What restrictions and age allow today. */
  allowance: Allowance;
  nowWallMs: number;
  children: React.ReactNode;
}) {
  const now = looks[chosen];
  const before = looks[chosen + 1];
  if (now === undefined) {
    return (
      <>
        <h1 className="text-[2rem]">First look</h1>
        <p className="mt-3 mb-5 max-w-prose text-lg">
          Twelve small things, both sides where there are two, one to three asks each: about a quarter of an hour. It shows where the horse
          is strong, what it is ready for and what to begin with.
        </p>
        {children}
        <ol className="mt-6 max-w-2xl list-decimal pl-6">
          {FIRST_LOOK_ITEMS.map((item) => (
            <li key={item.key} className="py-0.5">
              {item.name}
              {item.sided && <span className="text-soft">, both sides</span>}
            </li>
          ))}
        </ol>
      </>
    );
  }
  return (
    <>
      <div className="mb-5 flex flex-wrap items-end justify-between gap-4">
        <div>
          <h1 className="text-[2rem]">
            First look, <Day ms={now.startedMs} />
          </h1>
          {now.look.partial && (
            <p className="font-semibold text-ochre">
              In part: {now.look.stepsDone} of {now.look.steps} steps looked at.{" "}
              <Link href={`/horses/${horseId}/review/${now.sessionId}`} className="link">
                See the session
              </Link>
            </p>
          )}
        </div>
        {children}
      </div>
      <Strengths look={now.look} />
      <Ready look={now.look} horseId={horseId} around={{ allowance, danger: now.danger, startedMs: now.startedMs, nowWallMs }} />
      {before !== undefined && <Comparison before={before} now={now} />}
      {looks.length > 1 && (
        <section className="mt-8">
          <h2 className="mb-1 text-base">All looks</h2>
          <ul className="flex flex-wrap gap-x-5 gap-y-1">
            {looks.map(({ sessionId, startedMs, look }, i) => (
              <li key={sessionId}>
                <Link
                  href={`/horses/${horseId}/know/first-look?look=${sessionId}`}
                  aria-current={i === chosen ? "page" : undefined}
                  className={i === chosen ? "font-bold" : "link"}
                >
                  <Day ms={startedMs} />
                </Link>
                {look.partial && <span className="text-soft"> in part</span>}
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}
