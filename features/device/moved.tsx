"use client";

import { useEffect, useState } from "react";
import { RefusedTaps } from "./refused-taps";
import { senderFor } from "./sender";

/**
 * A browser keeps taps by the name in the address: two names are two queues.
 * What was tapped under this one is sent first, then the page goes to the one
 * address the program prints.
 */
export function Moved({ storeId, to }: { storeId: string; to: string }) {
  const [left, setLeft] = useState<number | null>(null);
  const [refused, setRefused] = useState(false);
  useEffect(() => {
    let gone = false;
    const sender = senderFor(storeId);
    const go = async () => {
      while (!gone && !(await sender.flush(3000))) {
        const { waiting, unkept } = sender.snapshot();
        setLeft((waiting?.size ?? 0) + unkept.size);
      }
      if (gone) return;
      setLeft(null);
      // What was refused can be tried again or saved as a file, but only under this name.
      if (sender.snapshot().refused.size === 0) window.location.replace(to);
      else setRefused(true);
    };
    void go();
    return () => {
      gone = true;
    };
  }, [storeId, to]);
  return (
    <main className="mx-auto max-w-prose p-6">
      <h1 className="text-[2rem]">One address</h1>
      <p className="mt-3">
        Deft Tether is used under one address, so that taps lie in one place:{" "}
        <a className="link" href={to}>
          {to}
        </a>
      </p>
      <p role="status" className="mt-3 font-semibold">
        {refused
          ? "Some taps made under this name were refused. Try them again or save them here, then open the address above."
          : left === null
            ? "Looking for taps made under this name. Then it goes on by itself."
            : `${left} ${left === 1 ? "tap" : "taps"} made under this name ${left === 1 ? "is" : "are"} not on the server. Keep this page open; it goes on by itself once they are.`}
      </p>
      <RefusedTaps storeId={storeId} />
      <noscript>Scripts are off in this browser: open the address above.</noscript>
    </main>
  );
}
