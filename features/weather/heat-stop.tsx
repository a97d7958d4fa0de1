"use client";

import { HEAT_REASONS } from "@/core/events/heat-reasons";
import { type HeatCaution, heatNumber } from "@/core/welfare";
import { chip } from "@/ui/chip";

export type HeatReason = (typeof HEAT_REASONS)[number];

/** Too hot to work: what to do now, and the few reasons for five minutes at walk all the same. */
export function HeatStop({
  heat,
  fahrenheit,
  reason,
  onReason,
}: {
  heat: HeatCaution;
  fahrenheit: boolean;
  reason: HeatReason | null;
  onReason: (reason: HeatReason | null) => void;
}) {
  return (
    <section aria-label="Too hot to work" className="grid gap-2 border-4 border-brick p-3" data-testid="heat-stop">
      <p role="alert">
        <strong className="block font-head text-[2rem] leading-none font-extrabold text-brick">Stop</strong>
        <span className="font-semibold">
          Too hot to work. {heatNumber(heat.wbgtCelsius, fahrenheit)}, estimated for {heat.sky === "sun" ? "the sun" : "shade or cloud"}.
        </span>{" "}
        Shade, water over the whole body, moving air. Call a vet for a horse that is dull or does not cool.
      </p>
      <fieldset>
        <legend className="text-sm font-semibold">Only if there is a reason. Then five minutes at walk, no more.</legend>
        <div className="mt-1 flex flex-wrap gap-1.5">
          {HEAT_REASONS.map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={reason === one}
              onClick={() => onReason(reason === one ? null : one)}
              className={chip(reason === one)}
            >
              {one}
            </button>
          ))}
        </div>
      </fieldset>
    </section>
  );
}
