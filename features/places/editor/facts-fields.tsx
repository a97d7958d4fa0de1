import type { UseFormReturn } from "react-hook-form";
import { PLACE_SHAPES } from "@/core/place";
import { FOOTINGS } from "@/core/schemas";
import { Field, tied } from "@/ui/form";
import { lengthUnit, useUnits } from "@/ui/units";
import type { PlaceValues } from "./draft";

/** What a field of the form is called in the body that is sent. */
const SENT_AS = { name: "name", length: "length_m", width: "width_m", footing: "footing", fence: "fence" } as const;

/** Name, shape, size, footing and fence. */
export function FactsFields({ form }: { form: UseFormReturn<PlaceValues> }) {
  const units = useUnits();
  const { register, watch, setValue, formState } = form;
  const shape = watch("shape");
  const line = (name: keyof typeof SENT_AS, label: string, list?: string) => {
    const id = SENT_AS[name];
    const error = formState.errors[name]?.message;
    const size = name === "length" || name === "width";
    return (
      <Field id={id} label={label} error={error}>
        <input
          {...register(name)}
          {...tied(id, error)}
          list={list}
          autoComplete="off"
          inputMode={size ? "decimal" : undefined}
          className={`field-box ${size ? "figures" : ""}`}
        />
      </Field>
    );
  };
  const unit = lengthUnit(units);
  return (
    <div className="grid content-start gap-4">
      {line("name", "Name")}
      <fieldset>
        <legend className="mb-1 font-semibold">Shape</legend>
        <div className="grid grid-cols-3 gap-1.5">
          {PLACE_SHAPES.map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={shape === one}
              onClick={() => setValue("shape", one)}
              className={`min-h-11 rounded border-2 border-ink px-1 ${shape === one ? "bg-ink text-on-ink" : "bg-paper"}`}
            >
              {one}
            </button>
          ))}
        </div>
      </fieldset>
      <div className="grid grid-cols-2 gap-3">
        {line("length", `${shape === "rectangle" ? "Length" : "Across"}, ${unit}`)}
        {shape === "rectangle" && line("width", `Width, ${unit}`)}
      </div>
      {line("footing", "Footing", "footings")}
      <datalist id="footings">
        {FOOTINGS.map((one) => (
          <option key={one} value={one} />
        ))}
      </datalist>
      {line("fence", "Fence")}
    </div>
  );
}
