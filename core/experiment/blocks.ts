import type { MasteryRule } from "../mastery";
import { passedAfter } from "../mastery";
import { bySession, halfTime, type Past, type PastTrial } from "../past";
import type { Arm } from "./orders";
import type { Counted, TriedBlock } from "./try-both";

/** What a block comes to in what is counted; null where it gives nothing. */
function blockValue(
  counts: Counted,
  trials: readonly PastTrial[],
  block: { readonly seconds: number; readonly startMs: number; readonly endMs: number },
  past: Past,
  session: number,
  rule: MasteryRule,
): number | null {
  const { facts } = past.sessions[session] ?? { facts: null };
  switch (counts) {
    case "share":
      return trials.length === 0 ? null : trials.filter(({ outcome }) => outcome === "met").length / trials.length;
    case "latency": {
      const half = halfTime(trials);
      if (half === null) return null;
      return half.seconds ?? Math.max(...trials.flatMap(({ waitedSeconds, latencySeconds }) => waitedSeconds ?? latencySeconds ?? []));
    }
    case "leaving": {
      if (block.seconds <= 0) return null;
      const left = facts?.moments.find(([ms, kind]) => kind === "left" && ms >= block.startMs && ms <= block.endMs);
      return left === undefined ? block.seconds : (left[0] - block.startMs) / 1000;
    }
    case "tension": {
      if (block.seconds <= 0) return null;
      const seen = facts?.moments.filter(
        ([ms, kind]) => (kind === "tension" || kind === "danger") && ms >= block.startMs && ms <= block.endMs,
      );
      return ((seen?.length ?? 0) * 600) / block.seconds;
    }
    case "asks":
      return trials.length === 0
        ? null
        : (passedAfter(
            { ...rule, days: 1 },
            trials.map(({ outcome, clean }) => ({ met: outcome === "met", clean, blockKey: "", wallMs: 0 })),
          ) ?? trials.length);
  }
}

/**
 * The blocks of a past that were worked for an experiment, with what each comes
 * to, in the order they were worked.
 * @param rule the ladder's rule of moving on, for asks to it.
 * @example triedBlocks(past, "t", "asks", { kind: "run", length: 2 }) // 2 of them
 */
export function triedBlocks(past: Past, id: string, counts: Counted, rule: MasteryRule): TriedBlock[] {
  const lists = bySession(past);
  return past.sessions.flatMap((session, i) =>
    session.facts.blocks.flatMap((block, at): TriedBlock[] => {
      if (block.tries?.id !== id) return [];
      const trials = (lists[i] ?? []).filter((trial) => trial.block === at);
      // One that was begun and left without an ask is still due.
      if (trials.length === 0) return [];
      return [
        {
          number: block.tries.n,
          worked: block.tries.arm as Arm,
          value: blockValue(counts, trials, block, past, i, rule),
          session: session.id,
          startedMs: session.startedMs + block.startMs,
          asks: trials.length,
        },
      ];
    }),
  );
}

/**
 * What blocks of earlier work come to, to say how much one differs from the next; those of under three asks aside.
 * @example earlierBlockValues(past, "share", 1, { kind: "run", length: 2 }) // [1]
 */
export function earlierBlockValues(past: Past, counts: Counted, rung: number, rule: MasteryRule): number[] {
  const lists = bySession(past);
  return past.sessions.flatMap((session, i) =>
    session.facts.blocks.flatMap((block, at) => {
      const trials = (lists[i] ?? []).filter((trial) => trial.block === at && trial.rung === rung && trial.kind === "work");
      if (trials.length < 3) return [];
      const value = blockValue(counts, trials, block, past, i, rule);
      return value === null ? [] : [value];
    }),
  );
}
