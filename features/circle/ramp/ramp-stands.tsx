import type { LoadEntry } from "@/core/circle";
import { dayWords } from "@/core/day";
import type { PlannerStart } from "@/core/start";
import { How } from "@/ui/measure";
import { StackColumns } from "@/ui/stack-columns";
import { SIDE_WORDS } from "../words";
import { rampColumns } from "./ramp-columns";

/** Where the ramp stands, what was done of it and what is planned. Nothing where none runs. */
export function RampStands({ start, entries, capMinutes }: { start: PlannerStart; entries: readonly LoadEntry[]; capMinutes: number }) {
  const { ramp, setup } = start;
  if (ramp === null || setup.ramp === null) return null;
  const { since } = setup.ramp;
  const last = ramp.steps.length - 1;
  const next = ramp.planned[0];
  const atGoal = ramp.planned.find(({ step }) => step === last);
  return (
    <section aria-label="Where the ramp stands" className="mt-4">
      <p className="border-l-4 border-tarn pl-4 text-lg">
        <strong>
          Step {ramp.place.step + 1} of {ramp.steps.length}
        </strong>
        {ramp.place.side === null ? "" : `, ${SIDE_WORDS[ramp.place.side]}`}. {ramp.place.reason}
        {next !== undefined && ` Next on ${dayWords(next.day)}.`}
        {ramp.place.step < last && atGoal !== undefined && ` At the goal about ${dayWords(atGoal.day)}, where each step goes well.`}
      </p>
      <div className="mt-4">
        <StackColumns
          columns={rampColumns(entries, since, ramp.planned, setup.ways)}
          label={`Minutes a session since ${dayWords(since)}, done and planned`}
          capMinutes={capMinutes}
        />
        <How of="the ramp">
          Pale: walk; dark: trot; plum: canter; “o” above a column: obstacles. Outlined columns are planned. A step is done by a session of
          four fifths of its minutes that was not poor; a poor one is repeated; two weeks without go a step back. Common practice, no
          source.
        </How>
      </div>
    </section>
  );
}
