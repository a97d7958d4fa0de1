import Link from "next/link";
import type { ReactNode } from "react";
import type { Theme } from "../theme/theme";
import { ThemeSwitch } from "../theme/theme-switch";
import { Find } from "./find";
import { Mark } from "./mark";
import { Tether } from "./tether";
import { TourStrip } from "./tour";

/** What stands round every room but the recorder: the horse in hand, the tether, the yard. */
export function Frame({
  horse,
  theme,
  children,
}: {
  /** `apart` tells it from a horse of the same name. */
  horse: { id: string; name: string; apart: string; sample: boolean } | null;
  theme: Theme | null;
  children: ReactNode;
}) {
  return (
    <div className="mx-auto flex min-h-dvh max-w-[1240px] flex-col px-4 pb-24 md:px-7 md:pb-8">
      <a href="#main" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-paper focus:p-3">
        To the work
      </a>
      <header className="grid grid-cols-[1fr_auto] items-center gap-x-6 pt-3 md:grid-cols-[minmax(9rem,1fr)_minmax(0,44rem)_minmax(9rem,1fr)] md:pt-5">
        {horse === null ? (
          <Link href="/" className="flex items-center gap-2.5 font-head text-xl font-bold">
            <Mark className="h-6 w-10" /> Deft Tether
          </Link>
        ) : (
          <div className="min-w-0 leading-tight">
            <p className="text-sm text-soft">
              in hand{horse.apart === "" ? "" : ` · ${horse.apart}`}
              {horse.sample ? " · sample" : ""}
            </p>
            <Link href={`/horses/${horse.id}/know`} className="block truncate font-head text-[1.35rem] font-bold">
              {horse.name}
            </Link>
          </div>
        )}
        <div className="max-md:contents md:min-h-14">{horse !== null && <Tether horseId={horse.id} />}</div>
        <div className="flex items-center justify-end gap-1.5 max-md:row-start-1 max-md:col-start-2">
          {horse !== null && (
            <Link href="/" className="rounded px-2 py-2 hover:underline">
              Yard
            </Link>
          )}
          <ThemeSwitch pinned={theme} />
          <Find horseId={horse?.id ?? null} />
        </div>
      </header>
      <TourStrip />
      <main id="main" className="grow pt-6 md:pt-7">
        {children}
      </main>
    </div>
  );
}
