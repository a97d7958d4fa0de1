import Link from "next/link";
import type { OverWeeks, PastSpan } from "@/core/past";
import { counted } from "@/core/words";
import { restsOn } from "./figure";
import { type AddressKeys, addressOf, LadderChoice, SpanChoice, spanKeys } from "./span-choice";
import { WeekCharts } from "./week-charts";
import { WeekFigures } from "./week-figures";

/** One behaviour over weeks: what it comes to, then each thing as a chart. */
export function OverWeeksView({
  horseId,
  ladders,
  ladder,
  span,
  over,
  by,
  handlers,
}: {
  horseId: string;
  ladders: readonly { readonly id: string; readonly name: string }[];
  ladder: { readonly id: string; readonly name: string };
  span: PastSpan;
  over: OverWeeks;
  by: "sessions" | "asks";
  /** Names of who handled, in the order they came. */
  handlers: readonly string[];
}) {
  const path = `/horses/${horseId}/review/weeks`;
  const kept: AddressKeys = { ladder: ladder.id, ...(by === "asks" ? { by } : {}) };
  const rests = (more: object = {}) => restsOn(horseId, { ...over.filter, ...more }, spanKeys(span));
  const asks = over.points.reduce((sum, { trials }) => sum + trials.length, 0);
  return (
    <>
      <h1 className="text-[2rem]">{ladder.name}</h1>
      <div className="mt-3 grid gap-3">
        <LadderChoice path={path} ladders={ladders} chosen={ladder.id} kept={spanKeys(span)} />
        <SpanChoice path={path} span={span} kept={kept} />
      </div>
      {over.points.length === 0 ? (
        <p className="mt-6 text-lg">Not worked in {span.label}.</p>
      ) : (
        <>
          <p className="mt-4 text-lg">
            {counted(over.points.length, "session")} and {counted(asks, "ask")}, {span.label}.
          </p>
          <WeekFigures over={over} rests={rests} />
          <p className="no-print mt-6 flex flex-wrap items-baseline gap-x-1">
            {(["sessions", "asks"] as const).map((one) => (
              <Link
                key={one}
                href={addressOf(path, { ...spanKeys(span), ladder: ladder.id, by: one === "asks" ? one : undefined })}
                aria-current={by === one ? "true" : undefined}
                className={`rounded px-2 py-1 ${by === one ? "bg-tarn-wash font-semibold" : "hover:underline"}`}
              >
                {one === "sessions" ? "session by session" : "ask by ask"}
              </Link>
            ))}
            <span className="ml-3 text-sm text-soft">
              <Link href={rests()} className="link">
                all {counted(asks, "ask")} in words
              </Link>
            </span>
          </p>
          <WeekCharts horseId={horseId} over={over} by={by} handlers={handlers} />
        </>
      )}
    </>
  );
}
