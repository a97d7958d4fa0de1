"use client";

import { useState } from "react";
import { WRONG_ANSWERS, WRONG_BEGINS, WRONG_CHOICES } from "@/core/ladder";
import type { WrongChoice } from "@/core/record";
import { chip } from "@/ui/chip";
import { useActs, useStart } from "../state";

/** Own words of the plan stand with the known ones, and first. */
const withOwn = (own: string | undefined, known: readonly string[]) =>
  own === undefined || own === "" ? known : [own, ...known.filter((one) => one !== own)];

/** What the last wrong choice was and what it met: two taps, if there is time for them. */
export function WrongRow({ choice }: { choice: WrongChoice }) {
  const act = useActs();
  const [own, setOwn] = useState(false);
  const [words, setWords] = useState("");
  const [metres, setMetres] = useState("");
  const { did, met } = useStart().part.plan.conversation?.whenWrong ?? {};
  const group = (label: string, words: readonly string[], now: string | null, key: "did" | "met" | "began") => (
    <span className="contents">
      <span className="self-center text-[0.8rem] leading-tight text-soft">{label}</span>
      {words.map((word) => (
        <button
          key={word}
          type="button"
          aria-pressed={now === word}
          className={`${chip(now === word)} px-1.5! text-[0.85rem]!`}
          onClick={() => act.wrongWas(choice.eventId, { [key]: word })}
        >
          {word}
        </button>
      ))}
    </span>
  );
  return (
    <fieldset className="flex min-w-0 flex-wrap gap-1.5" aria-label="The last wrong choice">
      {group("it", withOwn(did, WRONG_CHOICES), choice.did, "did")}
      {group("it met", withOwn(met, WRONG_ANSWERS), choice.met, "met")}
      {group("where it began", WRONG_BEGINS, choice.began, "began")}
      {own ? (
        <form
          className="flex w-full flex-wrap gap-1.5"
          onSubmit={(event) => {
            event.preventDefault();
            const far = Number(metres.replace(",", "."));
            const said = {
              ...(words.trim() === "" ? {} : { did: words.trim() }),
              ...(metres.trim() !== "" && Number.isFinite(far) && far >= 0 && far <= 1000 ? { metres: far } : {}),
            };
            if (Object.keys(said).length > 0) act.wrongWas(choice.eventId, said);
            setOwn(false);
          }}
        >
          <input
            aria-label="What it did, in your own words"
            placeholder="in your own words"
            value={words}
            maxLength={80}
            onChange={(event) => setWords(event.target.value)}
            className="field-box w-auto! min-w-0 grow"
          />
          <input
            aria-label="How far off it began, in metres"
            placeholder="m"
            inputMode="decimal"
            value={metres}
            onChange={(event) => setMetres(event.target.value)}
            className="field-box w-16!"
          />
          <button type="submit" className="act-quiet">
            Keep
          </button>
        </form>
      ) : (
        <button type="button" className={`${chip(false)} px-1.5! text-[0.85rem]!`} onClick={() => setOwn(true)}>
          own words, metres
        </button>
      )}
    </fieldset>
  );
}
