"use client";

import { type Dispatch, type KeyboardEvent, memo, type ReactNode, useEffect, useMemo, useRef, useState } from "react";
import { copyRung, type LadderPlan, likeTheOneBefore, MOST_RUNGS, type Rung, setValue, stepValue } from "@/core/ladder";
import { criterionParts, type StepFault, type Strand, type StrandValue } from "@/core/strands";
import { type Allowance, barredRung } from "@/core/welfare";
import { type ChartEvidence, type CordEditing, StrandChart, useFaults } from "@/ui/strand-chart";
import { RungTools, RungValues, StepFaults, UndoRedo } from "./rung-panel";
import { StrandFields } from "./strand-fields";
import { useAfterPaint } from "./use-after-paint";
import { useByValue } from "./use-by-value";
import type { RopeAction, RopeState } from "./use-rope";

/** Ctrl+Z undoes the rope everywhere but inside a box of text, where it undoes the typing. */
function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLTextAreaElement || (target instanceof HTMLInputElement && target.type !== "checkbox" && target.type !== "radio")
  );
}

/** How many steps ask too much. */
const OpenFaults = memo(function OpenFaults({ rungs, faults }: { rungs: readonly Rung[]; faults: readonly StepFault[] }) {
  const open = faults.filter(({ rung }) => rungs[rung - 1]?.kept === undefined);
  const same = likeTheOneBefore(rungs);
  return (
    <p className="mt-2 text-sm text-soft">
      {open.length === 0
        ? "One thing gets harder at a time."
        : `Too much at once on rung ${[...new Set(open.map(({ rung }) => rung))].join(", ")}.`}{" "}
      {same.length > 0 && (
        <strong className="text-ochre">
          {same.map((rung) => `Rung ${rung} asks the same as rung ${rung - 1}.`).join(" ")} Change it, or take it out.{" "}
        </strong>
      )}
      Drag a cord up to make it harder, or use the arrow keys on it.
    </p>
  );
});

/** What the rung in view asks, what is wrong with the step to it, and its values. */
const RungSide = memo(function RungSide({
  strands,
  rung,
  number,
  labels,
  faults,
  focused,
  dispatch,
}: {
  strands: readonly Strand[];
  rung: Rung | undefined;
  number: number;
  /** Names of the cue phases. */
  labels: readonly string[];
  faults: readonly StepFault[];
  focused: string | null;
  dispatch: Dispatch<RopeAction>;
}) {
  const own = useMemo(() => faults.filter((fault) => fault.rung === number), [faults, number]);
  const values = rung?.values ?? {};
  return (
    <section aria-label={`Rung ${number}`} className="grid content-start gap-4">
      <div>
        <h3 className="font-sans text-sm font-normal text-soft">Rung {number}</h3>
        <p className="text-lg leading-snug" aria-live="polite" data-testid="criterion">
          {criterionParts(strands, values, labels).map((part, i) =>
            part.strong ? <strong key={`${i}-${part.text}`}>{part.text}</strong> : part.text,
          )}
        </p>
      </div>
      <StepFaults key={number} faults={own} rung={number} kept={rung?.kept} dispatch={dispatch} />
      <RungValues strands={strands} values={values} rung={number} phases={labels.length} focused={focused} dispatch={dispatch} />
    </section>
  );
});

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
  const latest = useRef(rope);
  latest.current = rope;
  const drag = useRef<{ gesture: string; from: StrandValue } | null>(null);
  const editing = useMemo(
    (): CordEditing => ({
      onSelect: (rung) => dispatch({ kind: "select", rung }),
      onFocusStrand: setFocused,
      onStep: (strandId, rung, notches, gesture) => {
        const value = latest.current.rungs[rung - 1]?.values[strandId];
        if (gesture === null || value === undefined) drag.current = null;
        else if (drag.current?.gesture !== gesture) drag.current = { gesture, from: value };
        const from = drag.current?.from;
        dispatch({
          kind: "edit",
          edit: (now) => {
            const lightness = now.strands.find(({ id }) => id === strandId)?.key === "lightness";
            // A drag goes back over an end of the strand without losing its way.
            const begun = from === undefined ? now : setValue(now, rung, strandId, from);
            return stepValue(begun, rung, strandId, notches, lightness ? [1, phases] : undefined);
          },
          gesture,
          select: rung,
        });
      },
    }),
    [dispatch, phases],
  );
  const faults = useFaults(strands, rungs);
  // The cord follows the finger at once; what is said about it comes with the next frame.
  const seen = useAfterPaint(useMemo(() => ({ state, faults }), [state, faults]));
  // What is typed or chosen in a box stands in the box at once.
  const boxed = state.gesture?.startsWith("type-") === true;
  const later = boxed ? state : seen.state;
  const laterFaults = boxed ? faults : seen.faults;
  const barred = useByValue(
    later.rope.rungs.flatMap((_, i) => (barredRung({ ...plan, ...later.rope }, i + 1, allowance).length > 0 ? [i + 1] : [])),
  );
  const labels = useByValue(plan.phases.map(({ label }) => label));
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
            <UndoRedo canUndo={state.past.length > 0} canRedo={state.future.length > 0} dispatch={dispatch} />
            <RungTools rung={later.selected} rungs={later.rope.rungs.length} dispatch={dispatch} />
            <button
              type="button"
              className="act-quiet px-3!"
              disabled={rungs.length >= MOST_RUNGS}
              onClick={() => dispatch({ kind: "edit", edit: (now) => copyRung(now, selected), select: selected + 1 })}
            >
              Add a rung after {selected}
            </button>
          </div>
          <OpenFaults rungs={rungs} faults={faults} />
          {problem !== null && (
            <p role="alert" className="mt-2 border-l-4 border-brick pl-4 font-semibold text-brick">
              {problem}
            </p>
          )}
        </div>
        <RungSide
          strands={later.rope.strands}
          rung={later.rope.rungs[later.selected - 1]}
          number={later.selected}
          labels={labels}
          faults={laterFaults}
          focused={focused}
          dispatch={dispatch}
        />
      </div>
      <div className="mt-4 grid gap-4">{children}</div>
      <StrandFields strands={strands} dispatch={dispatch} />
    </div>
  );
}
