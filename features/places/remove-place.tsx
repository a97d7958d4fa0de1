"use client";

import { useRouter } from "next/navigation";
import { AlertDialog } from "radix-ui";
import { useState } from "react";
import { send } from "@/ui/form";

/** Removes a place. Sessions that were there keep what was recorded. */
export function RemovePlace({ id, name }: { id: string; name: string }) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const remove = async () => {
    const sent = await send("DELETE", `/api/places/${id}`);
    if (!sent.ok) return setProblem(sent.message);
    router.push("/places");
    router.refresh();
  };
  return (
    <AlertDialog.Root>
      <AlertDialog.Trigger className="link">Remove</AlertDialog.Trigger>
      {problem !== null && <span className="text-brick">{problem}</span>}
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-ink/45" />
        <AlertDialog.Content className="fixed top-1/2 left-1/2 z-50 w-[min(28rem,calc(100vw-2rem))] -translate-x-1/2 -translate-y-1/2 rounded-xl border-2 border-ink bg-ground p-6">
          <AlertDialog.Title className="text-2xl">Remove {name}?</AlertDialog.Title>
          <AlertDialog.Description className="mt-2">
            Its drawing and zones go. Sessions that were there stay, without the place.
          </AlertDialog.Description>
          <div className="mt-5 flex gap-3">
            <AlertDialog.Cancel className="act-quiet">Keep it</AlertDialog.Cancel>
            <AlertDialog.Action className="act" onClick={remove}>
              Remove
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
