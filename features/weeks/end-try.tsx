"use client";

import { useRouter } from "next/navigation";
import { endTrySchema } from "@/core/experiment/form";
import { Field, FormEnd, tied, useSentForm } from "@/ui/form";

/** Ends an experiment before its last block. */
export function EndTry({ horseId, id }: { horseId: string; id: string }) {
  const router = useRouter();
  const { register, submit, error, problem, busy } = useSentForm<{ why: string }>({
    schema: endTrySchema,
    start: { why: "" },
    target: { method: "POST", url: `/api/horses/${horseId}/tries/${id}` },
    onSaved: () => router.refresh(),
  });
  return (
    <details className="no-print mt-8 border-t-2 border-hair pt-3">
      <summary className="link inline-block">End it here</summary>
      <form onSubmit={submit} noValidate className="mt-3 grid max-w-xl gap-3">
        <Field
          id="end-why"
          label="Why"
          hint="For the horse at any time. Ended for what it seems to show, it shows nothing."
          error={error("why")}
        >
          <input {...register("why")} {...tied("end-why", error("why"))} className="field-box" autoComplete="off" maxLength={300} />
        </Field>
        <FormEnd label="End the experiment" busy={busy} problem={problem} />
      </form>
    </details>
  );
}
