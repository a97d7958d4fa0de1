"use client";

import { useDeferredValue, useMemo, useState } from "react";
import { asksADay } from "@/core/ladder";
import { daysWanted, type MasteryRule, masterySentence, ruleCheck, ruleCheckSentence } from "@/core/mastery";
import { checkMasteryRule } from "@/core/schemas";
import type { YardSettings } from "@/core/settings";
import { keysOf } from "@/core/typed";
import { Field, tied } from "@/ui/form";
import { onAdvice } from "@/ui/form/on-word";
import { FormNumber } from "./form-number";
import { LabelledNumber } from "./number-box";
import { RuleBands } from "./rule-band";
import { useByValue } from "./use-by-value";
import { type DraftForm, errorAt } from "./use-draft";

const RULES: Record<MasteryRule["kind"], { label: string; start: MasteryRule }> = {
  share: { label: "so many of the last so many", start: { kind: "share", met: 8, of: 10, window: "moving" } },
  run: { label: "so many in a row", start: { kind: "run", length: 5 } },
  posterior: { label: "sure enough of a share", start: { kind: "posterior", target: 0.8, confidence: 0.9, least: 5 } },
  "first-clean": { label: "first clean one, then stop", start: { kind: "first-clean" } },
};

/** True successes the two rules are compared at. */
const COMPARED_AT = [0.5, 0.55, 0.6, 0.65, 0.7, 0.75, 0.8, 0.85, 0.9, 0.95] as const;
const MOST_WITHIN = 400;

const percentWords = (chance: number) =>
  chance > 0.995 && chance < 1 ? "> 99 %" : chance > 0 && chance < 0.005 ? "< 1 %" : `${Math.round(chance * 100)} %`;

const meanWords = (mean: number | null) => (mean === null ? "never sure" : mean > 9999 ? "> 9999" : String(Math.round(mean)));

const goodRule = (rule: MasteryRule): MasteryRule | null => {
  const checked = checkMasteryRule(rule);
  return checked.ok ? checked.value : null;
};

/** The numbers of a rule that is compared with, kept only for looking. */
function OtherRule({ rule, onRule }: { rule: MasteryRule; onRule: (rule: MasteryRule) => void }) {
  const numbers: readonly (readonly [string, string])[] = {
    share: [
      ["met", "Met"],
      ["of", "Of"],
    ] as const,
    run: [["length", "In a row"]] as const,
    posterior: [
      ["target", "Share, 0 to 1"],
      ["confidence", "Sure by, 0 to 1"],
      ["least", "From trial"],
    ] as const,
    "first-clean": [] as const,
  }[rule.kind];
  const found = checkMasteryRule(rule);
  return (
    <div className="flex flex-wrap items-end gap-3">
      <label className="block">
        <span className="mb-1 block font-semibold">Beside it</span>
        <select value={rule.kind} onChange={onAdvice(keysOf(RULES), (kind) => onRule(RULES[kind].start))} className="field-box w-64!">
          {Object.entries(RULES).map(([kind, { label }]) => (
            <option key={kind} value={kind}>
              {label}
            </option>
          ))}
        </select>
      </label>
      {numbers.map(([name, label]) => (
        <LabelledNumber
          key={name}
          label={label}
          quiet
          className="w-28"
          value={Number((rule as unknown as Record<string, number>)[name])}
          problem={null}
          onValue={(value) => onRule({ ...rule, [name]: value } as MasteryRule)}
        />
      ))}
      {!found.ok && (
        <p role="alert" className="w-full text-sm font-semibold text-brick">
          {found.problems[0]?.message}
        </p>
      )}
    </div>
  );
}

/** What a rule really promises, exactly, beside another one. */
function RuleCheckTable({
  rule,
  rungs,
  asksPerSession,
  aDay,
  settings,
}: {
  rule: MasteryRule;
  rungs: number;
  asksPerSession: number;
  aDay: number;
  settings: YardSettings;
}) {
  const [within, setWithin] = useState(20);
  const [said, setSaid] = useState(0.6);
  const [other, setOther] = useState<MasteryRule>(RULES[rule.kind === "run" ? "share" : "run"].start);
  const mine = useDeferredValue(rule);
  const theirs = useDeferredValue(other);
  const goodWithin = Number.isInteger(within) && within >= 1 && within <= MOST_WITHIN;
  const rows = useMemo(() => {
    const of = (one: MasteryRule) => {
      const good = goodRule(one);
      return good === null || !goodWithin ? null : ruleCheck(good, COMPARED_AT, within, aDay);
    };
    return { mine: of(mine), theirs: of(theirs) };
  }, [mine, theirs, within, goodWithin, aDay]);
  const sentence = rows.mine?.find(({ p }) => p === said);
  return (
    <div className="mt-4 border-t-2 border-hair pt-3">
      <h3 className="text-lg">What the rule promises</h3>
      <p className="max-w-prose min-h-14" aria-live="polite" data-testid="rule-sentence">
        {sentence === undefined
          ? "Put good numbers into the rule first."
          : `${ruleCheckSentence(sentence, within)}${daysWanted(mine) > 1 ? ` With ${aDay} asks a day at most.` : ""}`}
      </p>
      <div className="mb-3 flex flex-wrap items-end gap-x-6 gap-y-3">
        <LabelledNumber
          label="Within tries"
          className="w-36"
          value={within}
          problem={goodWithin ? null : `A whole number from 1 to ${MOST_WITHIN}.`}
          onValue={setWithin}
        />
        <OtherRule rule={other} onRule={setOther} />
      </div>
      <div className="max-w-full overflow-x-auto">
        <table className="figures w-full max-w-3xl border-collapse text-right">
          <caption className="sr-only">Chance to pass within {within} tries and mean tries, by true success, for two rules</caption>
          <thead>
            <tr className="border-b-2 border-ink align-bottom">
              <th scope="col" className="py-1 text-left font-semibold">
                Gets it
              </th>
              <th scope="col" className="px-3 font-semibold" colSpan={2}>
                {goodRule(rule) === null ? "this rule" : masterySentence(rule)}
              </th>
              <th scope="col" className="px-3 font-normal text-soft" colSpan={2}>
                {goodRule(other) === null ? "the other" : masterySentence(other)}
              </th>
            </tr>
            <tr className="border-b-2 border-hair text-sm text-soft">
              <td />
              <th scope="col" className="px-3 font-normal">
                within {within}
              </th>
              <th scope="col" className="px-3 font-normal">
                mean tries
              </th>
              <th scope="col" className="px-3 font-normal">
                within {within}
              </th>
              <th scope="col" className="px-3 font-normal">
                mean tries
              </th>
            </tr>
          </thead>
          <tbody>
            {COMPARED_AT.map((p, i) => (
              <tr key={p} className={`border-b border-hair ${p === said ? "bg-paper font-bold" : ""}`}>
                <th scope="row" className="text-left font-normal">
                  <button
                    type="button"
                    className="min-h-8 underline-offset-4 hover:underline"
                    aria-pressed={p === said}
                    onClick={() => setSaid(p)}
                  >
                    {Math.round(p * 100)} %
                  </button>
                </th>
                {[rows.mine?.[i], rows.theirs?.[i]].map((row, which) => (
                  <RowCells key={which} row={row} />
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-1 text-sm text-soft">Exact, for a horse whose true share stays the same.</p>
      <RuleBands mine={goodRule(mine)} theirs={goodRule(theirs)} rungs={rungs} asksPerSession={asksPerSession} settings={settings} />
    </div>
  );
}

function RowCells({ row }: { row: { passWithin: number; meanTrials: number | null } | undefined }) {
  return (
    <>
      <td className="px-3">{row === undefined ? "–" : percentWords(row.passWithin)}</td>
      <td className="px-3">{row === undefined ? "–" : meanWords(row.meanTrials)}</td>
    </>
  );
}

/** Asks of a session as it is planned; what is being typed may be no number yet. */
const sessionAsks = (repetitions: unknown, { planBlocks }: YardSettings) =>
  Math.max(1, Math.round((Number(repetitions) > 0 ? Number(repetitions) : USUAL_REPETITIONS) * planBlocks));
const USUAL_REPETITIONS = 8;

/** Which rule says a rung is learned, its numbers, and what it promises. */
export function MasteryFields({ form, rungs, settings }: { form: DraftForm; rungs: number; settings: YardSettings }) {
  const rule = useByValue(form.watch("plan.mastery"));
  const repetitions = form.watch("plan.plannedRepetitions");
  return (
    <div>
      <div className="grid gap-4 sm:grid-cols-4">
        <div className="sm:col-span-2">
          <Field id="mastery-kind" label="Moves on when">
            <select
              {...tied("mastery-kind", undefined)}
              value={rule.kind}
              onChange={onAdvice(keysOf(RULES), (kind) => form.setValue("plan.mastery", RULES[kind].start, { shouldDirty: true }))}
              className="field-box"
            >
              {Object.entries(RULES).map(([kind, { label }]) => (
                <option key={kind} value={kind}>
                  {label}
                </option>
              ))}
            </select>
          </Field>
        </div>
        {rule.kind === "share" && (
          <>
            <FormNumber form={form} path="plan.mastery.met" label="Met" />
            <FormNumber form={form} path="plan.mastery.of" label="Of" />
            <div className="sm:col-span-2">
              <Field id="plan.mastery.window" label="Counted" error={errorAt(form, "plan.mastery.window")}>
                <select id="plan.mastery.window" {...form.register("plan.mastery.window" as never)} className="field-box">
                  <option value="moving">over the latest trials</option>
                  <option value="block">inside one block</option>
                </select>
              </Field>
            </div>
          </>
        )}
        {rule.kind === "run" && <FormNumber form={form} path="plan.mastery.length" label="In a row" />}
        {rule.kind === "posterior" && (
          <>
            <FormNumber form={form} path="plan.mastery.target" label="Share, 0 to 1" />
            <FormNumber form={form} path="plan.mastery.confidence" label="Sure by, 0 to 1" />
            <FormNumber form={form} path="plan.mastery.least" label="From trial" />
          </>
        )}
        {rule.days === undefined ? (
          <button
            type="button"
            className="link self-end text-left"
            onClick={() => form.setValue("plan.mastery", { ...rule, days: 2 }, { shouldDirty: true })}
          >
            on different days
          </button>
        ) : (
          <FormNumber form={form} path="plan.mastery.days" label="On days" />
        )}
      </div>
      <RuleCheckTable
        rule={rule}
        rungs={Math.max(1, rungs)}
        asksPerSession={sessionAsks(repetitions, settings)}
        aDay={asksADay(repetitions)}
        settings={settings}
      />
    </div>
  );
}
