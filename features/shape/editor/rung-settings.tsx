"use client";

import { ChevronRight } from "lucide-react";
import { type ComponentProps, type Dispatch, memo, useDeferredValue, useMemo, useState } from "react";
import { movingOnSentence, valuesGoalOf } from "@/core/advice";
import { PERCENTILE_DEFAULTS, percentileBar } from "@/core/evidence";
import { foodPlan, type LadderPlan, METHOD_GUIDES, METHODS, MOVEMENT_GRADES, type Rung, setRung, WANTED_ACT } from "@/core/ladder";
import { counted } from "@/core/words";
import { onAdvice } from "@/ui/form/on-word";
import { ValueStrip } from "@/ui/measure";
import { LabelledNumber } from "./number-box";
import { ScheduleBox } from "./schedule-box";
import type { RopeAction } from "./use-rope";

type SetRung = (change: Partial<Omit<Rung, "values">>, gesture?: string) => void;

const LOOK_BACK = [3, 50] as const;
const SHARES = [0.1, 0.95] as const;
const isLookBack = (n: number) => Number.isInteger(n) && n >= LOOK_BACK[0] && n <= LOOK_BACK[1];
const isShare = (share: number) => share >= SHARES[0] && share <= SHARES[1];

/** How often the handler may do what is counted, within one ask. */
function HandlerMost({ plan, rung, set }: { plan: LadderPlan; rung: Rung; set: SetRung }) {
  return (
    <div className="sm:col-span-2">
      <p className="mb-1 font-semibold">You, within one ask</p>
      <div className="flex flex-wrap gap-x-4 gap-y-1">
        {(plan.conversation?.acts ?? [])
          .filter((act) => act !== WANTED_ACT)
          .map((act) => {
            const limit = rung.handlerMost?.find((one) => one.act === act)?.most;
            return (
              <label key={act} className="flex items-center gap-2 text-sm">
                {act}
                <select
                  value={limit ?? ""}
                  onChange={(event) => {
                    const others = (rung.handlerMost ?? []).filter((one) => one.act !== act);
                    const next = event.target.value === "" ? others : [...others, { act, most: Number(event.target.value) }];
                    set({ handlerMost: next.length === 0 ? undefined : next });
                  }}
                  className="field-box w-auto!"
                >
                  <option value="">no limit</option>
                  {[0, 1, 2, 3, 4, 5, 10].map((most) => (
                    <option key={most} value={most}>
                      {most === 0 ? "none" : `at most ${most}`}
                    </option>
                  ))}
                </select>
              </label>
            );
          })}
      </div>
      {(plan.conversation?.acts ?? []).length === 0 && (
        <p className="text-sm text-soft">Tick what you count under Between the asks first.</p>
      )}
    </div>
  );
}

/** The bar that follows the horse: how many values it looks at, and the share that earns it. */
function PercentileFields({
  plan,
  number,
  percentile,
  values,
  set,
}: {
  plan: LadderPlan;
  number: number;
  percentile: NonNullable<Rung["percentile"]>;
  values: readonly number[];
  set: SetRung;
}) {
  const working = plan.strands.find(({ id }) => id === plan.workingStrandId);
  const goal = valuesGoalOf(plan, number);
  const good = isLookBack(percentile.lookBack) && isShare(percentile.wantedShare);
  return (
    <>
      <LabelledNumber
        label="Last values looked at"
        value={percentile.lookBack}
        problem={isLookBack(percentile.lookBack) ? null : `A whole number from ${LOOK_BACK[0]} to ${LOOK_BACK[1]}.`}
        onValue={(lookBack) => set({ percentile: { ...percentile, lookBack } }, `look-${number}`)}
      />
      <LabelledNumber
        label="Share that earns it, %"
        value={Math.round(percentile.wantedShare * 1000) / 10}
        problem={isShare(percentile.wantedShare) ? null : "From 10 to 95."}
        onValue={(share) => set({ percentile: { ...percentile, wantedShare: share / 100 } }, `share-${number}`)}
      />
      {good && working !== undefined && (
        <div>
          <ValueStrip
            values={values.slice(-percentile.lookBack)}
            bar={percentileBar(values, percentile.lookBack, percentile.wantedShare, working.harder)}
            unit={working.unit}
            harder={working.harder}
            goal={goal?.value ?? null}
          />
          <p className="mt-1 text-sm text-soft">Moves on when: {movingOnSentence(plan.mastery, goal)}.</p>
        </div>
      )}
    </>
  );
}

/** Food for a block on the rung. Nothing where no number of asks is planned. */
function FoodLine({ plan, number }: { plan: LadderPlan; number: number }) {
  const { plannedRepetitions, feeding } = plan;
  const countable = Number.isInteger(plannedRepetitions) && plannedRepetitions >= 1;
  const food = countable ? foodPlan(plan, number, plannedRepetitions, 1) : null;
  if (food === null) return null;
  return (
    <p className="mt-3">
      Food for a block on rung {number}: {counted(food.pieces, "piece")}
      {food.grams === null ? "" : `, ${Math.round(food.grams)} g`}, a fifth of it in reserve.
      {food.withinLimit === false && (
        <strong className="block text-brick">More in one block than the day's limit of {feeding.dayLimitGrams} g.</strong>
      )}
    </p>
  );
}

/** What one rung may set for itself: its method, what it earns, and a bar that follows the horse. */
const Settings = memo(function RungSettings({
  plan,
  rung,
  number,
  values,
  dispatch,
}: {
  plan: LadderPlan;
  rung: Rung;
  number: number;
  /** The horse's last values on the counted strand, oldest first. */
  values: readonly number[];
  dispatch: Dispatch<RopeAction>;
}) {
  const set: SetRung = (change, gesture) => dispatch({ kind: "edit", edit: (rope) => setRung(rope, number, change), gesture });
  const working = plan.strands.find(({ id }) => id === plan.workingStrandId);
  const { percentile } = rung;
  return (
    <div id="rung-settings">
      <div className="mt-1 grid gap-x-6 gap-y-4 sm:grid-cols-3">
        <div>
          <label htmlFor={`rung-method-${number}`} className="mb-1 block font-semibold">
            Method
          </label>
          <select
            id={`rung-method-${number}`}
            value={rung.method ?? ""}
            onChange={onAdvice(["", ...METHODS], (method) => set({ method: method === "" ? undefined : method }))}
            className="field-box"
          >
            <option value="">as the ladder</option>
            {METHODS.map((method) => (
              <option key={method} value={method}>
                {METHOD_GUIDES[method].name}
              </option>
            ))}
          </select>
        </div>
        <ScheduleBox
          id={`rung-schedule-${number}`}
          label="Reinforced"
          value={rung.schedule}
          none="as the ladder"
          onChange={(schedule) => set({ schedule }, `schedule-${number}`)}
        />
        <div>
          <label className="flex min-h-10 items-center gap-2 font-semibold">
            <input
              type="checkbox"
              checked={percentile !== undefined}
              disabled={working === undefined && percentile === undefined}
              onChange={(event) => set({ percentile: event.target.checked ? { ...PERCENTILE_DEFAULTS } : undefined })}
              className="size-5 accent-(--tarn)"
            />
            The bar follows the horse
          </label>
          <p className="text-sm text-soft">
            {working === undefined
              ? "Choose a counted strand first."
              : `What earns it is set by its own last values of ${working.name}, so that a fixed share of answers does.`}
          </p>
        </div>
        <div>
          <label htmlFor={`rung-movement-${number}`} className="mb-1 block font-semibold">
            Movement at least
          </label>
          <select
            id={`rung-movement-${number}`}
            value={rung.leastMovement ?? ""}
            onChange={(event) => set({ leastMovement: event.target.value === "" ? undefined : Number(event.target.value) })}
            className="field-box"
          >
            <option value="">not graded</option>
            {(plan.conversation?.movement ?? MOVEMENT_GRADES).map((word, grade) => (
              <option key={grade} value={grade}>
                {grade}: {word}
              </option>
            ))}
          </select>
        </div>
        <HandlerMost plan={plan} rung={rung} set={set} />
        {percentile !== undefined && <PercentileFields plan={plan} number={number} percentile={percentile} values={values} set={set} />}
      </div>
      <FoodLine plan={plan} number={number} />
    </div>
  );
});

/** Closed they cost nothing; open they follow the rope a moment later, so that a drag is not held up. */
export const RungSettings = memo(function RungSettings({ plan, rung, ...rest }: ComponentProps<typeof Settings>) {
  const [pressed, setPressed] = useState<boolean | null>(null);
  const later = useDeferredValue(useMemo(() => ({ plan, rung }), [plan, rung]));
  const { method, schedule, percentile, leastMovement, handlerMost } = rung;
  // A rung that sets something of its own shows it, until it is closed by hand.
  const open = pressed ?? [method, schedule, percentile, leastMovement, handlerMost].some((own) => own !== undefined);
  return (
    <div className="border-t-2 border-hair pt-2">
      <button
        type="button"
        className="inline-flex min-h-10 items-center gap-1 font-semibold text-tarn"
        aria-expanded={open}
        aria-controls={open ? "rung-settings" : undefined}
        onClick={() => setPressed(!open)}
      >
        <ChevronRight size={18} aria-hidden="true" className={open ? "rotate-90" : ""} />
        Only on this rung
      </button>
      {open && <Settings {...later} {...rest} />}
    </div>
  );
});
