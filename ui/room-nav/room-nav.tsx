"use client";

import Link from "next/link";
import { useEffect, useRef } from "react";

/** Leads between the parts of a room. Where they do not fit beside each other they are swiped, and begin at the one that is open. */
export function RoomNav({
  name,
  base,
  parts,
  here,
}: {
  name: string;
  /** Address of the room; its parts lie under it. */
  base: string;
  parts: readonly { readonly key: string; readonly label: string }[];
  here: string;
}) {
  const nav = useRef<HTMLElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the open part is found by its mark, which changes with it
  useEffect(() => {
    const open = nav.current?.querySelector("[aria-current]")?.getBoundingClientRect();
    const all = nav.current?.getBoundingClientRect();
    if (open !== undefined && all !== undefined) nav.current?.scrollBy({ left: open.left + open.width / 2 - all.left - all.width / 2 });
  }, [here]);
  return (
    <nav ref={nav} aria-label={name} className="no-print -mx-1 mb-5 overflow-x-auto">
      <ul className="flex gap-x-1 text-[0.95rem]">
        {parts.map(({ key, label }) => (
          <li key={key} className="shrink-0">
            <Link
              href={`${base}${key === "" ? "" : `/${key}`}`}
              aria-current={key === here ? "page" : undefined}
              className={`block rounded px-2.5 py-1.5 ${key === here ? "bg-ink font-semibold text-on-ink" : "hover:underline"}`}
            >
              {label}
            </Link>
          </li>
        ))}
      </ul>
    </nav>
  );
}
