import type { UseFormRegister, UseFormSetValue } from "react-hook-form";
import { criterionSentence } from "@/core/strands";
import { Choice, NumberBox, named, Problem } from "@/ui/form";
import { type LateLadder, type LateRow, type LateValues, ladderOf, rowAt } from "./late-values";

const COUNTS = [
  { key: "met", label: "Met" },
  { key: "light", label: "of them at the lightest cue" },
  { key: "try", label: "Try" },
  { key: "miss", label: "Something else" },
  { key: "refused", label: "No answer" },
] as const;

const SIDES = [
  { value: "L", label: "left" },
  { value: "R", label: "right" },
] as const;

const KINDS = ["work", "warm-up", "probe", { value: "sure", label: "easy one" }] as const;

/** One block of a session written down later. */
export function BlockFields({
  at,
  row,
  ladders,
  problem,
  register,
  setValue,
  takeAway,
}: {
  at: number;
  row: LateRow;
  ladders: readonly LateLadder[];
  problem: string | undefined;
  register: UseFormRegister<LateValues>;
  setValue: UseFormSetValue<LateValues>;
  /** Null where it is the only one. */
  takeAway: (() => void) | null;
}) {
  const ladder = ladderOf(row, ladders);
  const phases = ladder.plan.phases.map(({ label }) => label);
  const to = (next: LateRow) => setValue(`rows.${at}`, next);
  const problemId = `problem-${at + 1}`;
  return (
    <fieldset className="mt-6 border-t-2 border-ink pt-3" aria-describedby={problem === undefined ? undefined : problemId}>
      <legend className="font-head text-lg font-bold">Block {at + 1}</legend>
      <div className="grid grid-cols-2 gap-3 sm:grid-cols-4">
        <Choice
          small
          className="col-span-2"
          label="Ladder"
          value={row.ladder}
          options={named(ladders)}
          onChosen={(id) => {
            const next = ladderOf({ ladder: id }, ladders);
            to(rowAt(row, next, Math.min(row.rung, next.plan.rungs.length)));
          }}
        />
        <Choice
          small
          label="Rung"
          value={row.rung}
          options={ladder.plan.rungs.map((_, n) => String(n + 1))}
          onChosen={(rung) => to(rowAt(row, ladder, Number(rung)))}
        />
        <Choice small label="Side" options={[...SIDES, { value: "", label: "none" }]} {...register(`rows.${at}.side`)} />
      </div>
      <p className="mt-1.5 text-sm text-soft">
        {criterionSentence(ladder.plan.strands, ladder.plan.rungs[row.rung - 1]?.values ?? {}, phases)}
      </p>
      <div className="mt-3 grid grid-cols-2 gap-3 sm:grid-cols-5">
        {COUNTS.map(({ key, label }) => (
          <NumberBox
            key={key}
            small
            className="justify-end"
            width=""
            label={label}
            inputMode="numeric"
            placeholder={key === "light" ? "not said" : "0"}
            aria-invalid={problem !== undefined}
            {...register(`rows.${at}.${key}`)}
          />
        ))}
      </div>
      <div className="mt-3 grid grid-cols-2 gap-3 sm:grid-cols-4">
        <NumberBox small width="" label="About, minutes" {...register(`rows.${at}.minutes`)} />
        <Choice
          small
          label="The others, mostly at"
          empty="not remembered"
          options={phases.map((label, n) => ({ value: String(n + 1), label }))}
          {...register(`rows.${at}.phase`)}
        />
        <Choice small label="Kind" options={KINDS} {...register(`rows.${at}.kind`)} />
        {takeAway !== null && (
          <button type="button" className="act-quiet self-end" onClick={takeAway}>
            Take away
          </button>
        )}
      </div>
      {problem !== undefined && (
        <Problem id={problemId} className="mt-2">
          Block {at + 1}: {problem}
        </Problem>
      )}
    </fieldset>
  );
}
