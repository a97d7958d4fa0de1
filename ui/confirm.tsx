"use client";

import { AlertDialog } from "radix-ui";

/** Asks before something is deleted for good; everything else can be undone instead. */
export function Confirm({
  trigger,
  triggerClass,
  title,
  description,
  act,
  onConfirm,
}: {
  trigger: string;
  triggerClass: string;
  title: string;
  description: string;
  act: string;
  onConfirm: () => void;
}) {
  return (
    <AlertDialog.Root>
      <AlertDialog.Trigger className={triggerClass}>{trigger}</AlertDialog.Trigger>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-ink/45" />
        <AlertDialog.Content className="fixed top-1/2 left-1/2 z-50 w-[min(28rem,calc(100vw-2rem))] -translate-x-1/2 -translate-y-1/2 rounded-xl border-2 border-ink bg-ground p-6">
          <AlertDialog.Title className="text-2xl">{title}</AlertDialog.Title>
          <AlertDialog.Description className="mt-2">{description}</AlertDialog.Description>
          <div className="mt-5 flex gap-3">
            <AlertDialog.Cancel className="act-quiet">Keep it</AlertDialog.Cancel>
            <AlertDialog.Action className="act" onClick={onConfirm}>
              {act}
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
