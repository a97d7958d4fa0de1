"use client";

import { CircleHelp } from "lucide-react";
import { Popover } from "radix-ui";
import type { ReactNode } from "react";

/** A number's own explanation: what it counts, over what, and from which source. */
export function How({ of, children }: { of: string; children: ReactNode }) {
  return (
    <Popover.Root>
      <Popover.Trigger
        className="grid size-6 shrink-0 place-items-center rounded-full text-soft hover:text-ink"
        aria-label={`How ${of} is computed`}
      >
        <CircleHelp size={15} aria-hidden="true" />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={6}
          collisionPadding={12}
          className="z-40 max-w-80 rounded border-2 border-ink bg-paper p-4 text-[0.95rem] leading-snug"
          aria-label={`How ${of} is computed`}
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
