import type { Payload } from "../events";

/** What a person wears to work with a horse from the ground. */
const GEAR = ["helmet", "gloves", "boots"] as const;

/**
 * What the look before work came to, in words. What nobody ticked was not
 * looked at, and is never said to be well.
 * @example lookedWords({ gear: { helmet: true, gloves: false, boots: false }, checks: [], open: [] }) // "Well: helmet. Not said: gloves, boots."
 */
export function lookedWords({ gear = {}, checks = [], open = [], skipped }: Payload<"preflight">): string {
  if (skipped === true) return "The look before work was skipped.";
  const worn = GEAR.filter((one) => gear[one] === true);
  const well = [...worn, ...checks];
  const unsaid = GEAR.filter((one) => gear[one] !== true && !open.includes(one));
  if (well.length === 0 && open.length === 0) return "Nothing was ticked before work.";
  if (open.length === 0 && unsaid.length === 0 && checks.length > 0) return "All looked at and well.";
  return [
    ...(well.length === 0 ? [] : [`Well: ${well.join(", ")}.`]),
    ...(open.length === 0 ? [] : [`Not right, or not looked at: ${open.join(", ")}.`]),
    ...(unsaid.length === 0 ? [] : [`Not said: ${unsaid.join(", ")}.`]),
  ].join(" ");
}
