"use client";

import { Redo2, Undo2 } from "lucide-react";
import { type Dispatch, type KeyboardEvent, type ReactNode, useEffect, useMemo, useState } from "react";
import { copyRung, type LadderPlan, MOST_RUNGS, stepValue } from "@/core/ladder";
import { criterionParts, stepFaults } from "@/core/strands";
import { type Allowance, barredRung } from "@/core/welfare";
import { type ChartEvidence, type CordEditing, StrandChart } from "@/ui/strand-chart";
import { RungTools, RungValues, StepFaults } from "./rung-panel";
import { StrandFields } from "./strand-fields";
import type { RopeAction, RopeState } from "./use-rope";

/** Ctrl+Z undoes the rope everywhere but inside a box of text, where it undoes the typing. */
function isTyping(target: EventTarget | null): boolean {
  return target instanceof HTMLTextAreaElement || (target instanceof HTMLInputElement && target.type !== "checkbox");
}

/** The ladder as a rope that can be taken hold of, with the rung in view beneath it. */
export function RopeBoard({
  state,
  dispatch,
  plan,
  evidence,
  allowance,
  children,
}: {
  state: RopeState;
  dispatch: Dispatch<RopeAction>;
  /** The whole plan as it stands, for what a rung is judged by. */
  plan: LadderPlan;
  /** Left out where it was never worked. */
  evidence: readonly ChartEvidence[] | undefined;
  allowance: Allowance;
  /** What else the rung in view may set. */
  children: ReactNode;
}) {
  const { rope, selected, problem } = state;
  const { strands, rungs } = rope;
  const [focused, setFocused] = useState<string | null>(null);
  const phases = plan.phases.length;
  const editing = useMemo(
    (): CordEditing => ({
      onSelect: (rung) => dispatch({ kind: "select", rung }),
      onFocusStrand: setFocused,
      onStep: (strandId, rung, notches, gesture) =>
        dispatch({
          kind: "edit",
          edit: (now) => {
            const lightness = now.strands.find(({ id }) => id === strandId)?.key === "lightness";
            return stepValue(now, rung, strandId, notches, lightness ? [1, phases] : undefined);
          },
          gesture,
          select: rung,
        }),
    }),
    [dispatch, phases],
  );
  const faults = useMemo(() => {
    try {
      return stepFaults(
        strands,
        rungs.map(({ values }) => values),
      );
    } catch {
      return [];
    }
  }, [strands, rungs]);
  const barred = useMemo(
    () => rungs.flatMap((_, i) => (barredRung(plan, i + 1, allowance).length > 0 ? [i + 1] : [])),
    [plan, rungs, allowance],
  );
  const rung = rungs[selected - 1];
  const parts = criterionParts(
    strands,
    rung?.values ?? {},
    plan.phases.map(({ label }) => label),
  );
  const open = faults.filter(({ rung: number }) => rungs[number - 1]?.kept === undefined);
  // Undo may have taken away the strand that was held.
  useEffect(() => {
    if (focused !== null && !strands.some(({ id }) => id === focused)) setFocused(null);
  }, [focused, strands]);
  const onKey = (event: KeyboardEvent) => {
    if (!(event.ctrlKey || event.metaKey) || event.altKey || isTyping(event.target)) return;
    const key = event.key.toLowerCase();
    if (key !== "z" && key !== "y") return;
    event.preventDefault();
    dispatch({ kind: key === "y" || event.shiftKey ? "redo" : "undo" });
  };
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the keys are those of what is inside
    <div onKeyDown={onKey}>
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-4 xl:grid-cols-[minmax(0,1fr)_19rem]">
        <div className="min-w-0">
          <StrandChart plan={rope} evidence={evidence} selected={selected} onSelect={editing.onSelect} barred={barred} editing={editing} />
          <div className="mt-1 flex flex-wrap items-center gap-x-4 gap-y-2 border-t-2 border-hair pt-2">
            <button
              type="button"
              className="act-quiet px-3!"
              disabled={state.past.length === 0}
              onClick={() => dispatch({ kind: "undo" })}
              aria-keyshortcuts="Control+Z"
            >
              <Undo2 size={18} aria-hidden="true" /> Undo
            </button>
            <button
              type="button"
              className="act-quiet px-3!"
              disabled={state.future.length === 0}
              onClick={() => dispatch({ kind: "redo" })}
              aria-keyshortcuts="Control+Shift+Z"
            >
              <Redo2 size={18} aria-hidden="true" /> Redo
            </button>
            <RungTools rung={selected} rungs={rungs.length} dispatch={dispatch} />
            <button
              type="button"
              className="act-quiet px-3!"
              disabled={rungs.length >= MOST_RUNGS}
              onClick={() => dispatch({ kind: "edit", edit: (now) => copyRung(now, now.rungs.length), select: rungs.length + 1 })}
            >
              Add a rung
            </button>
          </div>
          <p className="mt-2 text-sm text-soft">
            {open.length === 0
              ? "One thing gets harder at a time."
              : `Too much at once on rung ${[...new Set(open.map((f) => f.rung))].join(", ")}.`}{" "}
            Drag a cord up to make it harder, or use the arrow keys on it.
          </p>
          {problem !== null && (
            <p role="alert" className="mt-2 border-l-4 border-brick pl-4 font-semibold text-brick">
              {problem}
            </p>
          )}
        </div>
        <section aria-label={`Rung ${selected}`} className="grid content-start gap-4">
          <div>
            <h3 className="font-sans text-sm font-normal text-soft">Rung {selected}</h3>
            <p className="text-lg leading-snug" aria-live="polite" data-testid="criterion">
              {parts.map((part, i) => (part.strong ? <strong key={`${i}-${part.text}`}>{part.text}</strong> : part.text))}
            </p>
          </div>
          <StepFaults
            key={selected}
            faults={faults.filter((fault) => fault.rung === selected)}
            rung={selected}
            kept={rung?.kept}
            dispatch={dispatch}
          />
          <RungValues strands={strands} values={rung?.values ?? {}} rung={selected} phases={phases} focused={focused} dispatch={dispatch} />
        </section>
      </div>
      <div className="mt-4 grid gap-4">{children}</div>
      <StrandFields strands={strands} dispatch={dispatch} />
    </div>
  );
}
