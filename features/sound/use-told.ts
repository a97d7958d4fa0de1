"use client";

import { useEffect, useRef } from "react";
import type { Advice } from "@/core/advice";
import type { SessionRecord } from "@/core/record";
import { tell } from "./signals";

/** Tells what changed without being looked at: the word, the block's end, the side, and whether the next one earns it. */
export function useTold(record: SessionRecord, advice: Advice | null, nextEarns: boolean | null, working: boolean): void {
  const before = useRef<{ word: string; side: string; done: boolean; trials: number; blocks: number; gaits: number } | null>(null);
  useEffect(() => {
    const index = record.blocks.length - 1;
    const block = record.blocks[index];
    const inBlock = record.trials.filter(({ blockIndex }) => blockIndex === index).length;
    const gaits = record.facts.filter(({ type }) => type === "gait").length;
    const now = {
      // Start turns into Repeat with the first ask, and back with a new block: nothing new is said.
      word: advice === null ? "" : advice.word === "Start" ? "Repeat" : advice.word,
      side: block?.side ?? "",
      done: working && block?.planned != null && inBlock >= block.planned,
      trials: record.trials.length,
      blocks: record.blocks.length,
      gaits,
    };
    const last = before.current;
    before.current = now;
    // What was there when the page was opened is no news.
    if (last === null || record.finishMs !== null) return;
    if (now.word !== last.word && advice !== null) tell(advice.word);
    else if (now.done && !last.done && now.blocks === last.blocks) tell("block end");
    else if (now.side !== last.side && now.side !== "" && last.side !== "") tell("side");
    else if (now.gaits > last.gaits) tell("gait");
    else if (nextEarns !== null && (now.trials !== last.trials || now.blocks !== last.blocks) && working)
      tell(nextEarns ? "reinforce" : "not this one");
  }, [record, advice, nextEarns, working]);
}
