"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { dayWords } from "@/core/day";
import { AWAY_KINDS } from "@/core/schemas";
import { Choice, Problem, send, TextBox } from "@/ui/form";

/** Puts the horse out of work for a while, or brings it back. */
export function Away({
  horseId,
  name,
  away,
  today,
}: {
  horseId: string;
  name: string;
  away: { kind: string; since: string | null; note: string } | null;
  today: string;
}) {
  const router = useRouter();
  const [kind, setKind] = useState<string>(AWAY_KINDS[0]);
  const [since, setSince] = useState(today);
  const [note, setNote] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const done = (sent: { ok: boolean; message?: string }) => {
    setProblem(sent.ok ? null : (sent.message ?? null));
    if (sent.ok) router.refresh();
  };
  return (
    <section className="mt-10 border-t-2 border-hair pt-5">
      <h2 className="text-xl">In work, or put away</h2>
      {away === null ? (
        <>
          <p className="mt-1 max-w-prose text-soft">
            A horse that is turned out to grow, resting or sold leaves the yard's list; its history stays.
          </p>
          <div className="mt-3 flex flex-wrap items-end gap-3">
            <Choice label="Why" value={kind} options={AWAY_KINDS} onChosen={setKind} />
            <TextBox label="Since" type="date" width="figures" value={since} onTyped={setSince} />
            <TextBox className="min-w-48 grow" label="Note" value={note} maxLength={500} onTyped={setNote} />
            <button
              type="button"
              className="act-quiet"
              onClick={async () =>
                done(await send("PUT", `/api/horses/${horseId}/away`, { kind, since: since === "" ? null : since, note }))
              }
            >
              Put {name} away
            </button>
          </div>
        </>
      ) : (
        <div className="mt-2 flex flex-wrap items-center gap-4">
          <p>
            <strong>{away.kind}</strong>
            {away.since !== null && ` since ${dayWords(away.since)}`}
            {away.note !== "" && `. ${away.note}`}
          </p>
          <button type="button" className="act" onClick={async () => done(await send("DELETE", `/api/horses/${horseId}/away`))}>
            Bring {name} back
          </button>
        </div>
      )}
      <Problem className="mt-2">{problem}</Problem>
    </section>
  );
}
