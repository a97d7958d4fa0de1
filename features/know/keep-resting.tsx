"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { send } from "@/ui/form";

/** Keeps what was counted at rest as the horse's own resting rates. */
export function KeepResting({
  horseId,
  breaths,
  heart,
  kept,
}: {
  horseId: string;
  breaths: number | null;
  heart: number | null;
  kept: { readonly breaths: number | null; readonly heart: number | null };
}) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const round = (rate: number | null) => (rate === null ? null : Math.round(rate * 10) / 10);
  const next = { breaths: round(breaths) ?? kept.breaths, heart: round(heart) ?? kept.heart };
  if (next.breaths === kept.breaths && next.heart === kept.heart) return null;
  const keep = async () => {
    const sent = await send("PUT", `/api/horses/${horseId}/resting`, {
      resting_breaths_per_min: next.breaths,
      resting_heart_per_min: next.heart,
    });
    setProblem(sent.ok ? null : sent.message);
    if (sent.ok) router.refresh();
  };
  return (
    <div className="no-print mt-3">
      <button type="button" className="act-quiet" onClick={keep}>
        Keep as resting rates
      </button>
      {problem !== null && (
        <p role="alert" className="mt-1 font-semibold text-brick">
          {problem}
        </p>
      )}
    </div>
  );
}
