import type { EvidenceTrial } from "../record/evidence-scope";
import type { YardSettings } from "../settings";

/**
 * The trials that count for a horse with one handler: theirs, and those of
 * nobody in particular. Pooled by a setting of the yard, all count.
 * @param handler as trials name them, null where nobody was named: then all count.
 * @example trialsOfPair(trials, "ana", settings)
 */
export function trialsOfPair<One extends Pick<EvidenceTrial, "handler">>(
  trials: readonly One[],
  handler: string | null,
  { poolHandlers }: Pick<YardSettings, "poolHandlers">,
): readonly One[] {
  if (handler === null || poolHandlers === 1) return trials;
  return trials.every((trial) => trial.handler === handler || trial.handler === null)
    ? trials
    : trials.filter((trial) => trial.handler === handler || trial.handler === null);
}

/** Who handled last, of those who were named; null where nobody was. @example lastHandler(trials) // "bo-id" */
export const lastHandler = (trials: readonly Pick<EvidenceTrial, "handler" | "kind">[]): string | null =>
  trials.findLast(({ handler, kind }) => handler !== null && kind === "work")?.handler ?? null;

/** What another person's work on a ladder came to in their last session on it. */
export interface OtherHandler {
  readonly handler: string;
  readonly rung: number;
  readonly met: number;
  readonly of: number;
}

/**
 * What others did on a ladder, each by their last session on it, the newest first. Their trials do not count for this pair.
 * @example othersOf(trials, "p0") // [{ handler: "p1", rung: 2, met: 3, of: 5 }]
 */
export function othersOf(trials: readonly EvidenceTrial[], handler: string | null): OtherHandler[] {
  if (handler === null) return [];
  const others = new Map<string, EvidenceTrial>();
  for (const trial of trials)
    if (trial.handler !== null && trial.handler !== handler && trial.kind === "work") {
      others.delete(trial.handler);
      others.set(trial.handler, trial);
    }
  return [...others].reverse().map(([other, last]) => {
    const own = trials.filter((t) => t.handler === other && t.session === last.session && t.rung === last.rung && t.kind === "work");
    return { handler: other, rung: last.rung, met: own.filter(({ outcome }) => outcome === "met").length, of: own.length };
  });
}
