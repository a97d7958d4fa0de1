"use client";

import { useEffect, useState } from "react";

const KEY = "deft-comparisons";
/** More comparisons than this in one sitting are said. */
const MANY = 5;
const SITTING_MS = 3_600_000;

/** Whoever looks at enough comparisons finds one: says so from the sixth on in one sitting. */
export function ComparisonsOpened({ of, horseId }: { of: string; horseId: string }) {
  const [opened, setOpened] = useState(0);
  useEffect(() => {
    try {
      const kept = JSON.parse(sessionStorage.getItem(KEY) ?? "null") as { horse: string; at: number; list: string[] } | null;
      const same = kept !== null && kept.horse === horseId && Date.now() - kept.at < SITTING_MS;
      const list = [...new Set([...(same ? kept.list : []), of])];
      sessionStorage.setItem(KEY, JSON.stringify({ horse: horseId, at: Date.now(), list }));
      setOpened(list.length);
    } catch {
      // A browser that keeps nothing counts nothing.
      setOpened(1);
    }
  }, [of, horseId]);
  return opened > MANY ? (
    <p role="status" className="mt-4 border-l-4 border-ochre pl-4">
      You have opened {opened} comparisons. Of a hundred with nothing behind them about one is called; of so many looked at, take what is
      called for a question to try, not for an answer.
    </p>
  ) : null;
}
