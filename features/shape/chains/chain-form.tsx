"use client";

import { ArrowDown, ArrowUp, Plus, Trash2 } from "lucide-react";
import { useRouter } from "next/navigation";
import { CHAIN_DIRECTIONS, type ChainDirection } from "@/core/behaviour";
import { type ChainInput, chainSchema, newChainSchema } from "@/core/schemas";
import { Field, FormEnd, named, Options, tied, useSentForm } from "@/ui/form";

/** A ladder that may be a link, with what its rungs ask. */
export interface LinkChoice {
  readonly id: string;
  readonly name: string;
  readonly rungs: readonly string[];
}

const DIRECTION_WORDS: Record<ChainDirection, string> = {
  forward: "forward: the first link first, then the next after it",
  backward: "backward: the last link first, so that every run ends on what is known",
};

type ChainFormValues = ChainInput & { horse?: string };

/** One link: its behaviour, the rung it has to hold, and its place. */
function LinkRow({
  at,
  last,
  link: { ladder, rung },
  choices,
  onChange,
  onMove,
  onRemove,
}: {
  at: number;
  last: boolean;
  link: ChainInput["links"][number];
  choices: readonly LinkChoice[];
  onChange: (link: ChainInput["links"][number]) => void;
  onMove: (by: -1 | 1) => void;
  onRemove: () => void;
}) {
  const rungsOf = (id: string) => choices.find((one) => one.id === id)?.rungs ?? [];
  const small = "inline-grid size-9 place-items-center rounded text-soft hover:bg-paper disabled:opacity-30";
  return (
    <li className="grid grid-cols-[1.6rem_1fr_auto] items-center gap-2 sm:grid-cols-[1.6rem_1fr_1.4fr_auto]">
      <span className="figures font-head text-lg font-bold">{at + 1}</span>
      <select
        aria-label={`Link ${at + 1}, behaviour`}
        value={ladder}
        onChange={({ target: { value } }) => onChange({ ladder: value, rung: rungsOf(value).length || 1 })}
        className="field-box"
      >
        <Options options={named(choices)} />
      </select>
      <select
        aria-label={`Link ${at + 1}, rung`}
        value={rung}
        onChange={(event) => onChange({ ladder, rung: Number(event.target.value) })}
        className="field-box max-sm:col-start-2"
      >
        <Options options={rungsOf(ladder).map((words, n) => ({ value: String(n + 1), label: `${n + 1}: ${words}` }))} />
      </select>
      <span className="whitespace-nowrap max-sm:col-start-3 max-sm:row-start-1">
        <button type="button" aria-label={`Link ${at + 1} earlier`} disabled={at === 0} onClick={() => onMove(-1)} className={small}>
          <ArrowUp size={16} aria-hidden="true" />
        </button>
        <button type="button" aria-label={`Link ${at + 1} later`} disabled={last} onClick={() => onMove(1)} className={small}>
          <ArrowDown size={16} aria-hidden="true" />
        </button>
        <button type="button" aria-label={`Take out link ${at + 1}`} onClick={onRemove} className={small}>
          <Trash2 size={16} aria-hidden="true" />
        </button>
      </span>
    </li>
  );
}

/** Links in the order they are asked, each with the rung it has to hold. */
export function ChainForm({
  horseId,
  chainId,
  start,
  choices,
}: {
  horseId: string;
  chainId?: string;
  start: ChainInput;
  choices: readonly LinkChoice[];
}) {
  const router = useRouter();
  const { register, watch, setValue, submit, error, problem, busy } = useSentForm<ChainFormValues>({
    schema: chainId === undefined ? newChainSchema : chainSchema,
    start: chainId === undefined ? { ...start, horse: horseId } : start,
    target: chainId === undefined ? { method: "POST", url: "/api/chains" } : { method: "PUT", url: `/api/chains/${chainId}` },
    onSaved: (id) => router.push(`/horses/${horseId}/shape/chains/${id}`),
  });
  const links = watch("links");
  const put = (next: ChainInput["links"]) => setValue("links", next, { shouldDirty: true, shouldValidate: true });
  const move = (at: number, by: number) => {
    const next = [...links];
    const [link] = next.splice(at, 1);
    if (link !== undefined) next.splice(at + by, 0, link);
    put(next);
  };
  const [first] = choices;
  return (
    <form onSubmit={submit} noValidate className="grid max-w-4xl gap-4">
      <div className="grid gap-4 sm:grid-cols-2">
        <Field id="name" label="Chain" error={error("name")}>
          <input
            {...register("name")}
            {...tied("name", error("name"))}
            autoComplete="off"
            className="field-box"
            placeholder="Loads and comes out when asked"
          />
        </Field>
        <Field id="direction" label="Trained" error={error("direction")}>
          <select {...register("direction")} {...tied("direction", error("direction"))} className="field-box">
            {CHAIN_DIRECTIONS.map((direction) => (
              <option key={direction} value={direction}>
                {DIRECTION_WORDS[direction]}
              </option>
            ))}
          </select>
        </Field>
      </div>
      <div>
        <p className="mb-1 font-semibold">Links, in the order they are asked</p>
        <ol className="grid gap-2">
          {links.map((link, i) => (
            <LinkRow
              key={`${i}-${link.ladder}`}
              at={i}
              last={i === links.length - 1}
              link={link}
              choices={choices}
              onChange={(next) => put(links.map((one, at) => (at === i ? next : one)))}
              onMove={(by) => move(i, by)}
              onRemove={() => put(links.filter((_, at) => at !== i))}
            />
          ))}
        </ol>
        {first !== undefined && (
          <button type="button" className="act-quiet mt-2" onClick={() => put([...links, { ladder: first.id, rung: first.rungs.length }])}>
            <Plus size={18} aria-hidden="true" /> Link
          </button>
        )}
        {error("links") !== undefined && (
          <p role="alert" className="mt-1 text-sm font-semibold text-brick">
            {error("links")}
          </p>
        )}
      </div>
      <FormEnd label={chainId === undefined ? "Make the chain" : "Save"} busy={busy} problem={problem} />
    </form>
  );
}
