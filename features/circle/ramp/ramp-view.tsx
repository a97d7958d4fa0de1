"use client";

import { useRouter } from "next/navigation";
import { type ReactNode, useState } from "react";
import { useForm } from "react-hook-form";
import { type CircleCaps, firstSide, type LoadEntry } from "@/core/circle";
import { toLog } from "@/core/events/circle-log";
import { check, circleSetupSchema } from "@/core/schemas";
import type { PlannerStart } from "@/core/start";
import { Choice, NumberBox, type Outcome, OutcomeLine, send } from "@/ui/form";
import { RampBroken } from "../ramp-broken";
import { WaysChoice } from "../ways-choice";
import { SIDE_WORDS } from "../words";
import { RampFields } from "./ramp-fields";
import { RampStands } from "./ramp-stands";
import { judgeSetup, type SetupValues, setupBody, setupValues } from "./setup-values";
import { SoundFields } from "./sound-fields";

const SIDES = [
  { value: "L", label: "left" },
  { value: "R", label: "right" },
] as const;

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section aria-label={title} className="border-t-2 border-hair pt-4">
      <h2 className="mb-3 text-2xl">{title}</h2>
      {children}
    </section>
  );
}

/** What holds now, and why. */
function CapsNow({ caps }: { caps: CircleCaps }) {
  return (
    <>
      <p className="mt-3">
        Holds now: {caps.sessionMinutes.value} min a session
        {caps.weekMinutes === null ? "" : `, ${caps.weekMinutes.value} min in seven days`}
        {caps.weekVisits === null ? "" : `, ${caps.weekVisits.value} a week`}. {caps.sessionMinutes.why}
      </p>
      {caps.sentence !== null && <p className="mt-1">{caps.sentence}</p>}
      <p className="mt-1 text-sm text-soft">Left empty, the yard’s hold; they stand under Settings. Restrictions and age come first.</p>
    </>
  );
}

/** The set-up as a form: judged at each change, checked by its route's own schema, then sent. */
function useSetup(start: PlannerStart) {
  const router = useRouter();
  const form = useForm<SetupValues>({ defaultValues: setupValues(start) });
  const [outcome, setOutcome] = useState<Outcome | null>(null);
  const values = form.watch();
  const judged = judgeSetup(values, start);
  const submit = form.handleSubmit(async (typed) => {
    const { rampProblem, soundTwice } = judgeSetup(typed, start);
    if (rampProblem !== null || soundTwice) return setOutcome({ text: rampProblem ?? "Each sound means one thing alone.", bad: true });
    const checked = check(circleSetupSchema, toLog(setupBody(typed, start)));
    if (!checked.ok) return setOutcome({ text: checked.problems[0]?.message ?? "", bad: true });
    const sent = await send("PUT", `/api/horses/${start.horse.id}/circle`, checked.value);
    setOutcome(sent.ok ? { text: "Saved.", bad: false } : { text: sent.message, bad: true });
    if (sent.ok) router.refresh();
  });
  return { form, values, judged, outcome, submit, busy: form.formState.isSubmitting };
}

/** The ramp of a horse, its sides, its caps and its sounds. */
export function RampView({ start, entries }: { start: PlannerStart; entries: readonly LoadEntry[] }) {
  const { horse, setup } = start;
  const { form, values, judged, outcome, submit, busy } = useSetup(start);
  const { register, setValue } = form;
  const stiffer = values.stiffer === "" ? null : values.stiffer;
  const side = firstSide({ stiffer, stifferFirst: values.stifferComes === "first" });
  return (
    <form onSubmit={(event) => void submit(event)} noValidate>
      <h1 className="text-[2rem]">Ramp and caps, {horse.name}</h1>
      <RampStands start={start} entries={entries} capMinutes={judged.caps.sessionMinutes.value} />
      <RampBroken problem={start.rampProblem} />
      <div className="mt-6 grid gap-7 lg:grid-cols-2 lg:gap-x-14">
        <Part title="The ramp">
          <RampFields raised={values.raised} steps={judged.steps} problem={judged.rampProblem} register={register} />
        </Part>
        <Part title="Sides">
          <WaysChoice easy={start.easyBothWays} ways={values.ways} change={(ways) => setValue("ways", ways)} />
          <div className="mt-3 flex flex-wrap gap-4">
            <Choice label="The stiffer side" empty="not known" options={SIDES} {...register("stiffer")} />
            <Choice label="It comes" options={["second", "first"]} {...register("stifferComes")} />
          </div>
          <p className="mt-2 text-sm text-soft">
            The {SIDE_WORDS[side.side]} hand first. {side.why}
          </p>
        </Part>
        <Part title="This horse’s own caps">
          <div className="grid gap-3 sm:grid-cols-3">
            <NumberBox
              label="Minutes a session"
              unit="min"
              placeholder="the yard’s"
              width="w-28 text-right"
              {...register("caps.session")}
            />
            <NumberBox label="Minutes a week" unit="min" placeholder="the yard’s" width="w-28 text-right" {...register("caps.week")} />
            <NumberBox label="Sessions a week" unit="" placeholder="the yard’s" width="w-28 text-right" {...register("caps.visits")} />
          </div>
          <CapsNow caps={judged.caps} />
        </Part>
        <Part title="Sounds">
          <SoundFields sounds={values.sounds} changed={setup.changed} twice={judged.soundTwice} horseId={horse.id} register={register} />
        </Part>
      </div>
      <div className="mt-6 flex flex-wrap items-center gap-4">
        <button type="submit" className="act" disabled={busy}>
          Save
        </button>
        <OutcomeLine outcome={outcome} />
      </div>
    </form>
  );
}
