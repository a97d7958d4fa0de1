"use client";

import { useState } from "react";
import { givesLine } from "@/core/aftermath";
import { hasRopeOnLeg, KICK_AT_ROPE } from "@/core/coach";
import { dangerSigns, type TimedFact } from "@/core/record";
import { namesFor } from "@/core/signs";
import { chip } from "@/ui/chip";
import { StopDialog } from "@/ui/stop-dialog";
import { useActs, useLog, useNow, useScreen, useStart } from "../state";

type Hurt = "fall" | "injury";

const HURT: readonly { readonly hurt: Hurt; readonly words: string }[] = [
  { hurt: "fall", words: "somebody or the horse fell" },
  { hurt: "injury", words: "somebody or the horse is hurt" },
];

/** Fewer letters than this are no reason. */
const SHORTEST_REASON = 4;

/** What happened: its name, whether line was given, who was hurt, and words. */
function WhatHappened({
  fact,
  gave,
  hurt,
  words,
  onLine,
  onHurt,
  onWords,
}: {
  fact: TimedFact<"signal">;
  gave: boolean;
  hurt: Hurt | null;
  words: string;
  onLine: () => void;
  onHurt: (hurt: Hurt) => void;
  onWords: (words: string) => void;
}) {
  const act = useActs();
  const named = fact.payload.name;
  const pain = fact.payload.class === "pain";
  return (
    <fieldset>
      <legend className="mb-2 font-semibold">What happened</legend>
      <div className="flex flex-wrap gap-2">
        {namesFor(pain ? "pain" : "danger").map((name) => (
          <button
            key={name}
            type="button"
            aria-pressed={named === name}
            onClick={() => act.nameSignal(fact.id, name)}
            className={chip(named === name)}
          >
            {name}
          </button>
        ))}
        {!pain && (
          <button type="button" aria-pressed={gave} onClick={() => onLine()} className={chip(gave)}>
            gave line: a safety release
          </button>
        )}
        {HURT.map((one) => (
          <button
            key={one.hurt}
            type="button"
            aria-pressed={hurt === one.hurt}
            onClick={() => onHurt(one.hurt)}
            className={`${chip(hurt === one.hurt)} border-brick!`}
          >
            {one.words}
          </button>
        ))}
      </div>
      <input
        aria-label="In words"
        placeholder="in words, if you like"
        value={words}
        maxLength={500}
        onChange={(event) => onWords(event.target.value)}
        className="field-box mt-2"
      />
    </fieldset>
  );
}

/** What is to be known at this moment: a line round a leg, a fall or a blow. */
function Warnings({ roped, hurt }: { roped: boolean; hurt: boolean }) {
  return (
    <>
      {roped && <p className="border-l-4 border-brick pl-4 font-semibold">{KICK_AT_ROPE}</p>}
      {hurt && (
        <p className="border-l-4 border-brick pl-4 font-semibold text-brick" role="status">
          After a fall or a blow: a doctor for people, also where it feels like nothing, and today after a blow to the head. A veterinarian
          for the horse before it works again.
        </p>
      )}
    </>
  );
}

/**
 * After a danger sign: stop, make safe, breathe; then what happened and how it
 * goes on. It stays until it is answered. After a second one in a session, a
 * fall or an injury the large button ends the session, and going on takes a
 * reason.
 */
export function StopCard({ fact }: { fact: TimedFact<"signal"> }) {
  const act = useActs();
  const start = useStart();
  const { record } = useLog();
  const { block, onBreak, working } = useNow();
  const { setSheet } = useScreen();
  const named = fact.payload.name;
  const [words, setWords] = useState("");
  const [why, setWhy] = useState("");
  const [said, setSaid] = useState<Hurt | null>(null);
  /** Whether the line was given: said on the card, otherwise by what it did. */
  const [line, setLine] = useState<boolean | null>(null);
  const rung = Number(block?.rung);
  const hurt: Hurt | null = said ?? (named === "falls" ? "fall" : null);
  const times = dangerSigns(record);
  const pain = fact.payload.class === "pain";
  const ends = times >= 2 || hurt !== null || pain;
  const roped = hasRopeOnLeg(start.part.behaviourInput.template);
  const gave = line ?? givesLine(named);
  const what = () => [named === "danger" ? "" : named, words.trim()].filter((one) => one !== "").join("; ") || "danger";
  const go = (then: string, next: () => void) => {
    act.madeSafe(what(), then, { hurt, why: ends ? why.trim() : "", release: gave });
    next();
  };
  const easier = Number.isInteger(rung) && rung > 1 && block?.ladder != null;
  const noReason = ends && why.trim().length < SHORTEST_REASON;
  const end = () => {
    act.madeSafe(what(), "end", { hurt, why: "", ends: true, release: gave, vet: pain });
    if (working || record.blocks.length > 0) act.finish({ better: "", next: "", handler: words.trim() });
    setSheet(null);
  };
  const goOn = (
    <button
      type="button"
      disabled={noReason}
      className={ends ? "act-quiet min-h-14" : "act min-h-16 text-xl"}
      onClick={() =>
        easier
          ? go("go on easier", () => act.begin({ rung: rung - 1, side: block?.side ?? "L", kind: "work" }))
          : // Below the first rung there is nothing easier to ask: a rest is.
            go("rest", () => onBreak || act.takeBreak())
      }
    >
      {easier ? `Go on easier, rung ${rung - 1}` : "Rest first, ask nothing"}
    </button>
  );
  return (
    <StopDialog
      words={
        pain
          ? "A sign of pain. Stop for today. Write down what you saw, and have a vet look before it works again."
          : "Give line at once; let it go rather than be dragged. Out of the kick and strike zone. Breathe. Nobody goes on hurt."
      }
    >
      <Warnings roped={roped} hurt={hurt !== null} />
      {ends && (
        <>
          {times >= 2 && (
            <p className="font-semibold">
              {times === 2 ? "The second danger sign in this session." : `Danger sign number ${times} in this session.`}
            </p>
          )}
          <button type="button" className="act min-h-24 text-2xl leading-tight" onClick={end}>
            {pain ? "End here, a note for the vet" : "Make safe, go home, write it down"}
          </button>
        </>
      )}
      <WhatHappened
        fact={fact}
        gave={gave}
        hurt={hurt}
        words={words}
        onLine={() => setLine(!gave)}
        onHurt={(one) => setSaid(said === one ? null : one)}
        onWords={setWords}
      />
      {ends && (
        <label className="font-semibold">
          Why it is safe to go on
          <input value={why} maxLength={300} onChange={(event) => setWhy(event.target.value)} className="field-box mt-1 font-normal" />
          <span className="text-sm font-normal text-soft">Going on takes a reason now. It is kept with the session.</span>
        </label>
      )}
      <div className="grid gap-2">
        {goOn}
        <button
          type="button"
          disabled={noReason}
          className={`act-quiet ${ends ? "min-h-14" : "min-h-16 text-xl"}`}
          onClick={() => go("change task", () => setSheet(start.session.battery ? "block" : "ladder"))}
        >
          Change task
        </button>
        {!ends && (
          <button type="button" className="act-quiet min-h-16 text-xl" onClick={() => go("end", () => setSheet("finish"))}>
            End here
          </button>
        )}
        <button type="button" className="link min-h-12 justify-self-start" onClick={() => act.strikeSignal(fact.id)}>
          Tapped by mistake
        </button>
      </div>
      <p className="text-sm text-soft">
        Anyone hurt: help first. A horse that is hurt, lame or in distress: call a veterinarian. A horse that strikes, kicks or rears at
        people: work on beside a qualified professional.
      </p>
    </StopDialog>
  );
}
