"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { SessionKind } from "@/core/schemas";
import { send, useRequestIds } from "@/ui/form";

/** Opens the recorder on a session without a ladder. Who and where can be chosen; both may stay open. */
export function Begin({
  horseId,
  kind,
  label,
  people = [],
  places = [],
  barred = null,
}: {
  horseId: string;
  kind: SessionKind;
  label: string;
  people?: readonly { readonly id: string; readonly name: string }[];
  places?: readonly { readonly id: string; readonly name: string }[];
  /** Why it may not begin today, or null. */
  barred?: string | null;
}) {
  const router = useRouter();
  const [person, setPerson] = useState(people[0]?.id ?? "");
  const [place, setPlace] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const ids = useRequestIds();
  if (barred !== null) return <p className="border-l-4 border-brick pl-4 font-semibold text-brick">Not today. {barred}</p>;
  const begin = async () => {
    setBusy(true);
    setProblem(null);
    const asked = { horse: horseId, kind, person: person === "" ? null : person, place: place === "" ? null : place };
    const sent = await send<{ id: string }>("POST", "/api/sessions", { id: ids.idFor(asked), ...asked });
    if (sent.ok) router.push(`/horses/${horseId}/work/${sent.value.id}`);
    else {
      setProblem(sent.message);
      setBusy(false);
    }
  };
  const choose = (name: string, list: readonly { id: string; name: string }[], value: string, change: (value: string) => void) =>
    list.length > 0 && (
      <label className="min-w-36">
        <span className="sr-only">{name}</span>
        <select value={value} onChange={(event) => change(event.target.value)} className="field-box min-h-11">
          <option value="">{name}: not said</option>
          {list.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </select>
      </label>
    );
  return (
    <div className="no-print">
      <div className="flex flex-wrap items-center gap-2.5">
        <button type="button" className="act" onClick={begin} disabled={busy}>
          {label}
        </button>
        {choose("Who", people, person, setPerson)}
        {choose("Where", places, place, setPlace)}
      </div>
      {problem !== null && (
        <p role="alert" className="mt-2 font-semibold text-brick">
          {problem}
        </p>
      )}
    </div>
  );
}
