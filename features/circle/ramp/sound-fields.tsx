import type { UseFormRegister } from "react-hook-form";
import { CIRCLE_SOUND_NAMES, CIRCLE_SOUNDS, type CircleCall, type CircleSetup, USUAL_SOUNDS } from "@/core/circle";
import { dayWords } from "@/core/day";
import { keysOf } from "@/core/typed";
import { Options } from "@/ui/form";
import { play } from "../../sound/feedback";
import type { SetupValues } from "./setup-values";

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

const CALLS = keysOf(USUAL_SOUNDS);

/** Which sound means what, each to be heard; and which were given another meaning. */
export function SoundFields({
  sounds,
  changed,
  twice,
  horseId,
  register,
}: {
  sounds: SetupValues["sounds"];
  changed: CircleSetup["changed"];
  /** Whether two calls have one sound. */
  twice: boolean;
  horseId: string;
  register: UseFormRegister<SetupValues>;
}) {
  return (
    <>
      <p className="mb-2">The same sound always means the same thing; the horse learns them too.</p>
      <ul className="grid gap-1.5">
        {CALLS.map((call) => (
          <li key={call} className="flex flex-wrap items-center gap-2">
            <span className="w-44">{CALL_WORDS[call]}</span>
            <select aria-label={`Sound for ${CALL_WORDS[call]}`} className="field-box w-40" {...register(`sounds.${call}`)}>
              <Options options={CIRCLE_SOUND_NAMES} />
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
      {changed.map(({ call, before, since }) => (
        <p key={call} className="mt-2 border-l-4 border-ochre pl-3 text-sm">
          {CALL_WORDS[call]} sounded “{before}” until {dayWords(since)}. The new sound means nothing to this horse yet: give it first, the
          old ask a second after, until the horse answers before the ask comes.{" "}
          <a className="link" href={`/horses/${horseId}/shape/library/answers-a-sound-on-the-circle`}>
            Plan it as a new cue
          </a>
        </p>
      ))}
    </>
  );
}
