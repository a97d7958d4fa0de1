"use client";

import { Dialog } from "radix-ui";
import { useState } from "react";
import { SIGNS } from "@/core/know";
import type { TimedFact } from "@/core/record";
import { useActs, useNow, useScreen, useStart } from "../state";
import { chip } from "../strip/chip";

/** After a danger sign: stop, make safe, breathe; then what happened and how it goes on. It stays until it is answered. */
export function StopCard({ fact }: { fact: TimedFact<"signal"> }) {
  const act = useActs();
  const start = useStart();
  const { block, onBreak } = useNow();
  const { setSheet } = useScreen();
  const named = fact.payload.name;
  const [words, setWords] = useState("");
  const rung = Number(block?.rung);
  const what = () => [named === "danger" ? "" : named, words.trim()].filter((one) => one !== "").join("; ") || "danger";
  const go = (then: string, next: () => void) => {
    act.madeSafe(what(), then);
    next();
  };
  const easier = Number.isInteger(rung) && rung > 1 && block?.ladder != null;
  return (
    <Dialog.Root open>
      <Dialog.Portal>
        <Dialog.Content
          onEscapeKeyDown={(event) => event.preventDefault()}
          onPointerDownOutside={(event) => event.preventDefault()}
          className="fixed inset-0 z-50 overflow-y-auto border-[10px] border-brick bg-ground p-5"
        >
          <div className="mx-auto grid max-w-xl gap-4">
            <Dialog.Title className="text-[3rem] leading-none font-extrabold text-brick">Stop</Dialog.Title>
            <Dialog.Description className="font-head text-2xl leading-snug font-bold">
              Make safe: out of the kick and strike zone, let the line go rather than be dragged. Breathe. Nobody goes on hurt.
            </Dialog.Description>
            <fieldset>
              <legend className="mb-2 font-semibold">What happened</legend>
              <div className="flex flex-wrap gap-2">
                {SIGNS.danger.map((name) => (
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
              </div>
              <input
                aria-label="In words"
                placeholder="in words, if you like"
                value={words}
                maxLength={500}
                onChange={(event) => setWords(event.target.value)}
                className="field-box mt-2"
              />
            </fieldset>
            <div className="grid gap-2">
              <button
                type="button"
                className="act min-h-16 text-xl"
                onClick={() =>
                  easier
                    ? go("go on easier", () => act.begin({ rung: rung - 1, side: block?.side ?? "L", kind: "work" }))
                    : // Below the first rung there is nothing easier to ask: a rest is.
                      go("rest", () => onBreak || act.takeBreak())
                }
              >
                {easier ? `Go on easier, rung ${rung - 1}` : "Rest first, ask nothing"}
              </button>
              <button
                type="button"
                className="act-quiet min-h-16 text-xl"
                onClick={() => go("change task", () => setSheet(start.battery ? "block" : "ladder"))}
              >
                Change task
              </button>
              <button type="button" className="act-quiet min-h-16 text-xl" onClick={() => go("end", () => setSheet("finish"))}>
                End here
              </button>
              <button type="button" className="link min-h-12 justify-self-start" onClick={() => act.strikeSignal(fact.id)}>
                Tapped by mistake
              </button>
            </div>
            <p className="text-sm text-soft">
              Anyone hurt: help first. A horse that is hurt, lame or in distress: call a veterinarian. A horse that strikes, kicks or rears
              at people: work on beside a qualified professional.
            </p>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
