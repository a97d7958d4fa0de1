import { BLOCKS, COUNTED, COUNTED_WORDS, type TryBothInput, WAY_PART_FACTS, WAY_PARTS, wayValueWords } from "@/core/experiment";
import { named, SentChoice, SentInput, type useSentForm } from "@/ui/form";
import type { TryLadder } from "./try-form";

type Form = Pick<ReturnType<typeof useSentForm<TryBothInput>>, "register" | "setValue" | "error" | "watch">;

const RUNNING = [
  { value: "1", label: "never the same twice running" },
  { value: "2", label: "at most twice running" },
  { value: "3", label: "at most three times running" },
] as const;

const BLOCK_COUNTS = Array.from({ length: (BLOCKS.most - BLOCKS.least) / 2 + 1 }, (_, i) => String(BLOCKS.least + 2 * i));

/** The two ways, and what they differ in. */
export function WayFields({ form, zones, kit }: { form: Form; zones: readonly string[]; kit: readonly string[] }) {
  const { setValue, watch } = form;
  const differ = watch("differ");
  const values = differ === "" ? [] : (WAY_PART_FACTS[differ].values ?? (differ === "zone" ? zones : kit));
  const noValues = () => {
    setValue("value_a", "");
    setValue("value_b", "");
  };
  return (
    <>
      <SentInput form={form} name="way_a" label="A" span={3} autoComplete="off" maxLength={100} />
      <SentInput form={form} name="way_b" label="B" span={3} autoComplete="off" maxLength={100} />
      <SentChoice
        form={form}
        name="differ"
        id="try-differ"
        label="What they differ in"
        hint="The pads and the log follow it, block by block"
        span={2}
        rules={{ onChange: noValues }}
        empty="something else; the words alone say it"
        options={WAY_PARTS.map((part) => ({ value: part, label: WAY_PART_FACTS[part].words }))}
      />
      {differ !== "" &&
        (["value_a", "value_b"] as const).map((name) => (
          <SentChoice
            key={name}
            form={form}
            name={name}
            label={name === "value_a" ? "A is" : "B is"}
            span={2}
            empty="choose one"
            options={values.map((value) => ({ value, label: wayValueWords(differ, value) }))}
          />
        ))}
    </>
  );
}

/** On which behaviour and rung it is tried, and what counts. */
export function WhereFields({ form, ladders, free }: { form: Form; ladders: readonly TryLadder[]; free: readonly TryLadder[] }) {
  const { setValue, watch } = form;
  const [chosen, counts] = watch(["ladder", "counts"]);
  const ladder = ladders.find(({ id }) => id === chosen);
  return (
    <>
      <div className="contents sm:[&>div]:col-start-1">
        <SentChoice
          form={form}
          name="ladder"
          id="try-ladder"
          label="Behaviour"
          span={4}
          rules={{ onChange: (event) => setValue("rung", ladders.find(({ id }) => id === event.target.value)?.rung ?? 1) }}
          options={named(free)}
        />
      </div>
      <SentChoice
        form={form}
        name="rung"
        id="try-rung"
        label="Rung"
        hint="It stays on this one"
        span={2}
        figures
        options={Array.from({ length: ladder?.rungs ?? 1 }, (_, i) => String(i + 1))}
      />
      <SentChoice
        form={form}
        name="counts"
        id="try-counts"
        label="What counts"
        hint={COUNTED_WORDS[counts]?.help}
        options={COUNTED.map((one) => ({ value: one, label: COUNTED_WORDS[one].name }))}
      />
    </>
  );
}

/** How many blocks of how many asks, and how they may follow each other. */
export function BlockFields({ form }: { form: Form }) {
  return (
    <>
      <SentChoice
        form={form}
        name="blocks"
        id="try-blocks"
        label="Blocks"
        hint="Half of them A, half B"
        span={2}
        figures
        options={BLOCK_COUNTS}
      />
      <SentChoice form={form} name="most_alike" id="try-alike" label="The same" span={2} options={RUNNING} />
      <SentInput form={form} name="asks_each" id="try-asks" label="Asks a block" span={2} inputMode="numeric" figures />
    </>
  );
}
