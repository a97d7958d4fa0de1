"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { BIN_DAYS } from "@/core/schemas/bin-kinds";
import { Day } from "@/ui/day";
import { send } from "@/ui/form";
import { LOGGED_WORDS, logApart } from "../device/log-apart";

/** One line of the bin. */
export interface BinLine {
  readonly kind: string;
  readonly id: string;
  readonly name: string;
  /** Of a session when it was made, instead of a name. */
  readonly madeMs: number | null;
  readonly of: string;
  readonly binnedMs: number;
  readonly goneMs: number;
  readonly along: string;
  /** Of a note: the session it was struck from. */
  readonly sessionId: string | null;
}

/** What was put in the bin and can be brought back, newest first. */
export function BinRoom({ storeId, lines }: { storeId: string; lines: readonly BinLine[] }) {
  const router = useRouter();
  const [message, setMessage] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const back = async ({ kind, id, sessionId }: BinLine) => {
    setBusy(true);
    if (sessionId === null) {
      const sent = await send("POST", "/api/bin", { kind, id, back: true });
      setMessage(sent.ok ? "It is back." : sent.message);
    } else {
      // A note was struck by a correction, and a correction brings it back: its session keeps both.
      const logged = await logApart(storeId, sessionId, [
        { type: "correct", payload: { event: id, strike: false, reason: "brought back" } },
      ]);
      setMessage(logged === "sent" ? "It is back." : LOGGED_WORDS[logged]);
    }
    setBusy(false);
    router.refresh();
  };
  return (
    <>
      <h1 className="text-[2rem]">Bin</h1>
      <p className="mt-1 max-w-prose text-soft">
        What lies here counts nowhere. It can be brought back for {BIN_DAYS} days, with what went along; after that it is gone.{" "}
        <code>npm run -s purge</code> empties the bin at once.
      </p>
      <p role="status" className="mt-2 font-semibold">
        {message}
      </p>
      {lines.length === 0 ? (
        <p className="mt-4 text-lg">The bin is empty.</p>
      ) : (
        <ul className="mt-4 border-b-2 border-hair">
          {lines.map((line) => (
            <li
              key={`${line.kind}-${line.id}`}
              className="flex flex-wrap items-center justify-between gap-x-6 gap-y-1 border-t-2 border-hair py-3"
            >
              <div className="min-w-0">
                <p>
                  <strong className="font-head text-lg">{line.madeMs === null ? line.name : <Day ms={line.madeMs} time />}</strong>{" "}
                  <span className="text-soft">{[line.kind, line.of].filter((part) => part !== "").join(", ")}</span>
                </p>
                <p className="figures text-sm text-soft">
                  {line.along} Put here <Day ms={line.binnedMs} />, gone <Day ms={line.goneMs} />.
                </p>
              </div>
              <button type="button" className="act-quiet" disabled={busy} onClick={() => void back(line)}>
                Bring back
              </button>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
