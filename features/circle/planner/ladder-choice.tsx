import { CIRCLE_GAITS, type CirclePlan } from "@/core/circle";
import type { PlannerStart } from "@/core/start";
import { Choice, named } from "@/ui/form";
import type { PlanChange } from "./plan-state";

const gaitOf = (value: string | null | undefined) => CIRCLE_GAITS.find((gait) => gait === value) ?? null;

/** The behaviour whose asks the transitions are, and which of them count. Nothing where no ladder asks for one. */
export function LadderChoice({
  plan,
  ladders,
  chosen,
  choose,
  change,
}: {
  plan: CirclePlan;
  ladders: PlannerStart["ladders"];
  chosen: string;
  choose: (id: string) => void;
  change: (change: PlanChange) => void;
}) {
  if (ladders.length === 0) return null;
  const ladder = ladders.find(({ id }) => id === chosen);
  const countTo = (gait: string | null | undefined) =>
    change({ do: "set", change: { transitions: { ...plan.transitions, to: gaitOf(gait) } } });
  return (
    <div>
      <Choice
        label="Transitions are asks of"
        empty="no behaviour"
        value={chosen}
        options={named(ladders)}
        onChosen={(id) => {
          choose(id);
          countTo(ladders.find((one) => one.id === id)?.gait);
        }}
      />
      {ladder !== undefined && (
        <>
          <p className="mt-1 text-sm text-soft">{ladder.criterion}</p>
          <Choice
            small
            className="mt-1"
            label="Which count"
            empty="every transition"
            value={plan.transitions.to ?? ""}
            options={CIRCLE_GAITS.map((gait) => ({ value: gait, label: `to ${gait}` }))}
            onChosen={countTo}
          />
        </>
      )}
    </div>
  );
}
