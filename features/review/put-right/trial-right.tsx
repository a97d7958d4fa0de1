"use client";

import { useForm } from "react-hook-form";
import { type Criterion, MOVEMENT_GRADES } from "@/core/ladder";
import type { RightTrial, Trial } from "@/core/record";
import { EASE_GRADES } from "@/core/strands";
import { Choice, NumberBox, Problem, TextBox, typedNumber } from "@/ui/form";
import { Ends, SIDES, Why } from "./ends";
import { type Saving, strikes } from "./facts";

const OUTCOMES = [
  { value: "met", label: "got it" },
  { value: "try", label: "try" },
  { value: "miss", label: "other" },
  { value: "refused", label: "no answer" },
] as const;

/** A trial as it is typed anew: each field empty where nothing is known. */
interface TypedTrial {
  outcome: string;
  phase: string;
  side: string;
  value: string;
  ease: string;
  movement: string;
  zone: string;
  note: string;
}

const shown = (value: string | number | null | undefined) => (value == null ? "" : String(value));

/** A trial as its fields show it. */
export const typedTrial = (trial: Trial): TypedTrial => ({
  outcome: trial.outcome,
  phase: shown(trial.phase),
  side: shown(trial.side),
  value: shown(trial.value),
  ease: shown(trial.ease),
  movement: shown(trial.movement),
  zone: shown(trial.zone),
  note: shown(trial.note),
});

/** What of a trial was typed otherwise than it was. A grade, side, cue or value that is taken away says nothing. */
export function rightOf(trial: Trial, typed: TypedTrial): RightTrial {
  const was = typedTrial(trial);
  const changed = (key: keyof TypedTrial) => typed[key] !== was[key];
  const said = (key: keyof TypedTrial) => changed(key) && typed[key].trim() !== "";
  const value = typedNumber(typed.value);
  return {
    ...(changed("outcome") ? { outcome: typed.outcome as Trial["outcome"] } : {}),
    ...(said("phase") ? { phase: Number(typed.phase) } : {}),
    ...(said("side") ? { side: typed.side as "L" | "R" } : {}),
    ...(said("value") && value !== null ? { value } : {}),
    ...(said("ease") ? { ease: Number(typed.ease) } : {}),
    ...(said("movement") ? { movement: Number(typed.movement) } : {}),
    ...(changed("zone") ? { zone: typed.zone } : {}),
    ...(changed("note") ? { note: typed.note } : {}),
  };
}

const grades = (words: readonly string[]) => words.map((grade, i) => ({ value: String(i), label: `${i} ${grade}` }));

/** One trial put right or struck. */
export function TrialRight({
  trial,
  criterion,
  phases,
  saving,
}: {
  trial: Trial;
  criterion: Criterion | null;
  phases: readonly string[];
  saving: Saving;
}) {
  const { register, watch } = useForm<TypedTrial & { why: string }>({ defaultValues: { ...typedTrial(trial), why: "" } });
  const typed = watch();
  const right = rightOf(trial, typed);
  const noNumber = typed.value.trim() !== "" && typedNumber(typed.value) === null;
  // Only where the movement is graded, by the rung or by a tap.
  const moves = criterion?.min_movement !== undefined || trial.movement != null;
  const reason = typed.why.trim();
  return (
    <div className="grid gap-3 sm:grid-cols-4">
      <Choice small label="Answer" options={OUTCOMES} {...register("outcome")} />
      <Choice
        small
        label="Cue"
        empty="–"
        options={phases.map((label, i) => ({ value: String(i + 1), label: `${i + 1} ${label}` }))}
        {...register("phase")}
      />
      <Choice small label="Side" empty="–" options={SIDES} {...register("side")} />
      <Choice small label="Calm" empty="–" options={grades(EASE_GRADES)} {...register("ease")} />
      {moves && (
        <Choice small label="Movement" empty="–" options={grades(criterion?.movement ?? MOVEMENT_GRADES)} {...register("movement")} />
      )}
      <NumberBox small width="" label={`Value${trial.unit ? `, ${trial.unit}` : ""}`} bad={noNumber} {...register("value")} />
      <TextBox small label="Where" maxLength={80} {...register("zone")} />
      <TextBox small label="Note" maxLength={500} {...register("note")} />
      <Why {...register("why")} />
      {noNumber && <Problem className="sm:col-span-full">Value: a number, such as 3 or 2,5.</Problem>}
      <Ends
        what="trial"
        why={typed.why}
        changed={Object.keys(right).length > 0 && !noNumber}
        saving={saving}
        onSave={() => void saving.save([{ type: "correct", payload: { event: trial.eventId, payload: { right: { ...right } }, reason } }])}
        onStrike={() => void saving.save(strikes([...new Set([trial.eventId, ...trial.eventIds])], reason))}
      />
    </div>
  );
}
