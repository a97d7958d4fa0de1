"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { send } from "@/ui/form";

/** Puts a ladder away with its evidence, or takes it up again. */
export function PutLadderAway({ ladderId, away }: { ladderId: string; away: boolean }) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const put = async () => {
    const sent = await send("PUT", `/api/ladders/${ladderId}/away`, { away: !away });
    setProblem(sent.ok ? null : sent.message);
    if (sent.ok) router.refresh();
  };
  return (
    <>
      <button type="button" className="link" onClick={() => void put()}>
        {away ? "Take it up again" : "Put it away"}
      </button>
      {problem !== null && (
        <span role="alert" className="font-semibold text-brick">
          {problem}
        </span>
      )}
    </>
  );
}
