"use client";

import { ArrowDown, ArrowUp, Plus, Trash2 } from "lucide-react";
import { useRouter } from "next/navigation";
import { CHAIN_DIRECTIONS, type ChainDirection } from "@/core/behaviour";
import { type ChainInput, chainSchema, newChainSchema } from "@/core/schemas";
import { Field, FormEnd, tied, useSentForm } from "@/ui/form";

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
  const lastRung = (ladder: string) => choices.find(({ id }) => id === ladder)?.rungs.length ?? 1;
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
          {links.map(({ ladder, rung }, i) => {
            const choice = choices.find(({ id }) => id === ladder);
            return (
              <li
                key={`${i}-${ladder}`}
                className="grid grid-cols-[1.6rem_1fr_auto] items-center gap-2 sm:grid-cols-[1.6rem_1fr_1.4fr_auto]"
              >
                <span className="figures font-head text-lg font-bold">{i + 1}</span>
                <select
                  aria-label={`Link ${i + 1}, behaviour`}
                  value={ladder}
                  onChange={(event) =>
                    put(links.map((link, at) => (at === i ? { ladder: event.target.value, rung: lastRung(event.target.value) } : link)))
                  }
                  className="field-box"
                >
                  {choices.map(({ id, name }) => (
                    <option key={id} value={id}>
                      {name}
                    </option>
                  ))}
                </select>
                <select
                  aria-label={`Link ${i + 1}, rung`}
                  value={rung}
                  onChange={(event) => put(links.map((link, at) => (at === i ? { ladder, rung: Number(event.target.value) } : link)))}
                  className="field-box max-sm:col-start-2"
                >
                  {choice?.rungs.map((words, n) => (
                    <option key={`${n + 1}`} value={n + 1}>
                      {n + 1}: {words}
                    </option>
                  ))}
                </select>
                <span className="whitespace-nowrap max-sm:col-start-3 max-sm:row-start-1">
                  <button
                    type="button"
                    aria-label={`Link ${i + 1} earlier`}
                    disabled={i === 0}
                    onClick={() => move(i, -1)}
                    className="inline-grid size-9 place-items-center rounded text-soft hover:bg-paper disabled:opacity-30"
                  >
                    <ArrowUp size={16} aria-hidden="true" />
                  </button>
                  <button
                    type="button"
                    aria-label={`Link ${i + 1} later`}
                    disabled={i === links.length - 1}
                    onClick={() => move(i, 1)}
                    className="inline-grid size-9 place-items-center rounded text-soft hover:bg-paper disabled:opacity-30"
                  >
                    <ArrowDown size={16} aria-hidden="true" />
                  </button>
                  <button
                    type="button"
                    aria-label={`Take out link ${i + 1}`}
                    onClick={() => put(links.filter((_, at) => at !== i))}
                    className="inline-grid size-9 place-items-center rounded text-soft hover:bg-paper"
                  >
                    <Trash2 size={16} aria-hidden="true" />
                  </button>
                </span>
              </li>
            );
          })}
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
