import Link from "next/link";
import { adviceOfKey } from "@/core/advice/keys";
import { type AdviceAndRaises, type ChangeCosts, type PastSpan, type Raise, raiseTold, type Savings, type Stall } from "@/core/past";
import { counted, SIDE_WORDS } from "@/core/words";
import { Day } from "@/ui/day";
import { ScrollBox } from "@/ui/scroll-box";
import { restsOn, ToldHead } from "./figure";
import { LadderChoice, SpanChoice, spanKeys } from "./span-choice";

/** What a view of changes opens on. */
export const CHANGES_SPAN = "365";

/** A ladder's next rung with what it may cost. */
export interface Ahead {
  readonly ladder: string;
  readonly name: string;
  readonly rung: number;
  readonly sentence: string;
}

/** A behaviour that gained nothing. */
export interface ShownStall {
  readonly ladder: string;
  readonly name: string;
  readonly stall: Stall;
}

const MOST_ASKS = 64;
const COST_WIDTH = 260;
/** Asks on an axis that doubles: 0, 1, 3, 7, 15, 31, 63 stand as far apart. */
const place = (asks: number) => (Math.min(Math.log2(1 + asks), Math.log2(1 + MOST_ASKS)) / Math.log2(1 + MOST_ASKS)) * COST_WIDTH;

function Costs({ costs, raises, rests }: { costs: ChangeCosts | null; raises: number; rests: string }) {
  return (
    <section>
      <ToldHead title="What a change costs this horse" of="what a change costs" rests={rests}>
        Asks on a new rung before as many in a row were as good as the last ten before it. Each kind of strand is drawn towards all of this
        horse’s steps, the more the fewer it has (empirical Bayes: Morris 1983; DerSimonian and Laird 1986), on the logarithm of asks; the
        bar is 95 % and somewhat narrow where there is little. A step never as good again counts with the asks it had, so it costs at least
        that much; steps of two strands at once count for none. Steps are taken after a good run, so part of a cost is that the run was
        lucky.
      </ToldHead>
      {costs === null ? (
        <p className="mt-2">
          {raises === 0
            ? "No step up yet in this span."
            : `${counted(raises, "step")} up: too few to tell kinds apart from chance; four are needed.`}
        </p>
      ) : (
        <ScrollBox label="What changes cost" className="mt-2">
          <table className="figures text-left">
            <thead className="text-sm text-soft">
              <tr className="*:py-1 *:pr-6">
                <th scope="col">what got harder</th>
                <th scope="col">about, asks</th>
                <th scope="col">could be</th>
                <th scope="col">steps</th>
                <td />
              </tr>
            </thead>
            <tbody>
              {costs.kinds.map(({ kind, name, asks, interval, raises: n, open }) => (
                <tr key={kind} className="border-t border-hair *:py-1.5 *:pr-6">
                  <th scope="row" className="font-semibold">
                    {name}
                  </th>
                  <td>{Math.round(asks)}</td>
                  <td className="whitespace-nowrap">
                    {Math.round(interval[0])} to {Math.round(interval[1])}
                  </td>
                  <td className="whitespace-nowrap">
                    {n}
                    {open > 0 && `, ${open} not regained`}
                  </td>
                  <td>
                    <svg width={COST_WIDTH} height="18" aria-hidden="true">
                      <path d={`M0 9 H${COST_WIDTH}`} stroke="var(--hair)" strokeWidth="2" />
                      <path
                        d={`M${place(interval[0])} 9 H${place(interval[1])}`}
                        stroke="var(--ochre)"
                        strokeOpacity="0.45"
                        strokeWidth="7"
                      />
                      <path d={`M${place(asks)} 1 V17`} stroke="var(--ochre)" strokeWidth="4" />
                    </svg>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="mt-1 text-sm text-soft">
            A step of any kind: about {counted(Math.round(costs.asks), "ask")}, from {costs.raises}.
          </p>
        </ScrollBox>
      )}
    </section>
  );
}

function Raises({
  horseId,
  raises,
  names,
  sessions,
  word,
}: {
  horseId: string;
  raises: readonly Raise[];
  names: ReadonlyMap<string, string>;
  sessions: readonly string[];
  word: AdviceAndRaises;
}) {
  return (
    <section className="mt-9">
      <ToldHead title="Did I raise too soon" of="whether a step was too soon">
        The first ten asks on the new rung against what the last twenty on the one before let expect: the last ten were picked for having
        gone well, and go less well after by chance alone. Too soon or too big is said where the 95 % interval of the difference lies below
        nothing (Newcombe 1998, the twenty with a flat prior). Against the advice: it said Repeat, Go back, Break, Change side, Finish or
        Stop, and the step was taken.
      </ToldHead>
      {raises.length === 0 ? (
        <p className="mt-2">No step up in this span has five asks before it and five after.</p>
      ) : (
        <>
          <p className="mt-1">{word.sentence}</p>
          <ScrollBox label="Steps up" className="mt-2">
            <table className="figures text-left text-[0.95rem]">
              <thead className="text-sm text-soft">
                <tr className="*:py-1 *:pr-5">
                  {["day", "behaviour", "rungs", "what got harder", "last before", "first after", "how it went", "the advice"].map(
                    (head) => (
                      <th key={head} scope="col" className="font-normal whitespace-nowrap">
                        {head}
                      </th>
                    ),
                  )}
                </tr>
              </thead>
              <tbody>
                {raises.toReversed().map((raise) => {
                  const told = raiseTold(raise);
                  return (
                    <tr
                      key={`${raise.ladder} ${raise.wallMs} ${raise.side}`}
                      className="border-t border-hair align-baseline *:py-1.5 *:pr-5"
                    >
                      <td className="whitespace-nowrap">
                        <Link href={`/horses/${horseId}/review/${sessions[raise.session]}`} className="link">
                          <Day ms={raise.wallMs} />
                        </Link>
                      </td>
                      <td>{names.get(raise.ladder) ?? ""}</td>
                      <td className="whitespace-nowrap">
                        {raise.from} → {raise.to}
                        {raise.side === null ? "" : `, ${SIDE_WORDS[raise.side]}`}
                      </td>
                      <td>{raise.harder.map(({ name }) => name).join(" and ") || "not known"}</td>
                      <td className="whitespace-nowrap">
                        {raise.before.met} of {raise.before.of}
                      </td>
                      <td className="whitespace-nowrap">
                        {raise.after.met} of {raise.after.of}
                      </td>
                      <td className={told.fell ? "font-semibold text-brick" : ""}>{told.sentence}</td>
                      <td className="whitespace-nowrap">
                        {raise.word === null ? "none said" : `${adviceOfKey(raise.word.word)}${raise.againstWord ? ", not taken" : ""}`}
                      </td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
          </ScrollBox>
        </>
      )}
    </section>
  );
}

const SAVING_NAMES = { side: "The other side", person: "Another person", rest: "After weeks of rest" } as const;

function SavingsPart({ savings, names }: { savings: readonly Savings[]; names: ReadonlyMap<string, string> }) {
  const word = (kind: Savings["kind"], value: string) =>
    kind === "side"
      ? value === "L"
        ? "left"
        : "right"
      : kind === "person"
        ? (names.get(value) ?? value)
        : value === "before"
          ? "before"
          : `after ${value} days`;
  return (
    <section className="mt-9">
      <ToldHead title="Learned a second time" of="savings">
        Asks until the ladder’s rule held, the second time over the first, rung by rung on the same rungs; 1 less the geometric mean of the
        ratios (savings; Ebbinghaus 1885) with the t interval of the logarithms, called by the exact test of their signs at p under 0.05. A
        rung not learned again counts with the asks it had, which is too few.
      </ToldHead>
      <dl className="mt-2 grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-4 md:grid-cols-3">
        {savings.map(({ kind, sentence, interval, rungs }) => (
          <div key={kind} className="border-t border-hair pt-2">
            <dt className="font-semibold">{SAVING_NAMES[kind]}</dt>
            <dd>
              {sentence}
              {interval !== null && (
                <span className="figures block text-sm text-soft">
                  saving between {Math.round(interval[0] * 100)} and {Math.round(interval[1] * 100)} %
                </span>
              )}
              {rungs.length > 0 && (
                <details className="text-sm">
                  <summary>the rungs</summary>
                  <ul className="figures">
                    {rungs.map(({ ladder, version, rung, first, second, firstAsks, secondAsks, open }) => (
                      <li key={`${ladder} ${version} ${rung}`}>
                        {names.get(ladder)}, rung {rung}: {word(kind, first)} {firstAsks}, {word(kind, second)} {open ? "more than " : ""}
                        {secondAsks}
                      </li>
                    ))}
                  </ul>
                </details>
              )}
            </dd>
          </div>
        ))}
      </dl>
    </section>
  );
}

const FINDING_LOOK: Readonly<Record<string, string>> = {
  "look here": "font-semibold text-brick",
  "not seen": "text-soft",
  "not recorded": "text-soft italic",
};

/** What nothing moves on, with what to look at, in the order a trainer looks. */
export function Stalls({ horseId, stalls }: { horseId: string; stalls: readonly ShownStall[] }) {
  if (stalls.length === 0) return null;
  return (
    <section className="mt-9">
      <ToldHead title="No gain of late" of="no gain">
        The last three sessions on a behaviour beside the three before: no rung higher than ever before them, no more answers at the
        lightest cue, none quicker. It says what the numbers did: three sessions without a gain come by chance too. The checks stand in the
        order to look in.
      </ToldHead>
      {stalls.map(({ ladder, name, stall }) => (
        <article key={ladder} className="mt-3 border-l-4 border-ochre pl-4">
          <h3 className="text-lg">
            <Link href={`/horses/${horseId}/shape/${ladder}`} className="hover:underline">
              {name}
            </Link>
          </h3>
          <p>{stall.sentence}</p>
          <ol className="mt-2 grid gap-1">
            {stall.checks.map(({ what, finding, evidence }) => (
              <li key={what} className="grid gap-x-4 sm:grid-cols-[10rem_7rem_minmax(0,1fr)]">
                <span className="font-semibold">{what}</span>
                <span className={FINDING_LOOK[finding]}>{finding}</span>
                <span className="text-[0.95rem]">{evidence}</span>
              </li>
            ))}
          </ol>
        </article>
      ))}
    </section>
  );
}

/** What changes cost, whether they came too soon, what is learned a second time, and what does not move. */
export function ChangesView({
  horseId,
  ladders,
  ladder,
  span,
  costs,
  raises,
  word,
  savings,
  ahead,
  stalls,
  names,
  sessions,
}: {
  horseId: string;
  ladders: readonly { readonly id: string; readonly name: string }[];
  ladder: string | null;
  span: PastSpan;
  costs: ChangeCosts | null;
  raises: readonly Raise[];
  word: AdviceAndRaises;
  savings: readonly Savings[];
  ahead: readonly Ahead[];
  stalls: readonly ShownStall[];
  names: ReadonlyMap<string, string>;
  /** Ids of the sessions the raises point at. */
  sessions: readonly string[];
}) {
  const path = `/horses/${horseId}/review/changes`;
  const kept = spanKeys(span, CHANGES_SPAN);
  return (
    <>
      <h1 className="text-[2rem]">Changes</h1>
      <div className="mt-3 mb-5 grid gap-3">
        <LadderChoice path={path} ladders={ladders} chosen={ladder} kept={kept} all />
        <SpanChoice path={path} span={span} kept={{ ladder: ladder ?? undefined }} usual={CHANGES_SPAN} />
      </div>
      <Costs
        costs={costs}
        raises={raises.length}
        rests={restsOn(
          horseId,
          { ...(ladder === null ? {} : { ladder }), kind: "work" },
          { span: span.key === "own" ? undefined : span.key, from: span.from, to: span.to },
        )}
      />
      {ahead.length > 0 && (
        <section className="mt-6">
          <h2 className="text-xl">Before the next rung</h2>
          <ul className="mt-1 grid gap-1">
            {ahead.map(({ ladder: id, name, rung, sentence }) => (
              <li key={id}>
                <Link href={`/horses/${horseId}/shape/${id}`} className="font-semibold hover:underline">
                  {name}, rung {rung}
                </Link>
                : {sentence}
              </li>
            ))}
          </ul>
        </section>
      )}
      <Raises horseId={horseId} raises={raises} names={names} sessions={sessions} word={word} />
      <SavingsPart savings={savings} names={names} />
      <Stalls horseId={horseId} stalls={stalls} />
    </>
  );
}
