import type { UseFormRegister } from "react-hook-form";
import type { RampChange, RampStep } from "@/core/circle";
import { CheckRow, Choice, NumberBox, Problem, TextBox } from "@/ui/form";
import type { SetupValues } from "./setup-values";

const CHANGE_WORDS: Readonly<Record<RampChange, string>> = {
  start: "the start",
  shift: "a minute shifted",
  total: "a minute more in all",
  obstacles: "obstacles",
  canter: "a minute into canter",
};

function LoadFields({ title, of, register }: { title: string; of: "from" | "goal"; register: UseFormRegister<SetupValues> }) {
  return (
    <fieldset>
      <legend className="font-semibold">{title}, minutes each way</legend>
      <div className="mt-1 flex flex-wrap items-end gap-3">
        {(["walk", "trot", "canter"] as const).map((gait) => (
          <NumberBox
            key={gait}
            small
            label={gait}
            aria-label={`${title}, ${gait}`}
            width="w-20 text-right"
            {...register(`${of}.${gait}`)}
          />
        ))}
        <CheckRow className="text-sm" label="obstacles" {...register(`${of}.obstacles`)} />
      </div>
    </fieldset>
  );
}

/** The ramp's start, goal and pace, and the steps that come of them. */
export function RampFields({
  raised,
  steps,
  problem,
  register,
}: {
  raised: boolean;
  steps: readonly RampStep[];
  problem: string | null;
  register: UseFormRegister<SetupValues>;
}) {
  return (
    <>
      <CheckRow label="raise the work by steps" {...register("raised")} />
      {raised && (
        <div className="mt-2 grid gap-4">
          <LoadFields title="Start" of="from" register={register} />
          <LoadFields title="Goal" of="goal" register={register} />
          <div className="flex flex-wrap items-end gap-4">
            <Choice label="Sessions a week" width="w-28" options={["1", "2", "3", "4", "5", "6", "7"]} {...register("sessionsAWeek")} />
            <NumberBox label="Radius, m" width="w-24 text-right" {...register("radius")} />
            <TextBox label="Counts from" type="date" {...register("since")} />
          </div>
          {problem === null ? (
            <details>
              <summary className="min-h-11 cursor-pointer font-semibold">{steps.length} steps, one change at a time</summary>
              <ol className="figures mt-1 grid gap-0.5 text-sm">
                {steps.map(({ walk, trot, canter, obstacles, change }, i) => (
                  <li key={i}>
                    {i + 1}. walk {walk}, trot {trot}
                    {canter > 0 ? `, canter ${canter}` : ""}
                    {obstacles ? ", obstacles" : ""} <span className="text-soft">({CHANGE_WORDS[change]})</span>
                  </li>
                ))}
              </ol>
            </details>
          ) : (
            <Problem>{problem}</Problem>
          )}
        </div>
      )}
    </>
  );
}
