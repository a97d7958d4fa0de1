"use client";

import {
  type Conversation,
  HANDLER_ACTS,
  type HandlerAct,
  MOVEMENT_GRADES,
  OWN_TIMES,
  type PinnedSign,
  RIG_TIMES,
  type RigCheck,
  WRONG_ANSWERS,
  WRONG_CHOICES,
} from "@/core/ladder";
import { onAdvice } from "@/ui/form/on-word";
import { SignPicker } from "../../signs/sign-picker";
import { type DraftForm, errorAt } from "./use-draft";

const OWN_TIME_WORDS = {
  looks: "looks: how long it is left to look at something by its own will",
  settles: "settles: how long until it stands or lowers its head",
} as const;
const WHEN_WORDS = { start: "at the start", side: "at the start and on each change of side" } as const;

function Tick({ label, checked, onChange }: { label: string; checked: boolean; onChange: (checked: boolean) => void }) {
  return (
    <label className="flex min-h-10 items-center gap-2">
      <input
        type="checkbox"
        checked={checked}
        onChange={(event) => onChange(event.target.checked)}
        className="size-5 shrink-0 accent-(--tarn)"
      />
      {label}
    </label>
  );
}

const withOrWithout = <Item,>(list: readonly Item[] | undefined, item: Item, on: boolean): readonly Item[] => [
  ...(list ?? []).filter((one) => one !== item),
  ...(on ? [item] : []),
];

type Set = (change: Partial<Conversation>) => void;

/** A pad for wrong choices, with what it mostly is and meets. */
function WrongFields({ whenWrong, set }: { whenWrong: Conversation["whenWrong"]; set: Set }) {
  return (
    <fieldset className="grid gap-2">
      <legend className="font-semibold">When it chooses wrong</legend>
      <Tick
        label="A pad for it: what the horse did, what it met, how long"
        checked={whenWrong !== undefined}
        onChange={(on) => set({ whenWrong: on ? { did: "", met: "", plan: "" } : undefined })}
      />
      {whenWrong !== undefined && (
        <div className="grid gap-3 sm:grid-cols-3">
          {(
            [
              ["did", "It mostly", WRONG_CHOICES],
              ["met", "It meets", WRONG_ANSWERS],
            ] as const
          ).map(([key, label, words]) => (
            <label key={key} className="text-sm font-semibold">
              {label}
              <input
                value={whenWrong[key]}
                maxLength={80}
                list={`wrong-${key}`}
                autoComplete="off"
                onChange={(event) => set({ whenWrong: { ...whenWrong, [key]: event.target.value } })}
                className="field-box mt-1 font-normal"
              />
              <datalist id={`wrong-${key}`}>
                {words.map((word) => (
                  <option key={word} value={word} />
                ))}
              </datalist>
            </label>
          ))}
          <label className="text-sm font-semibold">
            The plan, in your words
            <input
              value={whenWrong.plan}
              maxLength={300}
              autoComplete="off"
              placeholder="one step back, then ask again from there"
              onChange={(event) => set({ whenWrong: { ...whenWrong, plan: event.target.value } })}
              className="field-box mt-1 font-normal"
            />
          </label>
          <p className="text-sm text-soft sm:col-span-3">
            What comes after a wrong choice and makes it rarer is called punishment, what ends with the right one negative reinforcement.
            Both work only where the choice becomes rarer soon; the advice is Go back if it does not.
          </p>
        </div>
      )}
    </fieldset>
  );
}

/** The words of the five grades of movement. */
function MovementWords({ movement, problem, set }: { movement: Conversation["movement"]; problem: string | undefined; set: Set }) {
  return (
    <fieldset>
      <legend className="font-semibold">The movement, from 0 to 4</legend>
      <p className="text-sm text-soft">Used where a rung asks for it. Your own words, or the ones that are there.</p>
      <div className="mt-1 grid grid-cols-2 gap-2 sm:grid-cols-5">
        {MOVEMENT_GRADES.map((word, grade) => (
          <input
            key={word}
            aria-label={`Movement ${grade}`}
            value={movement?.[grade] ?? word}
            maxLength={40}
            onChange={(event) => {
              const next = MOVEMENT_GRADES.map((usual, i) => (i === grade ? event.target.value : (movement?.[i] ?? usual)));
              set({ movement: next.every((one, i) => one === MOVEMENT_GRADES[i]) ? undefined : next });
            }}
            className="field-box"
          />
        ))}
      </div>
      {problem !== undefined && <p className="text-sm font-semibold text-brick">{problem}</p>}
    </fieldset>
  );
}

/** What is looked at of the rig, and when. */
function RigFields({ rig, problem, set }: { rig: readonly RigCheck[]; problem: string | undefined; set: Set }) {
  const setRig = (next: readonly RigCheck[]) => set({ rig: next });
  return (
    <fieldset className="grid gap-2">
      <legend className="font-semibold">The rig, looked at before work</legend>
      {rig.map((check, i) => (
        <div key={i} className="flex flex-wrap gap-2">
          <input
            aria-label={`Check ${i + 1}`}
            value={check.text}
            maxLength={80}
            placeholder="rope turned round for this side"
            onChange={(event) => setRig(rig.map((one, at) => (at === i ? { ...one, text: event.target.value } : one)))}
            className="field-box grow"
          />
          <select
            aria-label={`Check ${i + 1}, when`}
            value={check.when}
            onChange={onAdvice(RIG_TIMES, (when) => setRig(rig.map((one, at) => (at === i ? { ...one, when } : one))))}
            className="field-box w-auto!"
          >
            {RIG_TIMES.map((when) => (
              <option key={when} value={when}>
                {WHEN_WORDS[when]}
              </option>
            ))}
          </select>
          <button
            type="button"
            className="act-quiet"
            aria-label={`Take out check ${i + 1}`}
            onClick={() => setRig(rig.filter((_, at) => at !== i))}
          >
            ×
          </button>
        </div>
      ))}
      <button
        type="button"
        className="act-quiet justify-self-start"
        disabled={rig.length >= 12}
        onClick={() => setRig([...rig, { text: "", when: "start" }])}
      >
        A check
      </button>
      {problem !== undefined && <p className="text-sm font-semibold text-brick">{problem}</p>}
    </fieldset>
  );
}

/** What is logged between the asks. All of it is off until it is asked for: each thing that is on has a pad. */
export function ConversationFields({ form, own }: { form: DraftForm; own: readonly PinnedSign[] }) {
  const said: Conversation = (form.watch("plan.conversation") as Conversation | undefined) ?? {};
  const set = (change: Partial<Conversation>) => form.setValue("plan.conversation", { ...said, ...change } as never, { shouldDirty: true });
  const problem = (path: string) => errorAt(form, `plan.conversation.${path}` as never);
  return (
    <div className="grid gap-5">
      <WrongFields whenWrong={said.whenWrong} set={set} />
      <fieldset>
        <legend className="font-semibold">The horse's own time</legend>
        {OWN_TIMES.map((what) => (
          <Tick
            key={what}
            label={OWN_TIME_WORDS[what]}
            checked={said.ownTimes?.includes(what) ?? false}
            onChange={(on) => set({ ownTimes: withOrWithout(said.ownTimes, what, on) })}
          />
        ))}
        <Tick
          label="going away as the reinforcer, before the horse does"
          checked={said.retreats ?? false}
          onChange={(on) => set({ retreats: on })}
        />
      </fieldset>
      <fieldset>
        <legend className="mb-1 font-semibold">Signs in sight while it is worked</legend>
        <SignPicker chosen={said.pinned ?? []} own={own} onChange={(pinned) => set({ pinned })} />
        {problem("pinned") !== undefined && <p className="text-sm font-semibold text-brick">{problem("pinned")}</p>}
      </fieldset>
      <fieldset>
        <legend className="font-semibold">What you do, counted</legend>
        <div className="grid sm:grid-cols-3">
          {HANDLER_ACTS.map((act: HandlerAct) => (
            <Tick
              key={act}
              label={act}
              checked={said.acts?.includes(act) ?? false}
              onChange={(on) => set({ acts: withOrWithout(said.acts, act, on) })}
            />
          ))}
        </div>
      </fieldset>
      <MovementWords movement={said.movement} problem={problem("movement")} set={set} />
      <RigFields rig={said.rig ?? []} problem={problem("rig")} set={set} />
    </div>
  );
}
