import Link from "next/link";
import type { LeadingContrast, PastFilter, PastSpan, SetContrast } from "@/core/past";
import { counted, inHundredths, percentSpan } from "@/core/words";
import { decimals, How } from "@/ui/measure";
import { ScrollBox } from "@/ui/scroll-box";
import { ComparisonsOpened } from "./comparisons-opened";
import { restsOn } from "./figure";
import { addressOf, LadderChoice, SpanChoice, spanKeys } from "./span-choice";

/** What two sets may differ in, with what there is to choose from. */
export interface Dimension {
  readonly key: string;
  readonly name: string;
  readonly options: readonly { readonly value: string; readonly name: string }[];
}

/** What was chosen to be compared. */
export interface ChosenComparison {
  readonly dimension: Dimension;
  readonly a: string;
  readonly b: string;
  readonly filters: readonly [PastFilter, PastFilter];
  readonly contrast: SetContrast;
}

const pWords = (p: number | null) => (p === null ? "" : p < 0.001 ? "p under 0.001" : `p ${p.toFixed(3)}`);

function Leading({ title, leading, interval }: { title: string; leading: LeadingContrast; interval: string | null }) {
  return (
    <div className="border-t-2 border-ink pt-2">
      <p className="text-sm text-soft">{title}</p>
      <p className="text-xl font-semibold" data-testid={`compare-${title === "How often" ? "share" : "time"}`}>
        {leading.sentence}
      </p>
      <p className="figures text-sm text-soft">{[interval, pWords(leading.p)].filter((one) => one !== null && one !== "").join("; ")}</p>
    </div>
  );
}

function Result({ horseId, span, chosen }: { horseId: string; span: PastSpan; chosen: ChosenComparison }) {
  const { contrast, dimension, filters } = chosen;
  const nameOf = (value: string) => dimension.options.find((one) => one.value === value)?.name ?? value;
  const { first, second, share, latency, plain, cautions } = contrast;
  const half = ({ half: one }: typeof first) =>
    one === null ? "–" : one.seconds === null ? `fewer than half of ${one.n}` : `${one.seconds.toFixed(2)} s of ${one.n}`;
  const rate = ({ met, minutes }: typeof first) => (minutes > 0 ? (met / minutes).toFixed(2) : "–");
  const rows: [string, string, string][] = [
    ["sessions", String(first.sessions), String(second.sessions)],
    ["met", `${first.share.met} of ${first.share.of}`, `${second.share.met} of ${second.share.of}`],
    ["half answered after", half(first), half(second)],
    ["right answers a minute", rate(first), rate(second)],
  ];
  return (
    <>
      {cautions.map((caution) => (
        <p key={caution} className="mt-3 border-l-4 border-ochre pl-4">
          {caution}
        </p>
      ))}
      <div className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-4 md:grid-cols-2">
        <Leading
          title="How often"
          leading={share}
          interval={
            share.interval === null ? null : `B less A could be ${share.interval.map((one) => inHundredths(one)).join(" to ")} points`
          }
        />
        <Leading title="How soon" leading={latency} interval={null} />
      </div>
      <ScrollBox label="The two sets" className="mt-5">
        <table className="figures text-left">
          <thead>
            <tr className="*:py-1 *:pr-8">
              <td />
              <th scope="col">A: {nameOf(chosen.a)}</th>
              <th scope="col">B: {nameOf(chosen.b)}</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(([name, a, b]) => (
              <tr key={name} className="border-t border-hair *:py-1 *:pr-8">
                <th scope="row" className="font-normal text-soft">
                  {name}
                </th>
                <td>{a}</td>
                <td>{b}</td>
              </tr>
            ))}
            <tr className="border-t border-hair text-sm *:py-1 *:pr-8">
              <th scope="row" className="font-normal text-soft">
                rests on
              </th>
              {filters.map((filter, i) => (
                <td key={i}>
                  <Link href={restsOn(filter.horse ?? horseId, filter, spanKeys(span))} className="link">
                    its trials<span className="sr-only"> of {i === 0 ? "A" : "B"}</span>
                  </Link>
                </td>
              ))}
            </tr>
          </tbody>
        </table>
      </ScrollBox>
      <details className="mt-5">
        <summary className="link inline-block">If every trial stood by itself</summary>
        <p className="mt-2 max-w-prose text-sm text-soft">
          These take each trial as independent of the others of its session, which it is not: they call differences that are not there.
        </p>
        <ul className="figures mt-2 grid gap-1 text-[0.95rem]">
          <li>
            Shares:{" "}
            {plain.share === null
              ? "nothing to compare"
              : `B less A ${inHundredths(plain.share.difference)} points, ${percentSpan(plain.share.interval)} (Newcombe 1998, hybrid score)`}
          </li>
          <li>
            Times:{" "}
            {plain.latency === null
              ? "nothing to compare"
              : `χ² ${decimals(plain.latency.chiSquared, 2)}, ${pWords(plain.latency.p)} (log-rank, Mantel 1966)`}
          </li>
          <li>
            Rates:{" "}
            {plain.rate === null
              ? "nothing to compare"
              : `B is ${decimals(plain.rate.ratio, 2)} times A, ${decimals(plain.rate.interval[0], 2)} to ${decimals(plain.rate.interval[1], 2)}, ${pWords(plain.rate.p)} (two Poisson rates, exact)`}
          </li>
        </ul>
      </details>
    </>
  );
}

/** Which two, and on which rung. */
function CompareForm({
  path,
  kept,
  dimension,
  a,
  b,
  rung,
  rungs,
}: {
  path: string;
  kept: Readonly<Record<string, string | undefined>>;
  dimension: Dimension;
  a: string;
  b: string;
  rung: string;
  rungs: readonly number[];
}) {
  return (
    <form action={path} className="no-print mt-4 flex flex-wrap items-end gap-3">
      {Object.entries({ ...kept, by: dimension.key }).map(([key, value]) =>
        value === undefined ? null : <input key={key} type="hidden" name={key} value={value} />,
      )}
      {(["a", "b"] as const).map((which) => (
        <label key={which} className="text-sm font-semibold">
          {which.toUpperCase()}
          <select name={which} defaultValue={which === "a" ? a : b} className="field-box mt-0.5 block font-normal">
            {dimension.options.map(({ value, name }) => (
              <option key={value} value={value}>
                {name}
              </option>
            ))}
          </select>
        </label>
      ))}
      {dimension.key !== "rung" && rungs.length > 1 && (
        <label className="text-sm font-semibold">
          Both on
          <select name="rung" defaultValue={rung} className="field-box mt-0.5 block font-normal">
            <option value="">any rung</option>
            {rungs.map((one) => (
              <option key={one} value={one}>
                rung {one}
              </option>
            ))}
          </select>
        </label>
      )}
      <button type="submit" className="act">
        Compare
      </button>
    </form>
  );
}

/** Any two sets of this horse's trials beside each other. */
export function CompareView({
  horseId,
  ladders,
  ladder,
  rung,
  rungs,
  span,
  dimensions,
  dimension,
  a,
  b,
  chosen,
}: {
  horseId: string;
  ladders: readonly { readonly id: string; readonly name: string }[];
  /** Both sets are narrowed to this one; null for all. */
  ladder: string | null;
  rung: string;
  rungs: readonly number[];
  span: PastSpan;
  dimensions: readonly Dimension[];
  dimension: Dimension | null;
  a: string;
  b: string;
  chosen: ChosenComparison | null;
}) {
  const path = `/horses/${horseId}/review/compare`;
  const kept = { ...spanKeys(span), ladder: ladder ?? undefined };
  const two = dimension !== null && dimension.options.length >= 2;
  return (
    <>
      <h1 className="text-[2rem]">Compare</h1>
      <div className="mt-3 grid gap-3">
        <LadderChoice path={path} ladders={ladders} chosen={ladder} kept={spanKeys(span)} all />
        <SpanChoice path={path} span={span} kept={{ ladder: ladder ?? undefined, by: dimension?.key }} />
      </div>
      <nav aria-label="What the two differ in" className="mt-4">
        <ul className="flex flex-wrap gap-x-1 gap-y-1">
          {dimensions.map(({ key, name }) => (
            <li key={key}>
              <Link
                href={addressOf(path, { ...kept, by: key, ...(rung === "" || key === "rung" ? {} : { rung }) })}
                aria-current={key === dimension?.key ? "true" : undefined}
                className={`block rounded px-2.5 py-1 ${key === dimension?.key ? "bg-tarn-wash font-semibold" : "hover:underline"}`}
              >
                {name}
              </Link>
            </li>
          ))}
        </ul>
      </nav>
      {dimensions.length === 0 ? (
        <p className="mt-6 text-lg">Nothing in {span.label} differs in a way that could be compared.</p>
      ) : !two ? (
        <p className="mt-6 text-lg">Choose what the two are to differ in.</p>
      ) : (
        <CompareForm path={path} kept={kept} dimension={dimension} a={a} b={b} rung={rung} rungs={rungs} />
      )}
      {chosen !== null && (
        <>
          <ComparisonsOpened
            of={addressOf(path, { ...kept, by: chosen.dimension.key, a: chosen.a, b: chosen.b, rung })}
            horseId={horseId}
          />
          <Result horseId={horseId} span={span} chosen={chosen} />
          <div className="mt-6 flex items-start gap-2 text-sm text-soft">
            <span className="max-w-prose">
              What leads takes the session as its unit: within sessions on the same rungs where both were worked, otherwise session with
              session ({counted(chosen.contrast.first.sessions, "session")} and {chosen.contrast.second.sessions}).
            </span>
            <How of="the comparison">
              Within sessions: differences of sessions within rungs, their signs turned about (Fisher 1935). Between: sessions change sets
              at random, with those of the same rung where both sets have it (Pitman 1937); the interval joins those of the two shares, each
              drawn with its own sessions (Newcombe 1998; Korn and Graubard 1998). Called at p under 0.01, because one looks again and
              again.
            </How>
          </div>
        </>
      )}
    </>
  );
}
