import { type CirclePlan, FIT_CHECKS, fitSentences, KIT_STAGES } from "@/core/circle";
import type { PlannerStart } from "@/core/start";
import { Choice, named } from "@/ui/form";
import type { PlanChange } from "./plan-state";

/** The fitted kit the horse wears, its stage, and how it sat the last time. */
export function KitChoice({
  plan,
  kit,
  today,
  change,
}: {
  plan: CirclePlan;
  kit: PlannerStart["kit"];
  today: string;
  change: (change: PlanChange) => void;
}) {
  const worn = kit.find(({ id }) => id === plan.kit) ?? null;
  return (
    <>
      <Choice
        label="Kit that is fitted"
        empty="none"
        value={plan.kit ?? ""}
        options={named(kit.filter(({ fitted }) => fitted))}
        onChosen={(id) =>
          change({
            do: "set",
            change: {
              kit: id === "" ? null : id,
              kitStage: id === "" ? null : (kit.find((one) => one.id === id)?.place.stage ?? null),
            },
          })
        }
      />
      {worn !== null && (
        <div className="grid gap-2 border-l-4 border-hair pl-4">
          <Choice
            label="Stage"
            value={plan.kitStage ?? worn.place.stage}
            options={KIT_STAGES}
            onChosen={(stage) => change({ do: "set", change: { kitStage: stage } })}
          />
          <p className="text-sm">{worn.place.reason}</p>
          {fitSentences(worn.fit, today).map((sentence) => (
            <p key={sentence} className="text-sm font-semibold text-ochre">
              {sentence}
            </p>
          ))}
          <p className="text-sm text-soft">Before use: {FIT_CHECKS.join(", ")}.</p>
        </div>
      )}
    </>
  );
}
