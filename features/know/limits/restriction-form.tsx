"use client";

import { TOUCH_ZONES } from "@/core/know";
import { limbsOf, type RestrictionInput, restrictionSchema } from "@/core/schemas";
import { GAITS_SLOWEST_FIRST, isLegZone, RESTRICTION_FACTS, RESTRICTION_KINDS, type RestrictionKind } from "@/core/welfare";
import { type FieldsOf, FormEnd, SentChoice, SentInput, savedUnder, useSentForm } from "@/ui/form";

/** What a restriction of each kind of detail is asked for, and what can be said. */
const DETAILS = {
  gait: { label: "No faster than", options: GAITS_SLOWEST_FIRST },
  side: { label: "Only the", options: ["left", "right"] },
  "touch-zone": { label: "Where", options: TOUCH_ZONES },
} as const;

/** A restriction nobody has said anything of. */
export const NO_RESTRICTION: RestrictionInput = {
  kind: "no-circling",
  amount: null,
  detail: "",
  limb: "",
  carries_others: "",
  reason: "",
  given_by: "",
  from_day: null,
  until_day: null,
};

type Form = FieldsOf<RestrictionInput>;

/** How much, how fast, which side or where: what the kind of restriction asks. */
function DetailFields({ form, kind }: { form: Form; kind: RestrictionKind }) {
  const { detail, unit, range } = RESTRICTION_FACTS[kind];
  if (detail === "amount")
    return (
      <SentInput
        form={form}
        name="amount"
        label={`At most${unit === "" ? "" : `, ${unit}`}`}
        hint={`From ${range[0]} to ${range[1]}`}
        span={3}
        mayBeNothing
        inputMode="decimal"
        figures
      />
    );
  if (detail === "gait" || detail === "side" || detail === "touch-zone")
    return <SentChoice form={form} name="detail" span={3} empty="choose" {...DETAILS[detail]} />;
  return <div className="sm:col-span-3" />;
}

/** Which leg or side, and whether the horse may carry that leg while the others are handled. */
function TouchFields({ form, zone, limb }: { form: Form; zone: string; limb: string }) {
  const leg = isLegZone(zone);
  return (
    <>
      {zone !== "" && (
        <SentChoice
          form={form}
          name="limb"
          label={leg ? "Which leg" : "Which side"}
          span={3}
          empty={leg ? "every leg" : "both sides"}
          options={limbsOf(zone)}
        />
      )}
      {leg && limb !== "" && (
        <SentChoice
          form={form}
          name="carries_others"
          label="May it carry that leg while the others are handled?"
          hint="Not said closes all four"
          span={3}
          empty="not said"
          options={["yes", "no"]}
        />
      )}
    </>
  );
}

/** Writes a restriction down, or changes one. */
export function RestrictionForm({
  horseId,
  id,
  start,
  onDone,
}: {
  horseId: string;
  id?: string;
  start: RestrictionInput;
  onDone: () => void;
}) {
  const form = useSentForm<RestrictionInput>({
    schema: restrictionSchema,
    start,
    target: savedUnder(`/api/horses/${horseId}/restrictions`, id),
    onSaved: onDone,
  });
  const kind = form.watch("kind") as RestrictionKind;
  const afresh = () => {
    form.setValue("amount", null);
    for (const name of ["detail", "limb", "carries_others"] as const) form.setValue(name, "");
  };
  return (
    <form onSubmit={form.submit} noValidate className="grid max-w-3xl gap-4 border-l-4 border-tarn pl-4 sm:grid-cols-6">
      <SentChoice
        form={form}
        name="kind"
        label="Restriction"
        span={3}
        rules={{ onChange: afresh }}
        options={RESTRICTION_KINDS.map((one) => ({ value: one, label: RESTRICTION_FACTS[one].words }))}
      />
      <DetailFields form={form} kind={kind} />
      {kind === "touch-off" && (
        <TouchFields form={form} zone={String(form.watch("detail") ?? "")} limb={String(form.watch("limb") ?? "")} />
      )}
      <SentInput form={form} name="reason" label={kind === "other" ? "What the advice is" : "Why"} autoComplete="off" />
      <SentInput form={form} name="given_by" label="Advice of" hint="For example the veterinarian" span={2} autoComplete="off" />
      <SentInput form={form} name="from_day" label="From" hint="Empty: already" span={2} mayBeNothing type="date" figures />
      <SentInput
        form={form}
        name="until_day"
        label="Until, that day too"
        hint="Empty: until it is ended"
        span={2}
        mayBeNothing
        type="date"
        figures
      />
      <FormEnd label={id === undefined ? "Add the restriction" : "Save"} busy={form.busy} problem={form.problem} onLeave={onDone} />
    </form>
  );
}
