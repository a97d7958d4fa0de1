"use client";

import { Plus, Trash2 } from "lucide-react";
import { type Dispatch, memo, useState } from "react";
import { addStrand, changeStrand, MOST_STRANDS, removeStrand } from "@/core/ladder";
import { STRAND_CATALOGUE, type Strand, type StrandKey, startValue } from "@/core/strands";
import { onAdvice } from "@/ui/form/on-word";
import { newStrand, ownStrand } from "./draft";
import type { RopeAction } from "./use-rope";

/** The levels of a strand as they are typed: commas between them. A level needs its name before it counts. */
function Levels({ strand, onLevels }: { strand: Strand; onLevels: (levels: string[]) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <input
      aria-label={`Levels of ${strand.name}, easiest first, with commas between`}
      value={typed ?? strand.levels.join(", ")}
      onChange={(event) => {
        setTyped(event.target.value);
        const levels = event.target.value
          .split(",")
          .map((level) => level.trim())
          .filter((level) => level !== "");
        if (levels.length >= 2 && new Set(levels).size === levels.length) onLevels(levels);
      }}
      onBlur={() => setTyped(null)}
      autoComplete="off"
      className="field-box"
    />
  );
}

function StrandLine({ strand, only, dispatch }: { strand: Strand; only: boolean; dispatch: Dispatch<RopeAction> }) {
  const change = (what: Parameters<typeof changeStrand>[2], gesture: string) =>
    dispatch({ kind: "edit", edit: (rope) => changeStrand(rope, strand.id, what), gesture: `${gesture}-${strand.id}` });
  return (
    <li className="grid grid-cols-[minmax(0,10rem)_minmax(0,1fr)_2.5rem] items-center gap-2">
      <input
        aria-label={`Name of strand ${strand.name}`}
        aria-invalid={strand.name.trim() === ""}
        value={strand.name}
        maxLength={80}
        autoComplete="off"
        onChange={(event) => change({ name: event.target.value }, "name")}
        className="field-box font-semibold"
      />
      {strand.kind === "levels" ? (
        <Levels strand={strand} onLevels={(levels) => change({ levels }, "levels")} />
      ) : strand.key === "own" ? (
        <span className="flex items-center gap-2">
          <input
            aria-label={`Unit of ${strand.name}`}
            placeholder="unit"
            value={strand.unit}
            maxLength={20}
            autoComplete="off"
            onChange={(event) => change({ unit: event.target.value }, "unit")}
            className="field-box w-24!"
          />
          <select
            aria-label={`Harder, for ${strand.name}`}
            value={strand.harder}
            onChange={onAdvice(["more", "less"], (harder) => change({ harder }, "harder"))}
            className="field-box w-44!"
          >
            <option value="more">more is harder</option>
            <option value="less">less is harder</option>
          </select>
        </span>
      ) : strand.key === "circle" ? (
        <select
          aria-label={`Harder, for ${strand.name}`}
          value={strand.harder}
          onChange={onAdvice(["more", "less"], (harder) => change({ harder }, "harder"))}
          className="field-box w-64!"
        >
          <option value="more">wider is harder: more send</option>
          <option value="less">closer is harder: more draw</option>
        </select>
      ) : (
        <span className="text-sm text-soft">
          {strand.unit === "" ? "a count" : strand.unit}
          {strand.harder === "less" ? ", less is harder" : ", more is harder"}
        </span>
      )}
      <button
        type="button"
        aria-label={`Take out strand ${strand.name}`}
        disabled={only}
        onClick={() => dispatch({ kind: "edit", edit: (rope) => removeStrand(rope, strand.id) })}
        className="grid size-9 place-items-center rounded text-soft hover:bg-paper disabled:opacity-30"
      >
        <Trash2 size={16} aria-hidden="true" />
      </button>
    </li>
  );
}

/** The strands themselves: names, levels, units; and new ones. */
export const StrandFields = memo(function StrandFields({
  strands,
  dispatch,
}: {
  strands: readonly Strand[];
  dispatch: Dispatch<RopeAction>;
}) {
  const ids = strands.map(({ id }) => id);
  const used = new Set<StrandKey>(strands.map(({ key }) => key));
  const add = (strand: Strand) => dispatch({ kind: "edit", edit: (rope) => addStrand(rope, strand, startValue(strand)) });
  const choose = (value: string) => {
    if (value === "") return;
    if (value === "own-number") add({ ...ownStrand("number", ids), name: "own count" });
    else if (value === "own-levels") add({ ...ownStrand("levels", ids), name: "own levels" });
    else add(newStrand(value as StrandKey, ids));
  };
  return (
    <div className="mt-4 flex flex-wrap-reverse items-start justify-between gap-x-6 gap-y-2">
      <details className="min-w-0 grow basis-96">
        <summary className="min-h-10 font-semibold text-tarn">Strands: {strands.map(({ name }) => name).join(", ")}</summary>
        <ul className="mt-2 grid gap-2">
          {strands.map((strand) => (
            <StrandLine key={strand.id} strand={strand} only={strands.length === 1} dispatch={dispatch} />
          ))}
        </ul>
      </details>
      {strands.length < MOST_STRANDS && (
        <label className="mt-3 flex items-center gap-2">
          <Plus size={18} aria-hidden="true" />
          <span className="sr-only">Add a strand</span>
          <select aria-label="Add a strand" value="" onChange={(event) => choose(event.target.value)} className="field-box w-64!">
            <option value="">add a strand</option>
            {STRAND_CATALOGUE.filter(({ key }) => key !== "own" && !used.has(key)).map(({ key, name, hint }) => (
              <option key={key} value={key} title={hint}>
                {name}
              </option>
            ))}
            <option value="own-number">one of your own, in numbers</option>
            <option value="own-levels">one of your own, in levels</option>
          </select>
        </label>
      )}
    </div>
  );
});
