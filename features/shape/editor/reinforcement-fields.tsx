"use client";

import { type Dispatch, useState } from "react";
import {
  type LadderPlan,
  METHOD_GUIDES,
  OFFER_RULES,
  REINFORCER_WORDS,
  REINFORCERS,
  ratioProgression,
  setRung,
  thinnedSchedules,
} from "@/core/ladder";
import { Field } from "@/ui/form";
import { FormNumber } from "./form-number";
import { LabelledNumber } from "./number-box";
import { ScheduleBox } from "./schedule-box";
import { type DraftForm, errorAt } from "./use-draft";
import type { RopeAction } from "./use-rope";

const OFFER_WORDS = { reinforce: "reinforce it: it is still growing", ignore: "ignore it", settle: "settle first, then ask" } as const;

/** Spreads the rewards out over the rungs: rich while it is new, lean when it is sure. */
function Thinning({ dispatch }: { dispatch: Dispatch<RopeAction> }) {
  const [leanest, setLeanest] = useState(4);
  const good = Number.isInteger(leanest) && leanest >= 2 && leanest <= 20;
  const thin = () =>
    dispatch({
      kind: "edit",
      edit: (rope) => thinnedSchedules(rope.rungs.length, leanest).reduce((now, schedule, i) => setRung(now, i + 1, { schedule }), rope),
    });
  const even = () =>
    dispatch({ kind: "edit", edit: (rope) => rope.rungs.reduce((now, _, i) => setRung(now, i + 1, { schedule: undefined }), rope) });
  return (
    <div className="border-t-2 border-hair pt-3 sm:col-span-4">
      <div className="flex flex-wrap items-end gap-3">
        <LabelledNumber
          label="Thin out to one in"
          className="w-44"
          value={leanest}
          problem={good ? null : "A whole number from 2 to 20."}
          onValue={setLeanest}
        />
        <button type="button" className="act-quiet" disabled={!good} onClick={thin}>
          Spread the rewards out over the rungs
        </button>
        <button type="button" className="act-quiet" onClick={even}>
          The same on every rung
        </button>
      </div>
      <p className="mt-1 max-w-prose text-sm text-soft">
        Every one at first, every second in the middle, one in {good ? leanest : "n"} on average at the end.{" "}
        {good &&
          `A list for that: ${ratioProgression(leanest).join(", ")}, in an order drawn for each block. It follows Fleshler and Hoffman's progression (1962), made for intervals, adapted here to whole answers.`}
      </p>
    </div>
  );
}

/** What the horse gets: how often, what, how much, and where. */
export function ReinforcementFields({
  form,
  plan,
  noFood,
  dispatch,
}: {
  form: DraftForm;
  plan: LadderPlan;
  /** Why the horse may have no food today, or null. */
  noFood: string | null;
  dispatch: Dispatch<RopeAction>;
}) {
  return (
    <div className="grid items-start gap-4 sm:grid-cols-4">
      <div className="sm:col-span-2">
        <ScheduleBox
          id="schedule-kind"
          label="Reinforced"
          value={form.watch("plan.schedule")}
          onChange={(schedule) => form.setValue("plan.schedule", schedule ?? { kind: "every" }, { shouldDirty: true })}
        />
      </div>
      <div className="sm:col-span-2">
        <Field id="plan.offers" label="An answer nobody asked for">
          <select id="plan.offers" {...form.register("plan.offers")} className="field-box">
            {OFFER_RULES.map((one) => (
              <option key={one} value={one}>
                {OFFER_WORDS[one]}
              </option>
            ))}
          </select>
        </Field>
      </div>
      <Field id="plan.feeding.reinforcer" label="Besides the release" error={errorAt(form, "plan.feeding.reinforcer")}>
        <select id="plan.feeding.reinforcer" {...form.register("plan.feeding.reinforcer")} className="field-box">
          {REINFORCERS.map((one) => (
            <option key={one} value={one}>
              {REINFORCER_WORDS[one]}
            </option>
          ))}
        </select>
      </Field>
      {plan.feeding.reinforcer === "food" ? (
        <>
          <FormNumber form={form} path="plan.feeding.pieceGrams" label="One piece, g" optional />
          <FormNumber form={form} path="plan.feeding.dayLimitGrams" label="Most a day, g" optional />
          <FormNumber form={form} path="plan.feeding.politeSeconds" label="Head turned away, s" hint="Before food comes; 0 asks for none" />
          <div className="sm:col-span-2">
            <Field id="plan.feeding.where" label="Given where" error={errorAt(form, "plan.feeding.where")}>
              <input
                id="plan.feeding.where"
                {...form.register("plan.feeding.where")}
                autoComplete="off"
                className="field-box"
                placeholder="under the chin, at arm's length"
              />
            </Field>
          </div>
        </>
      ) : (
        <p className="self-end text-soft sm:col-span-3">
          The food pad of the recorder becomes {REINFORCER_WORDS[plan.feeding.reinforcer]}.
        </p>
      )}
      {noFood !== null && plan.feeding.reinforcer === "food" && plan.method !== "pressure-release" && (
        <p role="status" className="border-l-4 border-brick pl-4 font-semibold text-brick sm:col-span-4">
          {noFood} A scratch or a rest can take its place.
        </p>
      )}
      <Thinning dispatch={dispatch} />
    </div>
  );
}

/** The method, its order of steps and its cautions. */
export function MethodGuideView({ method }: { method: LadderPlan["method"] }) {
  const guide = METHOD_GUIDES[method];
  return (
    <div className="grid gap-x-8 gap-y-2 sm:grid-cols-2">
      <p className="sm:col-span-2 max-w-prose">{guide.how}</p>
      <ol className="list-decimal pl-5">
        {guide.order.map((step) => (
          <li key={step}>{step}</li>
        ))}
      </ol>
      <ul className="grid content-start gap-1 border-l-4 border-brick pl-4">
        {guide.cautions.map((caution) => (
          <li key={caution}>{caution}</li>
        ))}
      </ul>
    </div>
  );
}
