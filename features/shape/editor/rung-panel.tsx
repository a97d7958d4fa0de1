"use client";

import { ArrowLeft, ArrowRight, Copy, Merge, Redo2, Split, Trash2, Undo2 } from "lucide-react";
import { type Dispatch, memo, useState } from "react";
import {
  copyRung,
  deleteRung,
  FEWEST_RUNGS,
  mergeRungs,
  moveRung,
  type Rung,
  rungValueProblem,
  setRung,
  setValue,
  splitRung,
} from "@/core/ladder";
import type { StepFault, Strand, StrandValue } from "@/core/strands";
import { NumberBox } from "./number-box";
import type { RopeAction } from "./use-rope";

const tool =
  "grid size-10 place-items-center rounded border-2 border-transparent hover:border-soft hover:bg-paper disabled:opacity-30 disabled:hover:border-transparent";

const icon = { size: 18, "aria-hidden": true } as const;

/** What can be done with the rung in view. */
export const RungTools = memo(function RungTools({
  rung,
  rungs,
  dispatch,
}: {
  rung: number;
  rungs: number;
  dispatch: Dispatch<RopeAction>;
}) {
  const edit = (change: Extract<RopeAction, { kind: "edit" }>["edit"], select: number) => dispatch({ kind: "edit", edit: change, select });
  return (
    <div role="toolbar" aria-label={`Rung ${rung}`} className="flex flex-wrap items-center gap-1">
      <button
        type="button"
        className={tool}
        title="Copy"
        aria-label={`Copy rung ${rung}`}
        onClick={() => edit((rope) => copyRung(rope, rung), rung + 1)}
      >
        <Copy {...icon} />
      </button>
      <button
        type="button"
        className={tool}
        title="Earlier"
        aria-label={`Move rung ${rung} earlier`}
        disabled={rung === 1}
        onClick={() => edit((rope) => moveRung(rope, rung, rung - 1), rung - 1)}
      >
        <ArrowLeft {...icon} />
      </button>
      <button
        type="button"
        className={tool}
        title="Later"
        aria-label={`Move rung ${rung} later`}
        disabled={rung === rungs}
        onClick={() => edit((rope) => moveRung(rope, rung, rung + 1), rung + 1)}
      >
        <ArrowRight {...icon} />
      </button>
      <button
        type="button"
        className={tool}
        title="Make one of this and the next"
        aria-label={`Merge rung ${rung} with the next`}
        disabled={rung === rungs || rungs <= FEWEST_RUNGS}
        onClick={() => edit((rope) => mergeRungs(rope, rung), rung)}
      >
        <Merge {...icon} />
      </button>
      <button
        type="button"
        className={tool}
        title="Delete"
        aria-label={`Delete rung ${rung}`}
        disabled={rungs <= FEWEST_RUNGS}
        onClick={() => edit((rope) => deleteRung(rope, rung), rung)}
      >
        <Trash2 {...icon} />
      </button>
    </div>
  );
});

/** The faults of the step to a rung: one press splits them, or a reason keeps them. */
export const StepFaults = memo(function StepFaults({
  faults,
  rung,
  kept,
  dispatch,
}: {
  faults: readonly StepFault[];
  rung: number;
  kept: string | undefined;
  dispatch: Dispatch<RopeAction>;
}) {
  const [keeping, setKeeping] = useState(false);
  if (faults.length === 0) return null;
  const keep = (reason: string) =>
    dispatch({
      kind: "edit",
      edit: (rope) => setRung(rope, rung, { kept: reason === "" ? undefined : reason }),
      gesture: `kept-${rung}`,
    });
  return (
    <div className="border-l-4 border-ochre pl-4">
      {faults.map(({ sentence }) => (
        <p key={sentence} className="font-semibold">
          {sentence}
        </p>
      ))}
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <button
          type="button"
          className="act"
          onClick={() => dispatch({ kind: "edit", edit: (rope) => splitRung(rope, rung), select: rung })}
        >
          <Split size={18} aria-hidden="true" /> Split it
        </button>
        {kept === undefined && !keeping && (
          <button type="button" className="act-quiet" onClick={() => setKeeping(true)}>
            Keep it
          </button>
        )}
      </div>
      {(kept !== undefined || keeping) && (
        <label className="mt-3 block">
          <span className="font-semibold">Kept, because</span>
          <input
            value={kept ?? ""}
            maxLength={300}
            autoComplete="off"
            // biome-ignore lint/a11y/noAutofocus: it comes up by a press that asks for it
            autoFocus={keeping}
            onChange={(event) => keep(event.target.value)}
            className="field-box"
          />
        </label>
      )}
    </div>
  );
});

/** One strand's value on the rung in view. */
const RungValue = memo(function RungValue({
  strand,
  value,
  rung,
  phases,
  focused,
  dispatch,
}: {
  strand: Strand;
  value: StrandValue | undefined;
  rung: number;
  phases: number;
  focused: boolean;
  dispatch: Dispatch<RopeAction>;
}) {
  const problem = rungValueProblem(strand, value, phases);
  const label = `${strand.name}, rung ${rung}`;
  const put = (next: StrandValue) =>
    dispatch({ kind: "edit", edit: (rope) => setValue(rope, rung, strand.id, next), gesture: `type-${rung}-${strand.id}` });
  return (
    <div
      className={`grid grid-cols-[7rem_minmax(0,1fr)] items-center gap-2 border-l-4 pl-2 ${focused ? "border-tarn" : "border-transparent"}`}
    >
      <span className="truncate" aria-hidden="true">
        {strand.name} <span className="text-soft">{strand.unit}</span>
      </span>
      {strand.kind === "levels" ? (
        <select
          aria-label={label}
          aria-invalid={problem !== null}
          value={String(value)}
          onChange={(event) => put(event.target.value)}
          className="field-box"
        >
          {!strand.levels.includes(String(value)) && <option value={String(value)}>{String(value)}</option>}
          {strand.levels.map((level) => (
            <option key={level}>{level}</option>
          ))}
        </select>
      ) : (
        <NumberBox tag={String(rung)} value={Number(value)} label={label} problem={problem} onValue={put} />
      )}
    </div>
  );
});

/** The rung's values, to be typed. */
export const RungValues = memo(function RungValues({
  strands,
  values,
  focused,
  ...rest
}: {
  strands: readonly Strand[];
  values: Rung["values"];
  rung: number;
  phases: number;
  /** The strand whose cord is held. */
  focused: string | null;
  dispatch: Dispatch<RopeAction>;
}) {
  return (
    <div className="grid gap-x-4 gap-y-1.5 sm:grid-cols-2 xl:grid-cols-1">
      {strands.map((strand) => (
        <RungValue key={strand.id} strand={strand} value={values[strand.id]} focused={focused === strand.id} {...rest} />
      ))}
    </div>
  );
});

/** Back and forth over every change of the rope. */
export const UndoRedo = memo(function UndoRedo({
  canUndo,
  canRedo,
  dispatch,
}: {
  canUndo: boolean;
  canRedo: boolean;
  dispatch: Dispatch<RopeAction>;
}) {
  return (
    <>
      <button
        type="button"
        className="act-quiet px-3!"
        disabled={!canUndo}
        onClick={() => dispatch({ kind: "undo" })}
        aria-keyshortcuts="Control+Z"
      >
        <Undo2 size={18} aria-hidden="true" /> Undo
      </button>
      <button
        type="button"
        className="act-quiet px-3!"
        disabled={!canRedo}
        onClick={() => dispatch({ kind: "redo" })}
        aria-keyshortcuts="Control+Shift+Z"
      >
        <Redo2 size={18} aria-hidden="true" /> Redo
      </button>
    </>
  );
});
