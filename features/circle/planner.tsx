"use client";

import { useMemo, useReducer, useState } from "react";
import {
  CIRCLE_GAITS,
  type CircleOverride,
  type CirclePlan,
  circleCaps,
  circlingSentence,
  FIT_CHECKS,
  fitSentences,
  KIT_STAGES,
  type KitStage,
  PACE_METRES,
  planCautions,
  planSums,
  standingCautions,
  TRANSITIONS_BY,
  wornAt,
} from "@/core/circle";
import type { PlannerStart } from "@/core/start";
import { feetToMetres } from "@/core/units";
import { send, useRequestIds } from "@/ui/form";
import { lengthUnit, lengthWords, useUnits } from "@/ui/units";
import { useWay, WayLink } from "@/ui/way";
import { beginSession } from "../device/begin-session";
import { goToSession } from "../pen/go-to-session";
import { ClosedBecause } from "./closed-because";
import { LinesFields } from "./lines-fields";
import { Cautions, PlanSumsView } from "./plan-live";
import { changePlan, type PlanChange, USUAL_LINES } from "./plan-state";
import { Segments } from "./segments";
import { WaysChoice } from "./ways-choice";
import { typedNumber } from "./words";

const FORMS = [
  { value: "circle", label: "On a line, round you" },
  { value: "pen", label: "Driven loose in a pen" },
  { value: "lines", label: "In long lines" },
] as const;

const TRANSITION_WORDS = { will: "as you like", time: "by time", quarter: "by the quarter circle", lap: "by the lap" } as const;

/** The radius: as metres, as paces stepped out, or as the line let out. */
function Radius({
  plan,
  lines,
  change,
}: {
  plan: CirclePlan;
  lines: readonly { readonly id: string; readonly name: string; readonly lengthMetres: number | null }[];
  change: (change: PlanChange) => void;
}) {
  const units = useUnits();
  // A pace is a pace; a length is typed in the units of this device.
  const unit = plan.radius_by === "paces" ? PACE_METRES : units === "imperial" ? feetToMetres(1) : 1;
  const shown = (metres: number) => String(Math.round((metres / unit) * 10) / 10);
  const [typed, setTyped] = useState<string | null>(null);
  const radius = plan.radius_m ?? 8;
  const number = typed === null ? null : typedNumber(typed);
  const metresOf = (value: number) => value * unit;
  const bad = typed !== null && (number === null || metresOf(number) < 2 || metresOf(number) > 30);
  return (
    <div className="flex flex-wrap items-end gap-3">
      <label className="grid">
        <span className="font-semibold">Radius by</span>
        <select
          value={plan.radius_by}
          className="field-box mt-1 w-44"
          onChange={(event) => {
            setTyped(null);
            change({ do: "set", change: { radius_by: event.target.value as CirclePlan["radius_by"] } });
          }}
        >
          <option value="line">line let out, {lengthUnit(units)}</option>
          <option value="paces">paces</option>
          <option value="metres">{units === "imperial" ? "feet" : "metres"}</option>
        </select>
      </label>
      <label className="grid">
        <span className="font-semibold">Radius</span>
        <input
          inputMode="decimal"
          aria-invalid={bad}
          aria-describedby="radius-says"
          value={typed ?? shown(radius)}
          className={`field-box figures mt-1 w-24 ${bad ? "border-brick" : ""}`}
          onChange={(event) => {
            setTyped(event.target.value);
            const next = typedNumber(event.target.value);
            if (next !== null && metresOf(next) >= 2 && metresOf(next) <= 30)
              change({ do: "set", change: { radius_m: Math.round(metresOf(next) * 100) / 100 } });
          }}
          onBlur={() => setTyped(null)}
        />
      </label>
      {plan.radius_by === "line" &&
        lines
          .flatMap(({ id, name, lengthMetres }) => (lengthMetres === null || lengthMetres < 4 ? [] : [{ id, name, lengthMetres }]))
          .map(({ id, name, lengthMetres }) => (
            <button key={id} type="button" className="act-quiet" onClick={() => change({ do: "set", change: { radius_m: lengthMetres } })}>
              {name}, {lengthWords(lengthMetres, units)}
            </button>
          ))}
      <p id="radius-says" className={`basis-full text-sm ${bad ? "font-semibold text-brick" : "text-soft"}`}>
        {bad
          ? `Radius: from ${lengthWords(2, units)} to ${lengthWords(30, units)}.`
          : `A circle ${lengthWords(Math.round(radius * 20) / 10, units)} across${plan.radius_by === "paces" ? `, ${lengthWords(PACE_METRES, units)} to a pace` : ""}.`}
      </p>
    </div>
  );
}

function Choice({
  label,
  value,
  list,
  onChange,
  empty,
}: {
  label: string;
  value: string;
  list: readonly { readonly id: string; readonly name: string }[];
  onChange: (value: string) => void;
  empty: string;
}) {
  return (
    <label className="grid content-start">
      <span className="font-semibold">{label}</span>
      <select value={value} className="field-box mt-1" onChange={(event) => onChange(event.target.value)}>
        <option value="">{empty}</option>
        {list.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}

/** Plans a session on the circle: live against the caps, then begins it. */
export function CirclePlanner({ start, storeId }: { start: PlannerStart; storeId: string }) {
  const { horse, settings, setup, age, allowance, kit } = start;
  const way = useWay();
  const ids = useRequestIds();
  const [plan, change] = useReducer(changePlan, start.plan);
  const [overrides, setOverrides] = useState<readonly CircleOverride[]>([]);
  const [person, setPerson] = useState(
    start.last.person !== null && start.people.some(({ id }) => id === start.last.person) ? start.last.person : "",
  );
  const [place, setPlace] = useState(
    start.last.place !== null && start.places.some(({ id }) => id === start.last.place) ? start.last.place : "",
  );
  const [ladder, setLadder] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);

  const worn = kit.find(({ id }) => id === plan.kit) ?? null;
  const caps = useMemo(
    () => circleCaps({ age, allowance, settings, own: setup.caps, ways: plan.ways, heat: null }),
    [age, allowance, settings, setup.caps, plan.ways],
  );
  const cautions = useMemo(() => {
    const kitWorn = wornAt(worn?.place, plan.kit_stage);
    return planCautions(
      plan,
      caps,
      { ...start.use, kitWorn },
      { age, allowance },
      settings,
      start.places.find(({ id }) => id === place) ?? null,
    );
  }, [plan, caps, start.use, worn, age, allowance, settings, start.places, place]);
  const standing = standingCautions(cautions, overrides);
  const chosen = start.ladders.find(({ id }) => id === ladder);
  const chooseLadder = (id: string) => {
    setLadder(id);
    change({
      do: "set",
      change: {
        transitions: {
          ...plan.transitions,
          to: CIRCLE_GAITS.find((gait) => gait === start.ladders.find((one) => one.id === id)?.gait) ?? null,
        },
      },
    });
  };
  const used = circlingSentence(start.use, caps);
  const step = start.ramp?.steps[start.ramp.place.step];

  const closed = horse.away !== null || standing.length > 0;
  const whole: CirclePlan = { ...plan, lines: plan.form === "lines" ? (plan.lines ?? USUAL_LINES) : null };
  const begin = async () => {
    setBusy(true);
    setProblem(null);
    // What was written for a caution that no longer stands says nothing.
    const own = overrides
      .filter(({ key, why }) => why.trim() !== "" && cautions.some((one) => one.key === key))
      .map(({ key, why }) => ({ key, why: why.trim() }));
    const asked = {
      horse: horse.id,
      kind: "circle" as const,
      ladder: chosen?.id ?? null,
      person: person === "" ? null : person,
      place: place === "" ? null : place,
      start_rung: chosen?.rung ?? null,
      kit: plan.kit === null ? [] : [plan.kit],
      circle: { plan: whole, overrides: own },
    };
    const id = ids.idFor(asked);
    const begun = await beginSession(storeId, { id, ...asked });
    if (begun.ok) return goToSession(way, begun, `/horses/${horse.id}/work/${id}`);
    setProblem(begun.message);
    setBusy(false);
  };
  const save = async () => {
    setSaid(null);
    const sent = await send("PUT", `/api/horses/${horse.id}/circle/plan`, { plan: whole });
    setSaid(sent.ok ? "Kept: the next session begins with it, where no ramp runs." : sent.message);
  };

  return (
    <>
      <h1 className="text-[2rem]">Circle work, {horse.name}</h1>
      {start.doNext !== null && <p className="mt-2 border-l-4 border-tarn pl-4 font-head text-xl font-bold text-tarn">{start.doNext}</p>}
      {start.limits.length > 0 && (
        <div className="mt-3 border-l-4 border-brick pl-4 font-semibold text-brick">
          {start.limits.map((limit) => (
            <p key={limit}>{limit}</p>
          ))}
        </div>
      )}
      {used !== null && (
        <p className="mt-3 text-soft">
          {used}
          {start.balance.share !== null &&
            ` Two weeks: ${Math.round(start.balance.left)} min left, ${Math.round(start.balance.right)} min right.`}
        </p>
      )}
      {step !== undefined && start.ramp !== null && (
        <p className="mt-3 border-l-4 border-tarn pl-4">
          <strong>
            Step {start.ramp.place.step + 1} of {start.ramp.steps.length} of the ramp.
          </strong>{" "}
          {start.ramp.place.reason} The plan below is its plan.
        </p>
      )}
      {start.rampProblem !== null && (
        <p className="mt-3 border-l-4 border-brick pl-4 font-semibold">The ramp does not hold any more. {start.rampProblem}</p>
      )}
      {/* On a phone the plan is long: what needs no change begins here. */}
      <button type="button" className="act mt-4 w-full lg:hidden" onClick={() => void begin()} disabled={busy || closed}>
        Begin as it stands, {Math.round(planSums(plan).totalMinutes)} min
      </button>
      <div className="mt-2 lg:hidden">
        <ClosedBecause away={horse.away} standing={standing} />
      </div>
      <div className="mt-6 grid grid-cols-[minmax(0,1fr)] gap-x-14 gap-y-8 lg:grid-cols-[minmax(0,1fr)_24rem]">
        <div className="grid content-start gap-7">
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
                    checked={plan.form === value}
                    onChange={() => change({ do: "set", change: { form: value } })}
                  />
                  {label}
                </label>
              ))}
            </div>
          </fieldset>
          {plan.radius_m !== null && <Radius plan={plan} lines={kit.filter(({ kind }) => kind === "line")} change={change} />}
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
          {plan.form === "circle" && (
            <details className="border-t-2 border-hair pt-3" open={plan.obstacles.length > 0 || plan.transitions.by !== "will"}>
              <summary className="min-h-11 cursor-pointer text-lg font-semibold">Transitions and obstacles</summary>
              <div className="mt-2 grid gap-3">
                <div className="flex flex-wrap gap-3">
                  <label className="grid content-start">
                    <span className="font-semibold">Transitions</span>
                    <select
                      value={plan.transitions.by}
                      className="field-box mt-1"
                      onChange={(event) =>
                        change({
                          do: "set",
                          change: {
                            transitions: {
                              ...plan.transitions,
                              by: event.target.value as CirclePlan["transitions"]["by"],
                              every: event.target.value === "will" ? null : 1,
                            },
                          },
                        })
                      }
                    >
                      {TRANSITIONS_BY.map((by) => (
                        <option key={by} value={by}>
                          {TRANSITION_WORDS[by]}
                        </option>
                      ))}
                    </select>
                  </label>
                  {plan.transitions.by !== "will" && (
                    <label className="grid content-start">
                      <span className="font-semibold">Every</span>
                      <select
                        value={plan.transitions.every ?? 1}
                        className="field-box mt-1"
                        onChange={(event) =>
                          change({ do: "set", change: { transitions: { ...plan.transitions, every: Number(event.target.value) } } })
                        }
                      >
                        {[0.5, 1, 2, 3, 4].map((every) => (
                          <option key={every} value={every}>
                            {every} {plan.transitions.by === "time" ? "min" : plan.transitions.by === "lap" ? "laps" : "quarters"}
                          </option>
                        ))}
                      </select>
                    </label>
                  )}
                </div>
                <label className="grid content-start">
                  <span className="font-semibold">Obstacles on the circle</span>
                  <input
                    defaultValue={plan.obstacles.join(", ")}
                    placeholder="none; a pole, two cones"
                    className="field-box mt-1"
                    onBlur={(event) =>
                      change({
                        do: "set",
                        change: {
                          obstacles: event.target.value
                            .split(",")
                            .map((one) => one.trim().slice(0, 80))
                            .filter((one) => one !== "")
                            .slice(0, 8),
                        },
                      })
                    }
                  />
                </label>
                {plan.obstacles.length > 0 && (
                  <label className="flex min-h-11 items-center gap-2">
                    <input
                      type="checkbox"
                      className="size-5 accent-(--tarn)"
                      checked={plan.led_first}
                      onChange={(event) => change({ do: "set", change: { led_first: event.target.checked } })}
                    />
                    led over them first
                  </label>
                )}
              </div>
            </details>
          )}
        </div>
        <div className="grid content-start gap-5">
          <PlanSumsView plan={plan} speeds={start.speeds} />
          <div id="cautions">
            <Cautions cautions={cautions} overrides={overrides} change={setOverrides} horseId={horse.id} />
          </div>
          <Choice label="Handler" empty="not said" value={person} list={start.people} onChange={setPerson} />
          <Choice label="Place" empty="not said" value={place} list={start.places} onChange={setPlace} />
          <Choice
            label="Kit that is fitted"
            empty="none"
            value={plan.kit ?? ""}
            list={kit.filter(({ fitted }) => fitted)}
            onChange={(id) =>
              change({
                do: "set",
                change: {
                  kit: id === "" ? null : id,
                  kit_stage: id === "" ? null : (kit.find((one) => one.id === id)?.place.stage ?? null),
                },
              })
            }
          />
          {worn !== null && (
            <div className="grid gap-2 border-l-4 border-hair pl-4">
              <label className="grid content-start">
                <span className="font-semibold">Stage</span>
                <select
                  value={plan.kit_stage ?? worn.place.stage}
                  className="field-box mt-1"
                  onChange={(event) => change({ do: "set", change: { kit_stage: event.target.value as KitStage } })}
                >
                  {KIT_STAGES.map((stage) => (
                    <option key={stage}>{stage}</option>
                  ))}
                </select>
              </label>
              <p className="text-sm">{worn.place.reason}</p>
              {fitSentences(worn.fit, start.today).map((sentence) => (
                <p key={sentence} className="text-sm font-semibold text-ochre">
                  {sentence}
                </p>
              ))}
              <p className="text-sm text-soft">Before use: {FIT_CHECKS.join(", ")}.</p>
            </div>
          )}
          {start.ladders.length > 0 && (
            <div>
              <Choice label="Transitions are asks of" empty="no behaviour" value={ladder} list={start.ladders} onChange={chooseLadder} />
              {chosen !== undefined && (
                <>
                  <p className="mt-1 text-sm text-soft">{chosen.criterion}</p>
                  <label className="mt-1 grid text-sm">
                    Which count
                    <select
                      value={plan.transitions.to ?? ""}
                      className="field-box mt-0.5"
                      onChange={(event) =>
                        change({
                          do: "set",
                          change: {
                            transitions: { ...plan.transitions, to: CIRCLE_GAITS.find((gait) => gait === event.target.value) ?? null },
                          },
                        })
                      }
                    >
                      <option value="">every transition</option>
                      {CIRCLE_GAITS.map((gait) => (
                        <option key={gait} value={gait}>
                          to {gait}
                        </option>
                      ))}
                    </select>
                  </label>
                </>
              )}
            </div>
          )}
          <button type="button" className="act min-h-16 text-xl" onClick={() => void begin()} disabled={busy || closed}>
            Open the circle clock
          </button>
          <ClosedBecause away={horse.away} standing={standing} />
          {problem !== null && (
            <p role="alert" className="font-semibold text-brick">
              {problem}
            </p>
          )}
          <button type="button" className="act-quiet" onClick={() => void save()}>
            Keep this plan
          </button>
          <p aria-live="polite" className="text-sm">
            {said}
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
