import type { circlingSentence } from "@/core/circle";
import type { PlannerStart } from "@/core/start";
import { RampBroken } from "../ramp-broken";

/** What holds today before anything is planned: what was written for it, limits, what is used, the ramp's step. */
export function TodayLines({ start, used }: { start: PlannerStart; used: ReturnType<typeof circlingSentence> }) {
  const { ramp, balance } = start;
  const step = ramp?.steps[ramp.place.step];
  return (
    <>
      {start.doNext !== null && <p className="mt-2 border-l-4 border-tarn pl-4 font-head text-xl font-bold text-tarn">{start.doNext}</p>}
      {start.limits.length > 0 && (
        <div className="mt-3 border-l-4 border-brick pl-4 font-semibold text-brick">
          {start.limits.map((limit) => (
            <p key={limit}>{limit}</p>
          ))}
        </div>
      )}
      {used !== null && (
        <p className="mt-3 text-soft">
          {used}
          {balance.share !== null && ` Two weeks: ${Math.round(balance.left)} min left, ${Math.round(balance.right)} min right.`}
        </p>
      )}
      {step !== undefined && ramp !== null && (
        <p className="mt-3 border-l-4 border-tarn pl-4">
          <strong>
            Step {ramp.place.step + 1} of {ramp.steps.length} of the ramp.
          </strong>{" "}
          {ramp.place.reason} The plan below is its plan.
        </p>
      )}
      <RampBroken problem={start.rampProblem} />
    </>
  );
}
