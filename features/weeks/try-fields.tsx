import { BLOCKS, COUNTED, COUNTED_WORDS, type TryBothInput, WAY_PART_FACTS, WAY_PARTS, wayValueWords } from "@/core/experiment";
import { Field, tied, type useSentForm } from "@/ui/form";
import type { TryLadder } from "./try-form";

type Form = Pick<ReturnType<typeof useSentForm<TryBothInput>>, "register" | "setValue" | "error" | "watch">;

const RUNNING_WORDS = { 1: "never the same twice running", 2: "at most twice running", 3: "at most three times running" } as const;

/** The two ways, and what they differ in. */
export function WayFields({ form, zones, kit }: { form: Form; zones: readonly string[]; kit: readonly string[] }) {
  const { register, setValue, error, watch } = form;
  const differ = watch("differ");
  const values = differ === "" ? [] : (WAY_PART_FACTS[differ].values ?? (differ === "zone" ? zones : kit));
  return (
    <>
      {(["way_a", "way_b"] as const).map((name) => (
        <div key={name} className="sm:col-span-3">
          <Field id={name} label={name === "way_a" ? "A" : "B"} error={error(name)}>
            <input {...register(name)} {...tied(name, error(name))} className="field-box" autoComplete="off" maxLength={100} />
          </Field>
        </div>
      ))}
      <div className="sm:col-span-2">
        <Field id="try-differ" label="What they differ in" hint="The pads and the log follow it, block by block" error={error("differ")}>
          <select
            {...register("differ", {
              onChange: () => {
                setValue("value_a", "");
                setValue("value_b", "");
              },
            })}
            {...tied("try-differ", error("differ"))}
            className="field-box"
          >
            <option value="">something else; the words alone say it</option>
            {WAY_PARTS.map((part) => (
              <option key={part} value={part}>
                {WAY_PART_FACTS[part].words}
              </option>
            ))}
          </select>
        </Field>
      </div>
      {differ !== "" &&
        (["value_a", "value_b"] as const).map((name) => (
          <div key={name} className="sm:col-span-2">
            <Field id={name} label={name === "value_a" ? "A is" : "B is"} error={error(name)}>
              <select {...register(name)} {...tied(name, error(name))} className="field-box">
                <option value="">choose one</option>
                {values.map((value) => (
                  <option key={value} value={value}>
                    {wayValueWords(differ, value)}
                  </option>
                ))}
              </select>
            </Field>
          </div>
        ))}
    </>
  );
}

/** On which behaviour and rung it is tried, and what counts. */
export function WhereFields({ form, ladders, free }: { form: Form; ladders: readonly TryLadder[]; free: readonly TryLadder[] }) {
  const { register, setValue, error, watch } = form;
  const [chosen, counts] = watch(["ladder", "counts"]);
  const ladder = ladders.find(({ id }) => id === chosen);
  return (
    <>
      <div className="sm:col-span-4 sm:col-start-1">
        <Field id="try-ladder" label="Behaviour" error={error("ladder")}>
          <select
            {...register("ladder", {
              onChange: (event) => setValue("rung", ladders.find(({ id }) => id === event.target.value)?.rung ?? 1),
            })}
            {...tied("try-ladder", error("ladder"))}
            className="field-box"
          >
            {free.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </Field>
      </div>
      <div className="sm:col-span-2">
        <Field id="try-rung" label="Rung" hint="It stays on this one" error={error("rung")}>
          <select {...register("rung")} {...tied("try-rung", error("rung"))} className="field-box figures">
            {Array.from({ length: ladder?.rungs ?? 1 }, (_, i) => (
              <option key={i} value={i + 1}>
                {i + 1}
              </option>
            ))}
          </select>
        </Field>
      </div>
      <div className="sm:col-span-6">
        <Field id="try-counts" label="What counts" hint={COUNTED_WORDS[counts]?.help} error={error("counts")}>
          <select {...register("counts")} {...tied("try-counts", error("counts"))} className="field-box">
            {COUNTED.map((one) => (
              <option key={one} value={one}>
                {COUNTED_WORDS[one].name}
              </option>
            ))}
          </select>
        </Field>
      </div>
    </>
  );
}

/** How many blocks of how many asks, and how they may follow each other. */
export function BlockFields({ form: { register, error } }: { form: Form }) {
  return (
    <>
      <div className="sm:col-span-2">
        <Field id="try-blocks" label="Blocks" hint="Half of them A, half B" error={error("blocks")}>
          <select {...register("blocks")} {...tied("try-blocks", error("blocks"))} className="field-box figures">
            {Array.from({ length: (BLOCKS.most - BLOCKS.least) / 2 + 1 }, (_, i) => BLOCKS.least + 2 * i).map((n) => (
              <option key={n} value={n}>
                {n}
              </option>
            ))}
          </select>
        </Field>
      </div>
      <div className="sm:col-span-2">
        <Field id="try-alike" label="The same" error={error("most_alike")}>
          <select {...register("most_alike")} {...tied("try-alike", error("most_alike"))} className="field-box">
            {([1, 2, 3] as const).map((n) => (
              <option key={n} value={n}>
                {RUNNING_WORDS[n]}
              </option>
            ))}
          </select>
        </Field>
      </div>
      <div className="sm:col-span-2">
        <Field id="try-asks" label="Asks a block" error={error("asks_each")}>
          <input {...register("asks_each")} {...tied("try-asks", error("asks_each"))} inputMode="numeric" className="field-box figures" />
        </Field>
      </div>
    </>
  );
}
