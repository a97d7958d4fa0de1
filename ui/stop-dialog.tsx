"use client";

import { Dialog } from "radix-ui";
import type { ReactNode } from "react";

/** The card that a danger sign brings: the whole screen, until it is answered. */
export function StopDialog({ children, words }: { words: string; children: ReactNode }) {
  return (
    <Dialog.Root open>
      <Dialog.Portal>
        <Dialog.Content
          onEscapeKeyDown={(event) => event.preventDefault()}
          onPointerDownOutside={(event) => event.preventDefault()}
          className="fixed inset-0 z-50 overflow-y-auto border-[10px] border-brick bg-ground p-5"
        >
          <div className="mx-auto grid max-w-xl gap-4">
            <Dialog.Title className="text-[3rem] leading-none font-extrabold text-brick">Stop</Dialog.Title>
            <Dialog.Description className="font-head text-2xl leading-snug font-bold">{words}</Dialog.Description>
            {children}
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
