import Link from "next/link";
import { COUNTED_WORDS, type TryBoth, type TryResult, valueWords } from "@/core/experiment";
import { counted } from "@/core/words";
import { Day } from "@/ui/day";
import { How } from "@/ui/measure";
import { ScrollBox } from "@/ui/scroll-box";
import { EndTry } from "./end-try";
import { TryForm, type TryLadder } from "./try-form";

/** An experiment as a list shows it. */
export interface ShownTry {
  readonly of: TryBoth;
  readonly result: TryResult;
  readonly name: string;
}

/** The order as it was drawn, what was worked of it filled. */
export function OrderStrip({ arms, done }: { arms: TryBoth["arms"]; done: number }) {
  const step = 30;
  return (
    <svg
      width={arms.length * step}
      height="34"
      viewBox={`0 0 ${arms.length * step} 34`}
      className="max-w-full"
      role="img"
      aria-label={`The order drawn: ${arms.join(", ")}; ${done} of ${arms.length} worked`}
    >
      <path d={`M0 17 H${arms.length * step}`} stroke="var(--hair)" strokeWidth="2" />
      {arms.map((arm, i) => {
        const worked = i < done;
        const x = i * step + step / 2;
        return (
          <g key={i}>
            {/* A is a ring, B a square, so that neither colour nor letter is needed to tell them. */}
            {arm === "A" ? (
              <circle cx={x} cy="17" r="11" fill={worked ? "var(--tarn)" : "var(--paper)"} stroke="var(--tarn)" strokeWidth="2" />
            ) : (
              <rect
                x={x - 10.5}
                y="6.5"
                width="21"
                height="21"
                fill={worked ? "var(--ochre)" : "var(--paper)"}
                stroke="var(--ochre)"
                strokeWidth="2"
              />
            )}
            <text x={x} y="21.5" textAnchor="middle" fontSize="13" fontWeight="700" fill={worked ? "var(--on-ink)" : "var(--ink)"}>
              {arm}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

const stateWords = ({ of, result }: ShownTry) =>
  of.endedMs !== null ? (result.complete ? "done" : "cut short") : result.complete ? "done" : `${result.done} of ${of.arms.length}`;

/** The experiments of a horse, and a new one. */
export function TriesView({
  horseId,
  tries,
  ladders,
  zones,
  kit,
}: {
  horseId: string;
  tries: readonly ShownTry[];
  ladders: readonly TryLadder[];
  zones: readonly string[];
  kit: readonly string[];
}) {
  return (
    <>
      <h1 className="text-[2rem]">Try both</h1>
      <p className="mt-2 max-w-prose">
        A question trainers argue about, settled on this horse: two ways in blocks by turns, in an order that is drawn, on one rung.
      </p>
      {tries.length > 0 && (
        <ul className="mt-5 border-b-2 border-hair">
          {tries.map((one) => (
            <li key={one.of.id} className="border-t border-hair py-3">
              <Link href={`/horses/${horseId}/review/try-both/${one.of.id}`} className="group block">
                <span className="flex flex-wrap items-baseline justify-between gap-x-4">
                  <span className="text-lg font-semibold group-hover:underline">
                    {one.of.a} or {one.of.b}
                  </span>
                  <span className="figures text-soft">
                    {one.name}, rung {one.of.rung} · {stateWords(one)}
                  </span>
                </span>
              </Link>
              <p>{one.result.sentence}</p>
            </li>
          ))}
        </ul>
      )}
      <section className="mt-8">
        <h2 className="text-xl">A new one</h2>
        <TryForm horseId={horseId} ladders={ladders} zones={zones} kit={kit} />
      </section>
    </>
  );
}

const WIDTH = 640;
const HEIGHT = 190;

/** What each block came to, in the order they were worked: A as rings, B as squares, each arm's mean as a line. */
function Values({ of, result }: { of: TryBoth; result: TryResult }) {
  const { blocks, meanA, meanB } = result;
  const values = blocks.flatMap(({ value }) => (value === null ? [] : [value]));
  if (values.length === 0) return null;
  const [low, high] = of.counts === "share" ? [0, 1] : [0, Math.max(...values) * 1.08 || 1];
  const x = (i: number) => 46 + ((WIDTH - 60) * (i + 0.5)) / of.arms.length;
  const y = (value: number) => HEIGHT - 26 - ((value - low) / (high - low)) * (HEIGHT - 46);
  const told = result.test !== null;
  const line = (mean: number | null, colour: string) =>
    mean === null || !told ? null : <path d={`M40 ${y(mean)} H${WIDTH - 8}`} stroke={colour} strokeWidth="2" strokeDasharray="6 4" />;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width={WIDTH}
      height={HEIGHT}
      className="max-w-full"
      role="img"
      aria-label="What each block came to; the table holds the same."
    >
      <path d={`M40 8 V${HEIGHT - 26} H${WIDTH - 8}`} stroke="var(--ink)" strokeWidth="1.5" fill="none" />
      {[low, high].map((value) => (
        <text key={value} x="36" y={y(value) + 4} textAnchor="end" fontSize="12.5" fill="var(--soft)">
          {of.counts === "share" ? `${Math.round(value * 100)} %` : value.toFixed(value >= 10 ? 0 : 1)}
        </text>
      ))}
      {line(meanA, "var(--tarn)")}
      {line(meanB, "var(--ochre)")}
      {blocks.map(({ number, value }) =>
        value === null ? null : of.arms[number - 1] === "A" ? (
          <circle key={number} cx={x(number - 1)} cy={y(value)} r="6.5" fill="var(--paper)" stroke="var(--tarn)" strokeWidth="3" />
        ) : (
          <rect
            key={number}
            x={x(number - 1) - 6}
            y={y(value) - 6}
            width="12"
            height="12"
            fill="var(--paper)"
            stroke="var(--ochre)"
            strokeWidth="3"
          />
        ),
      )}
      <text x={WIDTH / 2} y={HEIGHT - 6} textAnchor="middle" fontSize="12.5" fill="var(--soft)">
        blocks in the order they were worked
      </text>
    </svg>
  );
}

/** One experiment: the order, what is due, what it came to. */
export function TryView({ horseId, shown }: { horseId: string; shown: ShownTry }) {
  const { of, result, name } = shown;
  const over = of.endedMs !== null || result.complete;
  return (
    <>
      <p className="text-soft">
        <Link href={`/horses/${horseId}/review/try-both`} className="link">
          Try both
        </Link>{" "}
        · {name}, rung {of.rung} · since <Day ms={of.createdMs} />
      </p>
      <h1 className="mt-1 text-[2rem]">
        {of.a} or {of.b}
      </h1>
      {of.question !== "" && <p>{of.question}</p>}
      <p className="mt-4 max-w-prose text-xl" data-testid="try-result">
        {result.sentence}
      </p>
      {result.caution !== null && <p className="mt-2 border-l-4 border-ochre pl-4">{result.caution}</p>}
      {of.endedWhy !== null && <p className="mt-2 text-soft">Ended: {of.endedWhy}</p>}
      <div className="mt-5">
        <OrderStrip arms={of.arms} done={result.done} />
      </div>
      {result.due !== null && (
        <p className="mt-2 text-lg">
          Next, block {result.due.number}: <strong>{result.due.arm === "A" ? of.a : of.b}</strong>, {counted(of.asksEach, "ask")}. In the
          pen it stands under <em>more</em>.
        </p>
      )}
      <div className="mt-5 grid grid-cols-[minmax(0,1fr)] gap-8">
        <Values of={of} result={result} />
        {result.blocks.length > 0 && (
          <ScrollBox label="Blocks">
            <table className="figures text-left">
              <thead className="text-sm text-soft">
                <tr className="*:py-1 *:pr-6">
                  {["block", "drawn", "worked as", "asks", COUNTED_WORDS[of.counts].name, "session"].map((head) => (
                    <th key={head} scope="col" className="font-normal whitespace-nowrap">
                      {head}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {result.blocks.map(({ number, worked, value, session, startedMs, asks }) => (
                  <tr key={number} className="border-t border-hair *:py-1 *:pr-6">
                    <td>{number}</td>
                    <td>{of.arms[number - 1] === "A" ? `A ${of.a}` : `B ${of.b}`}</td>
                    <td>{worked === of.arms[number - 1] ? "" : worked === "A" ? of.a : of.b}</td>
                    <td>{asks}</td>
                    <td>{value === null ? "nothing" : valueWords(of.counts, value)}</td>
                    <td>
                      <Link href={`/horses/${horseId}/review/${session}`} className="link">
                        <Day ms={startedMs} time />
                      </Link>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </ScrollBox>
        )}
      </div>
      <div className="mt-4 flex items-start gap-2 text-sm text-soft">
        <span className="max-w-prose">{COUNTED_WORDS[of.counts].help}</span>
        <How of="the result">
          The difference of the two means, held against every order that could have been drawn (randomisation test; Edgington and Onghena
          2007; alternating treatments, Barlow and Hayes 1979): p is the share of them with a difference as large. The interval holds every
          difference that test does not reject at 0.05. Each block counts as what was drawn for it. It speaks of this horse on this rung.
        </How>
      </div>
      {!over && <EndTry horseId={horseId} id={of.id} />}
    </>
  );
}
