"use client";

import { type CircleCaution, type CircleOverride, type CirclePlan, planSums } from "@/core/circle";
import { CircleStrip } from "@/ui/circle-strip";
import { lengthWords, useUnits } from "@/ui/units";
import { minutesWords } from "../words";

/** What the plan comes to, while it is made. */
export function PlanSumsView({ plan, speeds }: { plan: CirclePlan; speeds: Readonly<Record<string, number>> }) {
  const sums = planSums(plan, speeds);
  const units = useUnits();
  const left = sums.leftShare === null ? null : Math.round(sums.leftShare * 100);
  const counted = plan.segments.some(({ gait }) => speeds[gait] !== undefined);
  return (
    <section aria-label="What it comes to">
      <CircleStrip label="The plan" stretches={plan.segments.map(({ gait, side, minutes }) => ({ gait, side, seconds: minutes * 60 }))} />
      <dl className="mt-3 grid grid-cols-2 gap-x-6 gap-y-1">
        <dt className="text-soft">In motion</dt>
        <dd className="figures text-right font-semibold">{minutesWords(sums.movingMinutes)}</dd>
        <dt className="text-soft">In all</dt>
        <dd className="figures text-right">{minutesWords(sums.totalMinutes)}</dd>
        <dt className="text-soft">Left and right</dt>
        <dd className="figures text-right font-semibold">{left === null ? "–" : `${left} and ${100 - left} %`}</dd>
        <dt className="text-soft">Distance, about</dt>
        <dd className="figures text-right">{lengthWords(Math.round(sums.distanceMetres), units)}</dd>
        {sums.laps !== null && (
          <>
            <dt className="text-soft">Laps, about</dt>
            <dd className="figures text-right">{Math.round(sums.laps)}</dd>
          </>
        )}
      </dl>
      <p className="mt-1 text-sm text-soft">
        {counted
          ? "With this horse’s own speeds, counted from laps."
          : "With usual speeds; tap laps in a session and this horse’s own are taken."}
      </p>
    </section>
  );
}

/** What is to be said of the plan; a caution asks for a word of why before it is gone against. */
export function Cautions({
  cautions,
  overrides,
  change,
  horseId,
}: {
  cautions: readonly CircleCaution[];
  overrides: readonly CircleOverride[];
  change: (overrides: readonly CircleOverride[]) => void;
  horseId: string;
}) {
  if (cautions.length === 0) return <p className="border-l-4 border-sage pl-4">Within every cap.</p>;
  const whyOf = (key: string) => overrides.find((one) => one.key === key)?.why ?? "";
  return (
    <ul className="grid gap-3" aria-label="Cautions">
      {cautions.map(({ key, sentence, wall }) => (
        <li key={key} className={`border-l-4 pl-4 ${wall ? "border-brick" : "border-ochre"}`}>
          <p className="font-semibold">{sentence}</p>
          {wall ? (
            <p className="text-sm">
              A restriction closes this.{" "}
              <a className="link" href={`/horses/${horseId}/know/limits`}>
                See the limit
              </a>
            </p>
          ) : (
            <label className="mt-1 block text-sm">
              All the same, because
              <input
                value={whyOf(key)}
                maxLength={200}
                className="field-box mt-0.5"
                onChange={(event) => change([...overrides.filter((one) => one.key !== key), { key, why: event.target.value }])}
              />
            </label>
          )}
        </li>
      ))}
    </ul>
  );
}
