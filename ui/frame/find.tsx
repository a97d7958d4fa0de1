"use client";

import { Search } from "lucide-react";
import dynamic from "next/dynamic";
import { useEffect, useState } from "react";

const FindBox = dynamic(() => import("./find-box"), { ssr: false });

const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

/** Opens the command box by the button, by “/” or by Ctrl and K; “h” opens it too, to change the horse in hand. */
export function Find({ horseId }: { horseId: string | null }) {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const command = event.key.toLowerCase() === "k" && (event.metaKey || event.ctrlKey);
      const bare = (event.key === "/" || event.key === "h") && !event.metaKey && !event.ctrlKey && !event.altKey && !typing(event.target);
      if (!command && !bare) return;
      event.preventDefault();
      setOpen(true);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  return (
    <>
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="flex min-h-10 items-center gap-2 rounded border-2 border-ink px-3 hover:bg-paper"
        aria-keyshortcuts="/ Control+K"
      >
        <Search size={16} aria-hidden="true" />
        <span>Find</span>
      </button>
      {open && <FindBox horseId={horseId} onClose={() => setOpen(false)} />}
    </>
  );
}
