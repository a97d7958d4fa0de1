"use client";

import { type CirclePlan, circlingSentence, planSums } from "@/core/circle";
import type { PlannerStart } from "@/core/start";
import { Choice, named, Problem } from "@/ui/form";
import { WayLink } from "@/ui/way";
import { WaysChoice } from "../ways-choice";
import { ClosedBecause } from "./closed-because";
import { KitChoice } from "./kit-choice";
import { LadderChoice } from "./ladder-choice";
import { LinesFields } from "./lines-fields";
import { Cautions, PlanSumsView } from "./plan-live";
import { type PlanChange, USUAL_LINES } from "./plan-state";
import { Radius } from "./radius";
import { Segments } from "./segments";
import { TodayLines } from "./today-lines";
import { TransitionsFields } from "./transitions-fields";
import { usePlanner } from "./use-planner";

const FORMS = [
  { value: "circle", label: "On a line, round you" },
  { value: "pen", label: "Driven loose in a pen" },
  { value: "lines", label: "In long lines" },
] as const;

/** What the horse goes on: a line round you, loose in a pen, long lines. */
function FormChoice({ form, change }: { form: CirclePlan["form"]; change: (change: PlanChange) => void }) {
  return (
    <fieldset>
      <legend className="mb-2 text-lg font-semibold">How</legend>
      <div className="flex flex-wrap gap-2">
        {FORMS.map(({ value, label }) => (
          <label
            key={value}
            className="flex min-h-11 cursor-pointer items-center gap-2 rounded border-2 border-hair px-3 has-checked:border-ink has-checked:bg-paper has-checked:font-semibold"
          >
            <input
              type="radio"
              name="form"
              className="size-5 accent-(--tarn)"
              checked={form === value}
              onChange={() => change({ do: "set", change: { form: value } })}
            />
            {label}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

/** Plans a session on the circle: live against the caps, then begins it. */
export function CirclePlanner({ start, storeId }: { start: PlannerStart; storeId: string }) {
  const { horse, kit } = start;
  const planner = usePlanner(start, storeId);
  const { plan, change } = planner;
  const shut = planner.busy || planner.closed;
  const because = <ClosedBecause away={horse.away} standing={planner.standing} />;
  return (
    <>
      <h1 className="text-[2rem]">Circle work, {horse.name}</h1>
      <TodayLines start={start} used={circlingSentence(start.use, planner.caps)} />
      {/* On a phone the plan is long: what needs no change begins here. */}
      <button type="button" className="act mt-4 w-full lg:hidden" onClick={() => void planner.begin()} disabled={shut}>
        Begin as it stands, {Math.round(planSums(plan).totalMinutes)} min
      </button>
      <div className="mt-2 lg:hidden">{because}</div>
      <div className="mt-6 grid grid-cols-[minmax(0,1fr)] gap-x-14 gap-y-8 lg:grid-cols-[minmax(0,1fr)_24rem]">
        <div className="grid content-start gap-7">
          <FormChoice form={plan.form} change={change} />
          {plan.radiusMetres !== null && <Radius plan={plan} lines={kit.filter(({ kind }) => kind === "line")} change={change} />}
          {plan.form !== "lines" && (
            <fieldset>
              <legend className="mb-2 font-semibold">Sides</legend>
              <WaysChoice easy={start.easyBothWays} ways={plan.ways} change={(ways) => change({ do: "set", change: { ways } })} />
            </fieldset>
          )}
          <Segments plan={plan} change={change} />
          {plan.form === "lines" && (
            <LinesFields lines={plan.lines ?? USUAL_LINES} change={(lines) => change({ do: "lines", change: lines })} />
          )}
          {plan.form === "circle" && <TransitionsFields plan={plan} change={change} />}
        </div>
        <div className="grid content-start gap-5">
          <PlanSumsView plan={plan} speeds={start.speeds} />
          <div id="cautions">
            <Cautions cautions={planner.cautions} overrides={planner.overrides} change={planner.setOverrides} horseId={horse.id} />
          </div>
          <Choice label="Handler" empty="not said" value={planner.person} options={named(start.people)} onChosen={planner.setPerson} />
          <Choice label="Place" empty="not said" value={planner.place} options={named(start.places)} onChosen={planner.setPlace} />
          <KitChoice plan={plan} kit={kit} today={start.today} change={change} />
          <LadderChoice plan={plan} ladders={start.ladders} chosen={planner.ladder} choose={planner.setLadder} change={change} />
          <button type="button" className="act min-h-16 text-xl" onClick={() => void planner.begin()} disabled={shut}>
            Open the circle clock
          </button>
          {because}
          <Problem>{planner.problem}</Problem>
          <button type="button" className="act-quiet" onClick={() => void planner.keep()}>
            Keep this plan
          </button>
          <p aria-live="polite" className="text-sm">
            {planner.said}
          </p>
          <p className="text-sm text-soft">
            Helmet, gloves, boots. The line folded in the hand, never wrapped. Stand out of the kick zone when you send the horse off. Lame,
            short of breath, hot or distressed: stop, and call a veterinarian.{" "}
            {plan.form === "lines" && "Driving is begun beside a qualified professional. "}
            <WayLink className="link" href={`/horses/${horse.id}/work`}>
              Other work
            </WayLink>
          </p>
        </div>
      </div>
    </>
  );
}
