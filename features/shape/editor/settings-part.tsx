"use client";

import { type Dispatch, memo } from "react";
import { useFormState, useWatch } from "react-hook-form";
import { type CueOfBehaviour, cueClashes, type TransferProgress } from "@/core/cues";
import { type LadderPlan, METHOD_GUIDES, METHODS, type PinnedSign, type Rung, type Ways, waysFor } from "@/core/ladder";
import type { YardSettings } from "@/core/settings";
import type { Strand } from "@/core/strands";
import { type Allowance, barredMethod } from "@/core/welfare";
import { Field } from "@/ui/form";
import { BehaviourFields } from "./behaviour-fields";
import { ConversationFields } from "./conversation-fields";
import { FormNumber } from "./form-number";
import { MasteryFields } from "./mastery-fields";
import { PhaseFields } from "./phase-fields";
import { MethodGuideView, ReinforcementFields } from "./reinforcement-fields";
import type { RestingChoice } from "./rests-on-fields";
import type { DraftForm } from "./use-draft";
import type { RopeAction } from "./use-rope";
import { WayFields } from "./way-fields";

/** What the editor knows of the horse's other work. */
export interface EditorSurroundings {
  /** The yard's own thresholds. */
  readonly settings: YardSettings;
  readonly otherCues: readonly CueOfBehaviour[];
  readonly transferred: TransferProgress | null;
  readonly choices: readonly RestingChoice[];
  /** Names of behaviours by key. */
  readonly names: Readonly<Record<string, string>>;
  /** Signs the yard has added to the product's own. */
  readonly ownSigns: readonly PinnedSign[];
}

function Part({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    // Out of sight it costs nothing, so that a drag on the rope stays quick.
    <section className="border-t-2 border-ink pt-3 [contain-intrinsic-size:auto_22rem] [content-visibility:auto]">
      <h2 className="mb-3 text-xl">{title}</h2>
      {children}
    </section>
  );
}

/**
 * Everything of a ladder that is not its rope. It listens to the form by
 * itself and follows the rope a moment later, so that a drag is not held up.
 */
export const SettingsPart = memo(function SettingsPart({
  form,
  strands,
  rungs,
  ways,
  allowance,
  surroundings,
  dispatch,
}: {
  form: DraftForm;
  strands: readonly Strand[];
  /** The rungs without their values: nothing here depends on those. */
  rungs: readonly Omit<Rung, "values">[];
  ways: Ways;
  allowance: Allowance;
  surroundings: EditorSurroundings;
  dispatch: Dispatch<RopeAction>;
}) {
  useWatch({ control: form.control });
  useFormState({ control: form.control });
  const { behaviour, plan: settings } = form.getValues();
  const plan: LadderPlan = { ...settings, strands, rungs: rungs.map((own) => ({ ...own, values: {} })), ways };
  const clashes = cueClashes(
    {
      behaviour: behaviour.name,
      cue: behaviour.cue ?? "",
      movement: (behaviour.movement ?? "other") as CueOfBehaviour["movement"],
      phases: plan.phases,
    },
    surroundings.otherCues,
  );
  const choices = waysFor(
    strands.map(({ key }) => key),
    strands.map(({ name }) => name),
    behaviour.free ?? false,
  );
  const setPressure = (profile: "steady" | "rising") =>
    settings.phases.forEach((phase, i) => {
      if (phase.profile !== "pulse") form.setValue(`plan.phases.${i}.profile`, profile, { shouldDirty: true });
    });
  return (
    <>
      <Part title="The ask, lightest first">
        <PhaseFields form={form} clashes={clashes} transferred={surroundings.transferred} />
      </Part>
      <Part title="Method">
        <div className="grid gap-4 sm:grid-cols-4">
          <div className="sm:col-span-2">
            <Field id="plan.method" label="Method">
              <select id="plan.method" {...form.register("plan.method")} className="field-box">
                {METHODS.map((method) => (
                  <option key={method} value={method} disabled={barredMethod(method, allowance) !== null}>
                    {METHOD_GUIDES[method].name}
                    {barredMethod(method, allowance) === null ? "" : " (no food today)"}
                  </option>
                ))}
              </select>
            </Field>
          </div>
          <FormNumber form={form} path="plan.plannedRepetitions" label="Repetitions a block" />
          <div className="sm:col-span-4">
            <MethodGuideView method={plan.method} />
          </div>
        </div>
      </Part>
      <Part title="What it earns">
        <ReinforcementFields form={form} plan={plan} noFood={allowance.noFood?.why ?? null} dispatch={dispatch} />
      </Part>
      <Part title="When it moves on">
        <MasteryFields form={form} rungs={rungs.length} settings={surroundings.settings} />
      </Part>
      <Part title="Where trainers disagree">
        <WayFields choices={choices} ways={ways} dispatch={dispatch} onPressure={setPressure} />
      </Part>
      <section className="border-t-2 border-ink pt-3">
        <details open={settings.conversation !== undefined}>
          <summary className="cursor-pointer font-head text-xl font-bold">Between the asks</summary>
          <p className="mt-1 mb-3 max-w-prose text-soft">
            Wrong choices, the horse's own time, signs, your own feet, the rig. What is ticked has a pad in the recorder; nothing else has.
          </p>
          <ConversationFields form={form} own={surroundings.ownSigns} />
        </details>
      </section>
      <Part title="About the behaviour">
        <BehaviourFields form={form} choices={surroundings.choices} names={surroundings.names} />
      </Part>
    </>
  );
});
