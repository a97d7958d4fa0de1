"use client";

import { useState } from "react";
import { FIRST_LOOK_ITEMS } from "@/core/know";
import { sideAsked } from "@/core/ladder";
import { criterionSentence } from "@/core/strands";
import { barredRung } from "@/core/welfare";
import { onAdvice } from "@/ui/form/on-word";
import { wrongSide } from "../acts/begin-acts";
import type { AtWork, BlockChoice, Side } from "../types";

const KINDS = [
  { value: "work", label: "work" },
  { value: "warm-up", label: "warm-up" },
  { value: "probe", label: "probe" },
  { value: "sure", label: "easy one" },
] as const;

const choice = (on: boolean) => `min-h-12 rounded border-2 border-ink px-3 font-semibold ${on ? "bg-ink text-on-ink" : "bg-paper"}`;

/** The side it is asked on. Where only one is allowed today, that one. */
function SideChoice({
  sideless,
  chosen,
  only,
  wrong,
  onSide,
}: {
  sideless: boolean;
  chosen: Side | null;
  only: AtWork["today"]["allowance"]["side"];
  /** That the rung asks for the other one; null where it does not. */
  wrong: string | null;
  onSide: (side: Side) => void;
}) {
  return (
    <fieldset disabled={sideless}>
      <legend className="mb-1.5 font-semibold">Side</legend>
      {sideless ? (
        <p className="text-soft">It has no sides.</p>
      ) : (
        <div className="grid grid-cols-2 gap-1.5">
          {(["L", "R"] as const).map((s) => (
            <button
              key={s}
              type="button"
              aria-pressed={chosen === s}
              disabled={only !== null && chosen !== s}
              onClick={() => onSide(s)}
              className={`${choice(chosen === s)} disabled:opacity-40`}
            >
              {s === "L" ? "left" : "right"}
            </button>
          ))}
        </div>
      )}
      {wrong !== null && <p className="mt-1 text-sm font-semibold text-ochre">{wrong}</p>}
      {only !== null && !sideless && <p className="mt-1 text-sm text-brick">{only.why}</p>}
    </fieldset>
  );
}

/** Rung, side and kind of the next block. */
export function BlockChooser({
  start,
  first,
  onStart,
  words,
}: {
  start: AtWork;
  first: BlockChoice;
  onStart: (choice: BlockChoice) => void;
  words: string;
}) {
  const { plan } = start.part;
  const { allowance } = start.today;
  const { battery } = start.session;
  const [rung, setRung] = useState(first.rung);
  const [side, setSide] = useState<Side>(first.side ?? "L");
  const [kind, setKind] = useState<BlockChoice["kind"]>(first.kind);
  const barred = plan.rungs.map((_, i) => [...new Set(barredRung(plan, i + 1, allowance).map(({ why }) => why))].join(" ") || null);
  const why = barred[rung - 1] ?? null;
  const item = battery ? FIRST_LOOK_ITEMS[rung - 1] : undefined;
  const only = allowance.side;
  const sideless = item !== undefined && !item.sided;
  const chosenSide: Side | null = sideless ? null : only === null ? side : only.value === "left" ? "L" : "R";
  const wrong = battery ? null : wrongSide(plan, rung, chosenSide);
  return (
    <div>
      <fieldset>
        <legend className="mb-1.5 font-semibold">{battery ? "Item" : "Rung"}</legend>
        <div className="grid grid-cols-8 gap-1.5">
          {plan.rungs.map((_, i) => (
            <button
              key={i}
              type="button"
              aria-pressed={rung === i + 1}
              aria-label={barred[i] === null ? undefined : `${i + 1}, not today`}
              onClick={() => {
                setRung(i + 1);
                // A rung of one side brings it along; it can still be changed.
                setSide(sideAsked(plan, i + 1) ?? side);
              }}
              className={`${choice(rung === i + 1)} px-0! ${barred[i] === null ? "" : "border-dashed! line-through"}`}
            >
              {i + 1}
            </button>
          ))}
        </div>
        <p className="mt-2 min-h-12">
          {criterionSentence(
            plan.strands,
            plan.rungs[rung - 1]?.values ?? {},
            plan.phases.map((p) => p.label),
          )}
        </p>
        {why !== null && <p className="font-semibold text-brick">Not today. {why}</p>}
        {item?.caution != null && <p className="font-semibold text-brick">{item.caution}</p>}
      </fieldset>
      <div className="mt-3 grid grid-cols-2 gap-4">
        <SideChoice sideless={sideless} chosen={chosenSide} only={only} wrong={wrong} onSide={setSide} />
        {!battery && (
          <fieldset>
            <legend className="mb-1.5 font-semibold">Kind</legend>
            <select
              aria-label="Kind"
              value={kind}
              onChange={onAdvice(
                KINDS.map(({ value }) => value),
                setKind,
              )}
              className="field-box min-h-12"
            >
              {KINDS.map(({ value, label }) => (
                <option key={value} value={value}>
                  {label}
                </option>
              ))}
            </select>
          </fieldset>
        )}
      </div>
      <button
        type="button"
        data-next
        className="act mt-5 min-h-16 w-full text-xl"
        disabled={why !== null}
        onClick={() => onStart({ rung, side: chosenSide, kind })}
      >
        {words}
      </button>
    </div>
  );
}
