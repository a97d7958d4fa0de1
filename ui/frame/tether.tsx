"use client";

import Link from "next/link";
import { usePathname } from "next/navigation";
import { KNOTS } from "./knots";

/** A stretch of line in a box 100 wide and 24 high: slack it sags, taut it runs straight at the height of the knots. */
function Stretch({ taut, side }: { taut: boolean; side: "left" | "right" }) {
  const sag = taut ? 9 : 17;
  const d = side === "left" ? `M0 ${sag} C 40 ${sag}, 70 9, 100 9` : `M0 9 C 30 9, 60 ${sag}, 100 ${sag}`;
  return (
    <svg
      viewBox="0 0 100 24"
      preserveAspectRatio="none"
      className={`absolute top-0 h-6 w-1/2 ${side === "left" ? "left-0" : "right-0"}`}
      aria-hidden="true"
    >
      <path d={d} fill="none" stroke="var(--ink)" strokeWidth="2" vectorEffect="non-scaling-stroke" />
    </svg>
  );
}

/** A plain ring, or on the present room a hitch: one turn of the line round itself. */
function Knot({ here }: { here: boolean }) {
  if (!here) {
    return (
      <svg viewBox="0 0 16 16" className="absolute top-[1px] left-1/2 size-4 -translate-x-1/2" aria-hidden="true">
        <circle cx="8" cy="8" r="4.6" fill="var(--ground)" stroke="var(--ink)" strokeWidth="2" />
      </svg>
    );
  }
  return (
    <svg viewBox="0 0 44 26" className="absolute -top-[4px] left-1/2 h-[26px] w-11 -translate-x-1/2" aria-hidden="true">
      <path
        d="M2 13 H15 C22 13 27 3 22 3 C16 3 16 23 22 23 C28 23 30 13 27 9 M22 13 H42"
        fill="none"
        stroke="var(--ground)"
        strokeWidth="7"
        strokeLinecap="round"
      />
      <path
        d="M2 13 H15 C22 13 27 3 22 3 C16 3 16 23 22 23 C28 23 30 13 27 9 M23 13 H42"
        fill="none"
        stroke="var(--tarn)"
        strokeWidth="3"
        strokeLinecap="round"
      />
    </svg>
  );
}

/** The navigation: the work runs along a line with five knots, slack between them, taut at the one you are on. */
export function Tether({ horseId }: { horseId: string }) {
  const path = usePathname();
  const at = KNOTS.findIndex(({ key }) => path.startsWith(`/horses/${horseId}/${key}`));
  return (
    <nav
      aria-label="Rooms"
      className="fixed inset-x-0 bottom-0 z-20 border-t border-hair bg-ground pt-2 pb-[max(0.4rem,env(safe-area-inset-bottom))] md:static md:border-0 md:bg-transparent md:p-0"
    >
      <ul className="grid grid-cols-5">
        {KNOTS.map(({ key, label, hint }, i) => {
          const here = i === at;
          return (
            <li key={key}>
              <Link
                href={`/horses/${horseId}/${key}`}
                aria-current={here ? "page" : undefined}
                title={hint}
                className="group relative block pt-7 pb-1 text-center"
              >
                <Stretch side="left" taut={here || i - 1 === at} />
                <Stretch side="right" taut={here || i + 1 === at} />
                <Knot here={here} />
                <span className={here ? "font-head font-bold text-tarn" : "group-hover:underline"}>{label}</span>
              </Link>
            </li>
          );
        })}
      </ul>
    </nav>
  );
}
