import type { UseFormRegisterReturn } from "react-hook-form";
import { TextBox } from "@/ui/form";
import type { Saving } from "./facts";

const REASONS = ["tapped wrong", "wrong side", "was no ask", "seen on film"];

/** The reason, asked for each time: what was stands beside it as an event. */
export function Why(field: UseFormRegisterReturn) {
  return (
    <>
      <TextBox small label="Why" list="put-right-reasons" maxLength={500} {...field} />
      <datalist id="put-right-reasons">
        {REASONS.map((reason) => (
          <option key={reason} value={reason} />
        ))}
      </datalist>
    </>
  );
}

/** Put right or struck; both ask for a reason first. */
export function Ends({
  why,
  changed,
  saving,
  onSave,
  onStrike,
  what,
}: {
  why: string;
  changed: boolean;
  saving: Saving;
  onSave: () => void;
  onStrike: () => void;
  what: string;
}) {
  const said = why.trim() !== "";
  return (
    <div className="flex flex-wrap items-center gap-3 sm:col-span-full">
      <button type="button" className="act" disabled={!said || !changed || saving.busy} onClick={onSave}>
        Put it right
      </button>
      <button type="button" className="act-quiet" disabled={!said || saving.busy} onClick={onStrike}>
        Strike the {what}
      </button>
      {!said && <span className="text-sm text-soft">Say why first.</span>}
    </div>
  );
}

export const SIDES = [
  { value: "L", label: "left" },
  { value: "R", label: "right" },
] as const;
