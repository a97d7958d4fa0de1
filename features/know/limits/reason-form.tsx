"use client";

import { useState } from "react";
import { TextBox } from "@/ui/form";

/** A reason that stays in the list: why a restriction ends, or why it is gone against today. */
export function ReasonForm({
  label,
  act,
  onGive,
  onLeave,
}: {
  label: string;
  act: string;
  onGive: (why: string) => void;
  onLeave: () => void;
}) {
  const [why, setWhy] = useState("");
  return (
    <form
      className="flex w-full flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        onGive(why);
      }}
    >
      <TextBox className="grow" label={label} value={why} maxLength={500} required onTyped={setWhy} />
      <button type="submit" className="act">
        {act}
      </button>
      <button type="button" className="act-quiet" onClick={onLeave}>
        Leave it
      </button>
    </form>
  );
}
