import { type CirclePlan, TRANSITIONS_BY } from "@/core/circle";
import { CheckRow, Choice, TextBox } from "@/ui/form";
import type { PlanChange } from "./plan-state";

const BY_WORDS = { will: "as you like", time: "by time", quarter: "by the quarter circle", lap: "by the lap" } as const;
const EVERY_UNITS = { will: "", time: "min", lap: "laps", quarter: "quarters" } as const;

/** The obstacles somebody typed, at most eight, with commas between them. */
const obstaclesTyped = (text: string) =>
  text
    .split(",")
    .map((one) => one.trim().slice(0, 80))
    .filter((one) => one !== "")
    .slice(0, 8);

/** When a transition comes, and what lies on the circle. */
export function TransitionsFields({ plan, change }: { plan: CirclePlan; change: (change: PlanChange) => void }) {
  const { transitions, obstacles } = plan;
  const set = (part: Partial<CirclePlan>) => change({ do: "set", change: part });
  return (
    <details className="border-t-2 border-hair pt-3" open={obstacles.length > 0 || transitions.by !== "will"}>
      <summary className="min-h-11 cursor-pointer text-lg font-semibold">Transitions and obstacles</summary>
      <div className="mt-2 grid gap-3">
        <div className="flex flex-wrap gap-3">
          <Choice
            label="Transitions"
            value={transitions.by}
            options={TRANSITIONS_BY.map((by) => ({ value: by, label: BY_WORDS[by] }))}
            onChosen={(by) =>
              set({
                transitions: { ...transitions, by, every: by === "will" ? null : 1 },
              })
            }
          />
          {transitions.by !== "will" && (
            <Choice
              label="Every"
              value={transitions.every ?? 1}
              options={[0.5, 1, 2, 3, 4].map((every) => ({ value: String(every), label: `${every} ${EVERY_UNITS[transitions.by]}` }))}
              onChosen={(every) => set({ transitions: { ...transitions, every: Number(every) } })}
            />
          )}
        </div>
        <TextBox
          label="Obstacles on the circle"
          defaultValue={obstacles.join(", ")}
          placeholder="none; a pole, two cones"
          onBlur={(event) => set({ obstacles: obstaclesTyped(event.target.value) })}
        />
        {obstacles.length > 0 && <CheckRow label="led over them first" checked={plan.ledFirst} onCheck={(led) => set({ ledFirst: led })} />}
      </div>
    </details>
  );
}
