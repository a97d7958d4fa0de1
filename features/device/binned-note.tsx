"use client";

import { useState } from "react";
import { send } from "@/ui/form";

/** Said in a recorder whose session was put in the bin meanwhile, with the way out. Nothing where it was not. */
export function BinnedNote({ sessionId, binned }: { sessionId: string; binned: boolean }) {
  const [problem, setProblem] = useState<string | null>(null);
  if (!binned) return null;
  const takeOut = async () => {
    const sent = await send("POST", "/api/bin", { kind: "session", id: sessionId, back: true });
    setProblem(sent.ok ? null : sent.message);
  };
  return (
    <p role="alert" className="border-l-4 border-brick pl-3 text-sm leading-snug" data-testid="binned">
      <strong className="text-brick">This session lies in the bin.</strong> What you tap is kept, and counts nowhere until it is taken out.{" "}
      <button type="button" className="link min-h-11" onClick={() => void takeOut()}>
        Take it out
      </button>
      {problem !== null && <span className="block font-semibold text-brick">{problem}</span>}
    </p>
  );
}
