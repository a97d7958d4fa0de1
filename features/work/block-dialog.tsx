"use client";

import { Dialog } from "radix-ui";
import { useState } from "react";
import { criterionSentence } from "@/core/strands";
import type { BlockChoice, RecorderStart, Side } from "./types";

const KINDS = [
  { value: "work", label: "work" },
  { value: "warm-up", label: "warm-up" },
  { value: "probe", label: "probe" },
  { value: "sure", label: "sure one" },
] as const;

const choice = (on: boolean) => `min-h-12 rounded border-2 border-ink px-3 font-semibold ${on ? "bg-ink text-on-ink" : "bg-paper"}`;

/** Rung, side and kind of the next block. */
export function BlockChooser({
  start,
  first,
  onStart,
  words,
}: {
  start: RecorderStart;
  first: BlockChoice;
  onStart: (choice: BlockChoice) => void;
  words: string;
}) {
  const [rung, setRung] = useState(first.rung);
  const [side, setSide] = useState<Side>(first.side);
  const [kind, setKind] = useState<BlockChoice["kind"]>(first.kind);
  const { plan } = start;
  return (
    <div>
      <fieldset>
        <legend className="mb-1.5 font-semibold">Rung</legend>
        <div className="grid grid-cols-8 gap-1.5">
          {plan.rungs.map((_, i) => (
            <button
              key={i}
              type="button"
              aria-pressed={rung === i + 1}
              onClick={() => setRung(i + 1)}
              className={`${choice(rung === i + 1)} px-0!`}
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
      </fieldset>
      <div className="mt-3 grid grid-cols-2 gap-4">
        <fieldset>
          <legend className="mb-1.5 font-semibold">Side</legend>
          <div className="grid grid-cols-2 gap-1.5">
            {(["L", "R"] as const).map((s) => (
              <button key={s} type="button" aria-pressed={side === s} onClick={() => setSide(s)} className={choice(side === s)}>
                {s === "L" ? "left" : "right"}
              </button>
            ))}
          </div>
        </fieldset>
        <fieldset>
          <legend className="mb-1.5 font-semibold">Kind</legend>
          <select
            aria-label="Kind"
            value={kind}
            onChange={(event) => setKind(event.target.value as BlockChoice["kind"])}
            className="field-box min-h-12"
          >
            {KINDS.map(({ value, label }) => (
              <option key={value} value={value}>
                {label}
              </option>
            ))}
          </select>
        </fieldset>
      </div>
      <button type="button" className="act mt-5 min-h-16 w-full text-xl" onClick={() => onStart({ rung, side, kind })}>
        {words}
      </button>
    </div>
  );
}

/** A sheet over the recorder. */
export function Sheet({
  open,
  onClose,
  title,
  description,
  children,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  description: string;
  children: React.ReactNode;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/45" />
        <Dialog.Content className="fixed inset-x-0 bottom-0 z-50 max-h-[92dvh] overflow-y-auto rounded-t-xl border-2 border-ink bg-ground p-5 pb-8 sm:top-1/2 sm:bottom-auto sm:left-1/2 sm:w-[30rem] sm:-translate-x-1/2 sm:-translate-y-1/2 sm:rounded-xl">
          <Dialog.Title className="text-2xl">{title}</Dialog.Title>
          <Dialog.Description className="mt-1 mb-4 text-soft">{description}</Dialog.Description>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
