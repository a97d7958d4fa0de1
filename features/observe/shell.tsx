"use client";

import { Flag, Undo2 } from "lucide-react";
import { type ReactNode, useEffect, useState } from "react";
import { WENT_ON, workSeconds } from "@/core/record";
import { clockWords } from "@/ui/measure";
import { Pad } from "@/ui/pad";
import { WayLink } from "@/ui/way";
import { BinnedNote } from "../device/binned-note";
import { StatusLine } from "../device/status-line";
import { useSilent } from "../device/use-silent";
import type { Watch, WatchStart } from "./use-watch";

/** Pads that stand in the head line. */
const SMALL = "min-h-12! w-auto! shrink-0 px-2.5! text-base!";

function Clock({ watch }: { watch: Watch }) {
  const [, tick] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => tick((n) => n + 1), 1000);
    return () => clearInterval(timer);
  }, []);
  return (
    <span className="figures font-head text-2xl leading-none font-bold" suppressHydrationWarning>
      {clockWords(workSeconds(watch.record, watch.session.nowMs()))}
    </span>
  );
}

/** What stands round a session of watching: the horse, the clock, undo and finish, where the taps are. */
export function WatchShell({
  start,
  watch,
  title,
  after,
  intro,
  children,
}: {
  start: WatchStart;
  watch: Watch;
  title: string;
  /** Where finishing leads. */
  after: string;
  /** Shown before it begins; holds the button that begins. */
  intro: ReactNode;
  children: ReactNode;
}) {
  const { record, working, hint, busy } = watch;
  const { lastTapId } = record;
  const silent = useSilent(watch.session);
  if (!watch.session.ready) return <main className="p-6 text-soft">Reading what this device has kept.</main>;
  return (
    <main className="mx-auto flex min-h-dvh max-w-[430px] flex-col gap-3 px-3 pt-2.5 pb-2 lying:max-w-none lying:gap-1.5 lg:max-w-[1080px] lg:px-7 lg:pt-6">
      <header className="flex items-center gap-2">
        <h1 className="min-w-0 grow truncate text-xl lg:text-2xl">
          <WayLink href={`/horses/${start.session.horse.id}/know`} className="hover:underline">
            {start.session.horse.name}
          </WayLink>
          <span className="ml-2 font-sans text-base font-normal text-soft">{title}</span>
        </h1>
        <Clock watch={watch} />
        {/* Up here they are in sight whatever is watched, and no board pushes them off a small screen. */}
        {working && (
          <>
            <Pad label="undo" tone="quiet" icon={<Undo2 size={18} aria-hidden="true" />} onPress={watch.undo} className={SMALL} />
            <Pad
              label="finish"
              icon={<Flag size={18} aria-hidden="true" />}
              onPress={() => void watch.finish(after)}
              disabled={busy}
              className={SMALL}
            />
          </>
        )}
      </header>
      {record.finishMs !== null ? (
        <div className="rounded-lg border-2 border-ink p-5">
          <h2 className="text-2xl">Finished</h2>
          <WayLink href={after} className="act mt-4 w-full">
            See what it came to
          </WayLink>
        </div>
      ) : working ? (
        children
      ) : (
        <div className="grid gap-4 rounded-lg border-2 border-ink p-4">
          {start.today.cautions.map((caution) => (
            <p key={caution} className="font-semibold text-brick">
              {caution}
            </p>
          ))}
          {intro}
        </div>
      )}
      <BinnedNote sessionId={start.session.id} binned={watch.session.binned} />
      {hint !== null && (
        <p role="alert" className="text-sm font-semibold text-ochre">
          {hint}
        </p>
      )}
      {silent && lastTapId !== null && (
        <p className="flex flex-wrap items-center justify-between gap-2 border-l-4 border-ochre pl-3 text-sm">
          Nothing tapped for more than {start.yard.settings.silenceMinutes} minutes: counted as a pause.
          <button
            type="button"
            className="act-quiet min-h-11"
            onClick={() =>
              watch.press(
                { type: "correct", payload: { event: lastTapId, payload: { [WENT_ON]: true }, reason: "we went on" } },
                // A tap of now: a silence after it is heard anew.
                { type: "break.end", payload: { reason: "we went on" } },
              )
            }
          >
            We went on
          </button>
        </p>
      )}
      <div className="mt-auto flex justify-center">
        <StatusLine storeId={start.session.storeId} tapped={watch.session.tapped} />
      </div>
    </main>
  );
}
