"use client";

import dynamic from "next/dynamic";
import { useEffect, useMemo, useState } from "react";
import type { UnitSystem } from "@/core/units";
import { Mark } from "@/ui/frame";
import { isUnitSystem, UNITS_COOKIE, UnitsProvider } from "@/ui/units";
import { type Way, WayLink, WayProvider } from "@/ui/way";
import { cookieOf } from "../device/cookie";
import { install } from "../device/install";
import { noAnswerWords } from "../device/own-machine";
import { inPen, type PenPlace, usePenPlace } from "../device/pen-place";
import { senderFor } from "../device/sender";
import { PenHorses } from "./horses";
import { lastHorse } from "./keep";
import { NewerVersion } from "./newer-version";
import { NotHere } from "./not-here";
import type { KeptYard } from "./opened";
import { Reading, ReadingPage } from "./reading";
import { type HeldHorse, type HeldYard, useHeldHorse, useHeldYard } from "./use-held";
import { WhereItIs } from "./where-it-is";

const PenSession = dynamic(() => import("./pen-session").then((m) => m.PenSession), { ssr: false, loading: ReadingPage });
const PenReview = dynamic(() => import("./pen-review").then((m) => m.PenReview), { ssr: false, loading: Reading });
const PenStart = dynamic(() => import("./pen-start").then((m) => m.PenStart), { ssr: false, loading: Reading });
const PenLate = dynamic(() => import("./pen-late").then((m) => m.PenLate), { ssr: false, loading: Reading });
const PenCircle = dynamic(() => import("./pen-circle").then((m) => m.PenCircle), { ssr: false, loading: Reading });
const Taps = dynamic(() => import("../device/refused-taps").then((m) => m.TapsOnDevice), { ssr: false, loading: Reading });

// Asked for before they are shown: the pen is opened to be worked with, and what it needs lies on the device.
if (typeof window !== "undefined") {
  void import("./pen-start");
  void import("./pen-session");
}

/** What stands round the pen's own pages: which horse, the way to the others, what is where. */
function Round({ title, children, kept }: { title: string; children: React.ReactNode; kept: KeptYard | null }) {
  return (
    <div className="mx-auto flex min-h-dvh max-w-[1240px] flex-col px-4 pb-8 md:px-7">
      <header className="flex flex-wrap items-center justify-between gap-x-6 gap-y-1 pt-3">
        <p className="flex items-center gap-2.5 font-head text-xl font-bold">
          <Mark className="h-6 w-10" /> {title}
        </p>
        <p className="flex gap-x-5">
          <WayLink href="/pen?horses=1" className="link">
            Horses
          </WayLink>
          <a href="/" className="link">
            Whole program
          </a>
        </p>
      </header>
      <main id="main" className="grow pt-4">
        {children}
      </main>
      {kept !== null && <WhereItIs kept={kept} />}
    </div>
  );
}

function HorseInPen({ kept, horse, place }: { kept: KeptYard; horse: string; place: PenPlace }) {
  const { search } = usePenPlace();
  const held = useHeldHorse(kept, horse, search);
  return (
    <Refreshing held={held}>
      <HorsePlace kept={kept} held={held} place={place} />
    </Refreshing>
  );
}

/** The way onwards from here on: a refresh reads anew what the device has. */
function Refreshing({ held, children }: { held: HeldHorse; children: React.ReactNode }) {
  const way = usePenWay(held.refresh);
  return <WayProvider value={way}>{children}</WayProvider>;
}

function usePenWay(refresh: () => void): Way {
  const { go } = usePenPlace();
  return useMemo(
    () => ({
      pen: true,
      at: (path) => inPen(path) ?? path,
      push: (path) => {
        const to = inPen(path);
        if (to === null) window.location.assign(path);
        else go(to);
      },
      refresh,
    }),
    [go, refresh],
  );
}

function HorsePlace({ kept, held, place }: { kept: KeptYard; held: HeldHorse; place: PenPlace }) {
  if (!held.looked) return <ReadingPage />;
  if (held.pack === null)
    return (
      <Round title="Pen" kept={kept}>
        <p className="text-lg">This horse is not on this device yet. Open it once while the computer answers.</p>
      </Round>
    );
  const { name, apart } = held.pack.horse;
  const title = apart === "" ? name : `${name} · ${apart}`;
  // The recorder has the whole screen.
  if (place.session !== null) return <PenSession key={place.session} yard={kept} held={held} id={place.session} />;
  return (
    <Round title={title} kept={kept}>
      {place.review !== null ? (
        <>
          <p className="mb-3">
            <WayLink href={`/horses/${held.pack.horse.id}/work`} className="act">
              Begin another
            </WayLink>
          </p>
          <PenReview key={place.review} yard={kept} held={held} id={place.review} />
        </>
      ) : place.late && held.pack.unread !== undefined ? (
        <p className="text-lg">A session is written down on its ladder, which this device cannot read. Do it on the computer.</p>
      ) : place.late ? (
        <PenLate yard={kept} pack={held.pack} nowMs={held.nowMs} />
      ) : place.circle && held.pack.unread !== undefined ? (
        <p className="text-lg">Circle work goes by caps this device cannot read. Plan it on the computer.</p>
      ) : place.circle ? (
        <PenCircle yard={kept} pack={held.pack} nowMs={held.nowMs} />
      ) : (
        <PenStart yard={kept} held={held} pack={held.pack} goOn={place.goOn} />
      )}
    </Round>
  );
}

const nothing = () => undefined;

function Shown({ held, place }: { held: HeldYard; place: PenPlace }) {
  const way = usePenWay(nothing);
  const { kept } = held;
  if (!held.looked) return <ReadingPage />;
  if (kept === null)
    return (
      <Round title="Pen" kept={null}>
        <NotHere problem={held.problem} />
      </Round>
    );
  const horse = place.horse ?? (place.horses || place.taps || place.away !== null ? null : lastHorse());
  const known = horse !== null && kept.yard.horses.some(({ id }) => id === horse);
  if (horse !== null && known) return <HorseInPen key={horse} kept={kept} horse={horse} place={place} />;
  return (
    <WayProvider value={way}>
      <Round title="Pen" kept={kept}>
        {place.away !== null && (
          <p className="mb-4 max-w-prose border-l-4 border-ochre pl-4 text-lg">
            {noAnswerWords()} That page is not kept on this device. What is needed in the pen is here.{" "}
            <a href={place.away} className="link">
              Try again
            </a>
          </p>
        )}
        {place.taps ? <Taps storeId={kept.store} /> : <PenHorses kept={kept} />}
      </Round>
    </WayProvider>
  );
}

/**
 * The pen: everything that is needed at the horse, from what this device
 * keeps. Its page is the same for everybody and holds no data, so that it
 * opens with no server.
 */
export function Pen() {
  const { place } = usePenPlace();
  const [units, setUnits] = useState<UnitSystem>("metric");
  const held = useHeldYard(place.horse ?? null);
  useEffect(() => {
    const chosen = cookieOf(UNITS_COOKIE);
    if (isUnitSystem(chosen)) setUnits(chosen);
    void install();
  }, []);
  const store = held.kept?.store;
  useEffect(() => {
    if (store === undefined) return;
    const sender = senderFor(store);
    sender.kick();
    void sender.prune();
    window.addEventListener("online", sender.reconnect);
    return () => window.removeEventListener("online", sender.reconnect);
  }, [store]);
  return (
    <UnitsProvider units={units}>
      {place.session === null && <NewerVersion />}
      <Shown held={held} place={place} />
    </UnitsProvider>
  );
}
