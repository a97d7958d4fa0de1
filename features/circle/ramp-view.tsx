"use client";

import { useRouter } from "next/navigation";
import { type FormEvent, type ReactNode, useState } from "react";
import {
  CIRCLE_SOUND_NAMES,
  CIRCLE_SOUNDS,
  type CircleCall,
  type CircleSound,
  circleCaps,
  firstSide,
  type LoadEntry,
  type RampLoad,
  rampProblem,
  rampSteps,
  USUAL_SOUNDS,
} from "@/core/circle";
import { dayWords } from "@/core/day";
import type { PlannerStart } from "@/core/start";
import { rampCapsOf, USUAL_START } from "@/core/today";
import { send } from "@/ui/form";
import { How } from "@/ui/measure";
import { StackColumns } from "@/ui/stack-columns";
import { play } from "../sound/feedback";
import { rampColumns } from "./ramp-columns";
import { WaysChoice } from "./ways-choice";
import { SIDE_WORDS, typedNumber } from "./words";

const CALL_WORDS: Readonly<Record<CircleCall, string>> = {
  ahead: "a change in ten seconds",
  turn: "change the way",
  end: "the end",
  transition: "a transition now",
  stand: "stand",
  walk: "walk",
  trot: "trot",
  canter: "canter",
};

const CHANGE_WORDS = {
  start: "the start",
  shift: "a minute shifted",
  total: "a minute more in all",
  obstacles: "obstacles",
  canter: "a minute into canter",
} as const;

interface Draft {
  readonly walk: string;
  readonly trot: string;
  readonly canter: string;
  readonly obstacles: boolean;
}

const asDraft = ({ walk, trot, canter, obstacles }: RampLoad): Draft => ({
  walk: String(walk),
  trot: String(trot),
  canter: String(canter),
  obstacles,
});
const asLoad = ({ walk, trot, canter, obstacles }: Draft): RampLoad => ({
  walk: typedNumber(walk) ?? Number.NaN,
  trot: typedNumber(trot) ?? Number.NaN,
  canter: typedNumber(canter) ?? Number.NaN,
  obstacles,
});

function LoadFields({ name, draft, change }: { name: string; draft: Draft; change: (draft: Draft) => void }) {
  return (
    <fieldset>
      <legend className="font-semibold">{name}, minutes each way</legend>
      <div className="mt-1 flex flex-wrap items-end gap-3">
        {(["walk", "trot", "canter"] as const).map((gait) => (
          <label key={gait} className="grid text-sm">
            {gait}
            <input
              inputMode="decimal"
              aria-label={`${name}, ${gait}`}
              value={draft[gait]}
              className="field-box figures mt-0.5 w-20 text-right"
              onChange={(event) => change({ ...draft, [gait]: event.target.value })}
            />
          </label>
        ))}
        <label className="flex min-h-11 items-center gap-2 text-sm">
          <input
            type="checkbox"
            checked={draft.obstacles}
            className="size-5 accent-(--tarn)"
            onChange={(event) => change({ ...draft, obstacles: event.target.checked })}
          />
          obstacles
        </label>
      </div>
    </fieldset>
  );
}

function Amount({
  label,
  unit,
  value,
  change,
  help,
}: {
  label: string;
  unit: string;
  value: string;
  change: (value: string) => void;
  help?: string;
}) {
  return (
    <label className="grid content-start">
      <span className="font-semibold">{label}</span>
      <span className="mt-1 flex items-center gap-2">
        <input
          inputMode="decimal"
          value={value}
          placeholder="the yard’s"
          className="field-box figures w-28 text-right"
          onChange={(event) => change(event.target.value)}
        />
        <span className="text-soft">{unit}</span>
      </span>
      {help !== undefined && <span className="text-sm text-soft">{help}</span>}
    </label>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section aria-label={title} className="border-t-2 border-hair pt-4">
      <h2 className="mb-3 text-2xl">{title}</h2>
      {children}
    </section>
  );
}

/** The ramp of a horse, its sides, its caps and its sounds. */
export function RampView({ start, entries }: { start: PlannerStart; entries: readonly LoadEntry[] }) {
  const { horse, setup, settings, age, allowance } = start;
  const router = useRouter();
  const [ways, setWays] = useState(setup.ways);
  const [stiffer, setStiffer] = useState(setup.stiffer);
  const [stifferFirst, setStifferFirst] = useState(setup.stiffer_first);
  const shown = (value: number | null) => (value === null ? "" : String(value));
  const [own, setOwn] = useState({
    session: shown(setup.caps.session_minutes),
    week: shown(setup.caps.week_minutes),
    visits: shown(setup.caps.week_visits),
  });
  const [sounds, setSounds] = useState(setup.sounds);
  const [on, setOn] = useState(setup.ramp !== null);
  const [first, setFirst] = useState<Draft>(asDraft(setup.ramp?.start ?? USUAL_START));
  const [goal, setGoal] = useState<Draft>(asDraft(setup.ramp?.goal ?? { walk: 6, trot: 8, canter: 0, obstacles: true }));
  const [week, setWeek] = useState(setup.ramp?.sessions_a_week ?? 3);
  const [radius, setRadius] = useState(String(setup.ramp?.radius_m ?? 8));
  const [since, setSince] = useState(setup.ramp?.since ?? start.today);
  const [message, setMessage] = useState<{ readonly text: string; readonly bad: boolean } | null>(null);
  const [busy, setBusy] = useState(false);

  const caps = circleCaps({
    age,
    allowance,
    settings,
    own: { session_minutes: typedNumber(own.session), week_minutes: typedNumber(own.week), week_visits: typedNumber(own.visits) },
    ways,
    heat: null,
  });
  const metres = typedNumber(radius);
  const input =
    metres === null
      ? null
      : {
          start: asLoad(first),
          goal: asLoad(goal),
          sessionsAWeek: week,
          ways,
          caps: rampCapsOf(caps, metres, settings.circleCanterMetres),
        };
  const problem = !on ? null : input === null ? "Radius: a number of metres." : rampProblem(input);
  const steps = on && input !== null && problem === null ? rampSteps(input) : [];
  const twice = new Set(Object.values(sounds)).size < Object.keys(sounds).length;

  const save = async (event: FormEvent) => {
    event.preventDefault();
    if (problem !== null || twice) return setMessage({ text: problem ?? "Each sound means one thing alone.", bad: true });
    setBusy(true);
    const sent = await send("PUT", `/api/horses/${horse.id}/circle`, {
      ways,
      stiffer,
      stiffer_first: stifferFirst,
      caps: { session_minutes: typedNumber(own.session), week_minutes: typedNumber(own.week), week_visits: typedNumber(own.visits) },
      sounds,
      plan: setup.plan,
      ramp: on ? { start: asLoad(first), goal: asLoad(goal), sessions_a_week: week, radius_m: metres, since } : null,
    });
    setMessage(sent.ok ? { text: "Saved.", bad: false } : { text: sent.message, bad: true });
    setBusy(false);
    if (sent.ok) router.refresh();
  };

  const { ramp } = start;
  const columns = ramp === null || setup.ramp === null ? [] : rampColumns(entries, setup.ramp.since, ramp.planned, setup.ways);
  const side = firstSide({ stiffer, stiffer_first: stifferFirst });
  return (
    <form onSubmit={(event) => void save(event)} noValidate>
      <h1 className="text-[2rem]">Ramp and caps, {horse.name}</h1>
      {ramp !== null && setup.ramp !== null && (
        <section aria-label="Where the ramp stands" className="mt-4">
          <p className="border-l-4 border-tarn pl-4 text-lg">
            <strong>
              Step {ramp.place.step + 1} of {ramp.steps.length}
            </strong>
            {ramp.place.side === null ? "" : `, ${SIDE_WORDS[ramp.place.side]}`}. {ramp.place.reason}
            {ramp.planned[0] !== undefined && ` Next on ${dayWords(ramp.planned[0].day)}.`}
            {ramp.place.step < ramp.steps.length - 1 &&
              ` At the goal about ${dayWords(ramp.planned.find(({ step }) => step === ramp.steps.length - 1)?.day ?? "")}, where each step goes well.`}
          </p>
          <div className="mt-4">
            <StackColumns
              columns={columns}
              label={`Minutes a session since ${dayWords(setup.ramp.since)}, done and planned`}
              capMinutes={caps.sessionMinutes.value}
            />
            <How of="the ramp">
              Pale: walk; dark: trot; plum: canter; “o” above a column: obstacles. Outlined columns are planned. A step is done by a session
              of four fifths of its minutes that was not poor; a poor one is repeated; two weeks without go a step back. Common practice, no
              source.
            </How>
          </div>
        </section>
      )}
      {start.rampProblem !== null && (
        <p className="mt-3 border-l-4 border-brick pl-4 font-semibold">The ramp does not hold any more. {start.rampProblem}</p>
      )}
      <div className="mt-6 grid gap-7 lg:grid-cols-2 lg:gap-x-14">
        <Part title="The ramp">
          <label className="flex min-h-11 items-center gap-2">
            <input type="checkbox" checked={on} className="size-5 accent-(--tarn)" onChange={(event) => setOn(event.target.checked)} />
            raise the work by steps
          </label>
          {on && (
            <div className="mt-2 grid gap-4">
              <LoadFields name="Start" draft={first} change={setFirst} />
              <LoadFields name="Goal" draft={goal} change={setGoal} />
              <div className="flex flex-wrap items-end gap-4">
                <label className="grid content-start">
                  <span className="font-semibold">Sessions a week</span>
                  <select value={week} className="field-box mt-1 w-28" onChange={(event) => setWeek(Number(event.target.value))}>
                    {[1, 2, 3, 4, 5, 6, 7].map((n) => (
                      <option key={n}>{n}</option>
                    ))}
                  </select>
                </label>
                <label className="grid content-start">
                  <span className="font-semibold">Radius, m</span>
                  <input
                    inputMode="decimal"
                    value={radius}
                    className="field-box figures mt-1 w-24 text-right"
                    onChange={(event) => setRadius(event.target.value)}
                  />
                </label>
                <label className="grid content-start">
                  <span className="font-semibold">Counts from</span>
                  <input type="date" value={since} className="field-box mt-1" onChange={(event) => setSince(event.target.value)} />
                </label>
              </div>
              {problem === null ? (
                <details>
                  <summary className="min-h-11 cursor-pointer font-semibold">{steps.length} steps, one change at a time</summary>
                  <ol className="figures mt-1 grid gap-0.5 text-sm">
                    {steps.map(({ walk, trot, canter, obstacles, change }, i) => (
                      <li key={i}>
                        {i + 1}. walk {walk}, trot {trot}
                        {canter > 0 ? `, canter ${canter}` : ""}
                        {obstacles ? ", obstacles" : ""} <span className="text-soft">({CHANGE_WORDS[change]})</span>
                      </li>
                    ))}
                  </ol>
                </details>
              ) : (
                <p role="alert" className="font-semibold text-brick">
                  {problem}
                </p>
              )}
            </div>
          )}
        </Part>
        <Part title="Sides">
          <WaysChoice easy={start.easyBothWays} ways={ways} change={setWays} />
          <div className="mt-3 flex flex-wrap gap-4">
            <label className="grid content-start">
              <span className="font-semibold">The stiffer side</span>
              <select
                value={stiffer ?? ""}
                className="field-box mt-1"
                onChange={(event) => setStiffer(event.target.value === "" ? null : (event.target.value as "L" | "R"))}
              >
                <option value="">not known</option>
                <option value="L">left</option>
                <option value="R">right</option>
              </select>
            </label>
            <label className="grid content-start">
              <span className="font-semibold">It comes</span>
              <select
                value={stifferFirst ? "first" : "second"}
                className="field-box mt-1"
                onChange={(event) => setStifferFirst(event.target.value === "first")}
              >
                <option value="second">second</option>
                <option value="first">first</option>
              </select>
            </label>
          </div>
          <p className="mt-2 text-sm text-soft">
            The {SIDE_WORDS[side.side]} hand first. {side.why}
          </p>
        </Part>
        <Part title="This horse’s own caps">
          <div className="grid gap-3 sm:grid-cols-3">
            <Amount label="Minutes a session" unit="min" value={own.session} change={(session) => setOwn({ ...own, session })} />
            <Amount label="Minutes a week" unit="min" value={own.week} change={(minutes) => setOwn({ ...own, week: minutes })} />
            <Amount label="Sessions a week" unit="" value={own.visits} change={(visits) => setOwn({ ...own, visits })} />
          </div>
          <p className="mt-3">
            Holds now: {caps.sessionMinutes.value} min a session
            {caps.weekMinutes === null ? "" : `, ${caps.weekMinutes.value} min in seven days`}
            {caps.weekVisits === null ? "" : `, ${caps.weekVisits.value} a week`}. {caps.sessionMinutes.why}
          </p>
          {caps.sentence !== null && <p className="mt-1">{caps.sentence}</p>}
          <p className="mt-1 text-sm text-soft">Left empty, the yard’s hold; they stand under Settings. Restrictions and age come first.</p>
        </Part>
        <Part title="Sounds">
          <p className="mb-2">The same sound always means the same thing; the horse learns them too.</p>
          <ul className="grid gap-1.5">
            {(Object.keys(USUAL_SOUNDS) as CircleCall[]).map((call) => (
              <li key={call} className="flex flex-wrap items-center gap-2">
                <span className="w-44">{CALL_WORDS[call]}</span>
                <select
                  aria-label={`Sound for ${CALL_WORDS[call]}`}
                  value={sounds[call]}
                  className="field-box w-40"
                  onChange={(event) => setSounds({ ...sounds, [call]: event.target.value as CircleSound })}
                >
                  {CIRCLE_SOUND_NAMES.map((name) => (
                    <option key={name}>{name}</option>
                  ))}
                </select>
                <button
                  type="button"
                  className="act-quiet"
                  aria-label={`Hear ${CALL_WORDS[call]}`}
                  onClick={() => play(CIRCLE_SOUNDS[sounds[call]].map((tone) => ({ ...tone })))}
                >
                  Hear
                </button>
              </li>
            ))}
          </ul>
          {twice && <p className="mt-2 font-semibold text-brick">Two things have the same sound; each means one thing alone.</p>}
          {setup.changed.map(({ call, before, since: from }) => (
            <p key={call} className="mt-2 border-l-4 border-ochre pl-3 text-sm">
              {CALL_WORDS[call]} sounded “{before}” until {dayWords(from)}. The new sound means nothing to this horse yet: give it first,
              the old ask a second after, until the horse answers before the ask comes.{" "}
              <a className="link" href={`/horses/${horse.id}/shape/library/answers-a-sound-on-the-circle`}>
                Plan it as a new cue
              </a>
            </p>
          ))}
        </Part>
      </div>
      <div className="mt-6 flex flex-wrap items-center gap-4">
        <button type="submit" className="act" disabled={busy}>
          Save
        </button>
        <p role={message?.bad === true ? "alert" : "status"} className={message?.bad === true ? "font-semibold text-brick" : ""}>
          {message?.text}
        </p>
      </div>
    </form>
  );
}
