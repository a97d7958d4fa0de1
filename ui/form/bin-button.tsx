"use client";

import { useRouter } from "next/navigation";
import { AlertDialog } from "radix-ui";
import { useState } from "react";
import { BIN_DAYS, type BinKind } from "@/core/schemas/bin-kinds";
import { send } from "./send";

/** Puts a thing in the bin: what goes with it is said first, and it can be brought back for a month. */
export function BinButton({
  kind,
  id,
  name,
  onwards,
  className = "link",
}: {
  kind: BinKind;
  id: string;
  name: string;
  /** Where it leads then; null stays on the page. */
  onwards: string | null;
  className?: string;
}) {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [along, setAlong] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const ask = async () => {
    setOpen(true);
    setProblem(null);
    setAlong(null);
    const sent = await send<{ words: string }>("GET", `/api/bin/what?kind=${kind}&id=${encodeURIComponent(id)}`);
    if (sent.ok) setAlong(sent.value.words);
    else setProblem(sent.message);
  };
  const put = async () => {
    const sent = await send("POST", "/api/bin", { kind, id });
    if (!sent.ok) return setProblem(sent.message);
    setOpen(false);
    if (onwards !== null) router.push(onwards);
    router.refresh();
  };
  return (
    <AlertDialog.Root open={open} onOpenChange={setOpen}>
      <button type="button" className={className} onClick={() => void ask()} aria-label={`Put ${name} in the bin`}>
        Put in the bin
      </button>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-ink/45" />
        <AlertDialog.Content className="fixed top-1/2 left-1/2 z-50 w-[min(28rem,calc(100vw-2rem))] -translate-x-1/2 -translate-y-1/2 rounded-xl border-2 border-ink bg-ground p-6">
          <AlertDialog.Title className="text-2xl">Put {name} in the bin?</AlertDialog.Title>
          <AlertDialog.Description className="mt-2">
            {along === null && problem === null ? "A moment." : along} It can be brought back for {BIN_DAYS} days.
          </AlertDialog.Description>
          {problem !== null && (
            <p role="alert" className="mt-2 font-semibold text-brick">
              {problem}
            </p>
          )}
          <div className="mt-5 flex gap-3">
            <AlertDialog.Cancel className="act-quiet">Keep it</AlertDialog.Cancel>
            <button type="button" className="act" disabled={along === null} onClick={() => void put()}>
              Put in the bin
            </button>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
