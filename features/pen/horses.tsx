"use client";

import { useEffect, useState, useSyncExternalStore } from "react";
import { WayLink } from "@/ui/way";
import { installedState, onInstalled } from "../device/install";
import { keptHorses } from "./keep";
import type { KeptYard } from "./opened";

/** Every horse of the yard, and which of them this device can work with no server. */
export function PenHorses({ kept: yard }: { kept: KeptYard }) {
  // Plans alone open nothing: the browser must keep the pages too.
  const installed = useSyncExternalStore(onInstalled, installedState, () => "not looked" as const);
  const kept = installed === "ready" || installed === "newer waits";
  const [here, setHere] = useState<ReadonlySet<string> | null>(null);
  useEffect(() => {
    let gone = false;
    const look = () =>
      keptHorses(yard.store).then(
        (list) => !gone && setHere(new Set(list.keys())),
        () => !gone && setHere(new Set()),
      );
    void look();
    // The others come one after another while the page is open.
    const timer = setInterval(() => void look(), 2000);
    return () => {
      gone = true;
      clearInterval(timer);
    };
  }, [yard.store]);
  const { horses } = yard.yard;
  const working = horses.filter(({ away }) => away === null);
  return (
    <>
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <h1 className="text-[2rem]">Which horse</h1>
        <a href="/join" className="link">
          Join a session
        </a>
      </div>
      {working.length === 0 && <p className="mt-3 text-lg">No horse is in work. Add one on the computer.</p>}
      {kept && here !== null && working.length > 0 && working.every(({ id }) => here.has(id)) && (
        <p className="mt-1 text-soft">All of them are on this device, for work with no network.</p>
      )}
      <ul className="mt-3 border-b-2 border-hair">
        {working.map(({ id, name, apart, sample }) => (
          <li key={id} className="border-t-2 border-hair">
            <WayLink href={`/horses/${id}/work`} className="flex min-h-16 flex-wrap items-center justify-between gap-x-4 py-2">
              <span className="font-head text-2xl font-bold">
                {name}
                {(apart !== "" || sample) && (
                  <span className="ml-2 font-sans text-base font-normal text-soft">
                    {[apart, sample ? "sample" : ""].filter((part) => part !== "").join(" · ")}
                  </span>
                )}
              </span>
              {here !== null && !here.has(id) && <span className="text-sm text-soft">not on this device yet</span>}
            </WayLink>
          </li>
        ))}
      </ul>
    </>
  );
}
