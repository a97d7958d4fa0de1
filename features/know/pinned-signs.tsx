"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { SIGNS } from "@/core/know";
import type { PinnedSign } from "@/core/ladder";
import { send } from "@/ui/form";
import { SignPicker } from "../signs/sign-picker";

/** The signs a horse is watched for: each has a pad of its own in the recorder, whatever it works on. */
export function PinnedSigns({ horseId, pinned, own }: { horseId: string; pinned: readonly PinnedSign[]; own: readonly PinnedSign[] }) {
  const router = useRouter();
  const [signs, setSigns] = useState(pinned);
  const [message, setMessage] = useState<string | null>(null);
  const save = async (next: readonly PinnedSign[]) => {
    setSigns(next);
    // A word of one's own is the yard's from then on.
    for (const sign of next)
      if (!SIGNS[sign.class].includes(sign.name) && !own.some((one) => one.class === sign.class && one.name === sign.name))
        await send("POST", "/api/signs", sign);
    const sent = await send("PUT", `/api/horses/${horseId}/signs`, { signs: next });
    setMessage(sent.ok ? "Saved." : sent.message);
    if (sent.ok) router.refresh();
  };
  return (
    <section className="mt-9 max-w-2xl">
      <h2 className="mb-1 text-xl">In sight while this horse works</h2>
      <p className="mb-2 text-soft">
        Eight at most. Each stands in the row above the pads and is one tap; a word of your own is kept for the whole yard.
      </p>
      <SignPicker chosen={signs} own={own} onChange={(next) => void save(next)} />
      {own.length > 0 && (
        <details className="mt-3">
          <summary className="font-semibold">The yard's own words</summary>
          <ul className="mt-1 flex flex-wrap gap-1.5">
            {own.map((sign) => (
              <li key={`${sign.class} ${sign.name}`}>
                <button
                  type="button"
                  className="min-h-10 rounded border-2 border-ink bg-paper px-2 text-sm"
                  aria-label={`Take ${sign.name} off the yard's list`}
                  onClick={() => void send("DELETE", "/api/signs", sign).then(() => router.refresh())}
                >
                  {sign.name} ×
                </button>
              </li>
            ))}
          </ul>
          <p className="text-sm text-soft">What was logged under a word stays.</p>
        </details>
      )}
      <p role="status" className="mt-1 text-sm">
        {message}
      </p>
    </section>
  );
}
