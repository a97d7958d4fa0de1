"use client";

import { NEEDED_COLUMNS, type TrialsMapping } from "@/core/formats/bring-trials";
import { TRIALS_COLUMNS } from "@/core/formats/trials-columns";
import { counted } from "@/core/words";
import { ScrollBox } from "@/ui/scroll-box";
import type { BroughtWords, ImportState } from "./import-state";
import { type Import, useImport } from "./use-import";

type Named = readonly { readonly id: string; readonly name: string }[];

const OUTCOMES = [
  ["", "say what it means"],
  ["met", "got it"],
  ["try", "try"],
  ["miss", "something else"],
  ["refused", "no answer"],
] as const;

const KIND_WORDS = {
  package: "A yard: everything in it is looked at first, then brought in by its ids.",
  trials: "A table of trials in our own columns.",
  events: "Taps of sessions, one by one.",
  table: "A table. Say which of its columns is which.",
} as const;

function Progress({ words, done, of }: { words: string; done: number; of: number }) {
  const share = of === 0 ? 0 : Math.min(1, done / of);
  return (
    <div className="mt-3">
      <p role="status">{words}</p>
      <progress className="mt-1 h-3 w-full accent-tarn" value={share} max={1} aria-label={words} />
    </div>
  );
}

function Mapping({ state, mapping, onChange }: { state: ImportState; mapping: TrialsMapping; onChange: (mapping: TrialsMapping) => void }) {
  const { look } = state;
  if (look === null) return null;
  const set = (name: string, value: string) => {
    const columns: Record<string, string> = { ...mapping.columns };
    if (value === "") delete columns[name];
    else columns[name] = value;
    onChange({ ...mapping, columns });
  };
  return (
    <>
      <details open={look.kind === "table"} className="mt-4">
        <summary className="link inline-block">Which column is which</summary>
        <div className="mt-2 grid grid-cols-[minmax(0,1fr)] gap-x-5 gap-y-2 sm:grid-cols-3">
          {TRIALS_COLUMNS.map(({ name }) => (
            <label key={name} className="text-sm font-semibold">
              {name}
              {NEEDED_COLUMNS.includes(name) && mapping.columns[name] === undefined && <span className="text-brick"> needed</span>}
              <select
                aria-label={name}
                value={mapping.columns[name] ?? ""}
                onChange={(event) => set(name, event.target.value)}
                className="field-box mt-0.5 py-1 font-normal"
              >
                <option value="">–</option>
                {look.header.map((cell, i) => (
                  <option key={i} value={cell}>
                    {cell}
                  </option>
                ))}
              </select>
            </label>
          ))}
        </div>
      </details>
      {look.unknownOutcomes.length > 0 && (
        <fieldset className="mt-4">
          <legend className="font-semibold">Its words for an answer</legend>
          <div className="mt-1 flex flex-wrap gap-3">
            {look.unknownOutcomes.map((word) => (
              <label key={word} className="text-sm">
                “{word}”
                <select
                  value={mapping.outcomes[word.toLowerCase()] ?? ""}
                  onChange={(event) =>
                    onChange({
                      ...mapping,
                      outcomes: Object.fromEntries(
                        Object.entries({ ...mapping.outcomes, [word.toLowerCase()]: event.target.value }).filter(
                          ([, value]) => value !== "",
                        ),
                      ) as TrialsMapping["outcomes"],
                    })
                  }
                  className="field-box mt-0.5 block py-1"
                >
                  {OUTCOMES.map(([value, words]) => (
                    <option key={value} value={value}>
                      {words}
                    </option>
                  ))}
                </select>
              </label>
            ))}
          </div>
        </fieldset>
      )}
      <ScrollBox label="The first rows" className="mt-4">
        <table className="figures text-left text-sm">
          <thead className="text-soft">
            <tr>
              {look.header.map((cell, i) => (
                <th key={i} scope="col" className="py-1 pr-4 font-normal whitespace-nowrap">
                  {cell}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {look.sample.map((row, i) => (
              <tr key={i} className="border-t border-hair *:py-1 *:pr-4 *:whitespace-nowrap">
                {row.map((cell, j) => (
                  <td key={j}>{cell}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </ScrollBox>
    </>
  );
}

const ANOTHER = "new";
const LEFT_OUT = "out";

/** Where the rows of each horse the file names go. */
function Horses({
  found,
  horses,
  chosen,
  onChange,
}: {
  found: BroughtWords["horses"];
  horses: readonly { readonly id: string; readonly name: string }[];
  chosen: Readonly<Record<string, string>>;
  onChange: (chosen: Record<string, string>) => void;
}) {
  return (
    <fieldset className="mt-4">
      <legend className="font-semibold">The horses it names</legend>
      <div className="mt-1 grid grid-cols-[minmax(0,1fr)] gap-x-5 gap-y-2 sm:grid-cols-3">
        {found.map(({ name, to, trials }) => (
          <label key={name} className="text-sm break-words">
            “{name}”, {counted(trials, "trial")}
            <select
              value={chosen[name.toLowerCase()] ?? (typeof to === "string" ? to : to.horse)}
              onChange={(event) => onChange({ ...chosen, [name.toLowerCase()]: event.target.value })}
              className="field-box mt-0.5 block w-full py-1"
            >
              {horses.map((horse) => (
                <option key={horse.id} value={horse.id}>
                  to {horse.name}
                </option>
              ))}
              <option value={ANOTHER}>a new horse</option>
              <option value={LEFT_OUT}>left out</option>
            </select>
          </label>
        ))}
      </div>
    </fieldset>
  );
}

/** What comes, or came, of a table or of taps. */
function Brought({ brought, would }: { brought: BroughtWords; would: boolean }) {
  const outNames = brought.horses.filter(({ to }) => to === LEFT_OUT).map(({ name }) => name);
  return (
    <>
      <p className="text-lg">
        {counted(brought.trials, "trial")} in {counted(brought.sessions, "session")} {would ? "would come in" : "brought in"}.
        {brought.known > 0 && ` ${brought.known} ${brought.known === 1 ? "is" : "are"} here already.`}
        {brought.refusedCount > 0 && ` ${counted(brought.refusedCount, "row")} cannot be taken.`}
        {brought.leftOut > 0 &&
          ` ${counted(brought.leftOut, "row")} of ${outNames.join(", ")} ${brought.leftOut === 1 ? "is" : "are"} left out.`}
      </p>
      {brought.unknownColumns.length > 0 && <p className="text-sm text-soft">Left aside: {brought.unknownColumns.join(", ")}.</p>}
      {brought.refused.length > 0 && (
        <details>
          <summary>the rows that cannot be taken</summary>
          <ul className="figures text-sm break-words">
            {brought.refused.map(({ line, column, reason }) => (
              <li key={`${line} ${column}`}>
                line {line}
                {column === "" ? "" : `, ${column}`}: {reason}
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}

function Result({ state }: { state: ImportState }) {
  const { brought, merged } = state;
  return (
    <div className="mt-4" role="status" data-testid="import-result">
      {merged !== null && (
        <p className="text-lg">
          {counted(merged.sessions, "session")} and {counted(merged.events, "tap")} brought in, {counted(merged.rows, "row")} of plans,
          people and places.
          {merged.kept > 0 && ` ${counted(merged.kept, "row")} said something else here and stayed as they are here.`}
        </p>
      )}
      {brought !== null && <Brought brought={brought} would={false} />}
    </div>
  );
}

/** What a file that was read asks, what would come of it, and the way in. */
function Ready({ state, horses, taken }: { state: ImportState; horses: Named; taken: Import }) {
  const { look, mapping, setMapping, horse, setHorse, byName, setByName, asksColumns, looked, lacks, start } = taken;
  if (look === null) return null;
  return (
    <>
      <p className="mt-3">{KIND_WORDS[look.kind]}</p>
      {look.kind !== "package" && (
        <label className="mt-3 block max-w-sm font-semibold">
          {mapping.columns.horse !== undefined && asksColumns ? "Whose, if a row names no horse" : "Whose"}
          <select value={horse} onChange={(event) => setHorse(event.target.value)} className="field-box mt-0.5 font-normal">
            {horses.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </select>
        </label>
      )}
      {asksColumns && <Mapping state={state} mapping={mapping} onChange={setMapping} />}
      {asksColumns && state.dry !== null && state.dry.horses.length > 0 && (
        <Horses found={state.dry.horses} horses={horses} chosen={byName} onChange={setByName} />
      )}
      {looked && state.dry !== null && (
        <div className="mt-4" role="status" data-testid="import-dry">
          <Brought brought={state.dry} would />
        </div>
      )}
      <p className="mt-4 flex flex-wrap items-center gap-3">
        {asksColumns && !looked ? (
          <button type="button" className="act" disabled={lacks.length > 0 || horse === ""} onClick={() => void start(true)}>
            Look it through
          </button>
        ) : (
          <button
            type="button"
            className="act"
            disabled={lacks.length > 0 || (look.kind !== "package" && horse === "")}
            onClick={() => void start(false)}
          >
            Bring it in
          </button>
        )}
        {lacks.length > 0 && <span className="text-sm text-soft">Say first which column is {lacks.join(", ")}.</span>}
      </p>
    </>
  );
}

/** Takes a file in: sends it, says what it is, asks what it cannot know, says how far it has come; may be given up at any time before it is read. */
export function Importer({ horses }: { horses: Named }) {
  const taken = useImport(horses);
  const { state, problem, going, choose, stop } = taken;
  return (
    <div className="mt-4">
      <label className="block font-semibold">
        A file
        <input
          type="file"
          accept=".zip,.csv,text/csv,application/zip"
          disabled={going}
          onChange={(event) => {
            const file = event.target.files?.[0];
            // The same file can be chosen again, and is a choice again.
            event.target.value = "";
            void choose(file);
          }}
          className="field-box mt-1 font-normal"
        />
      </label>
      {problem !== null && (
        <p role="alert" className="mt-3 font-semibold text-brick">
          {problem}
        </p>
      )}
      {state !== null && (
        <>
          <p className="figures mt-2 text-sm text-soft">{state.name}</p>
          {state.step === "receiving" && <Progress words="Being sent" done={state.received} of={state.size} />}
          {(state.step === "received" || state.step === "looked") && <Ready state={state} horses={horses} taken={taken} />}
          {state.step === "looking" && <Progress words="Being looked through; nothing is written" done={state.bytes} of={state.size} />}
          {state.step === "reading" && <Progress words="Being read and looked at" done={state.bytes} of={state.size} />}
          {state.step === "bringing" && <Progress words={`Being brought in: ${state.events} taps`} done={1} of={1} />}
          {["receiving", "received", "looking", "looked", "reading"].includes(state.step) && (
            <button type="button" className="act-quiet mt-3" onClick={() => void stop()}>
              Give it up
            </button>
          )}
          {(state.step === "failed" || state.step === "cancelled") && (
            <p role="alert" className={`mt-3 font-semibold ${state.step === "failed" ? "text-brick" : ""}`}>
              {state.problem}
            </p>
          )}
          {state.step === "done" && <Result state={state} />}
        </>
      )}
    </div>
  );
}
