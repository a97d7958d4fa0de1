import type { NextStart } from "../advice";
import { dueTry, tryingWords } from "../experiment/due";
import { criterionOf } from "../ladder";
import type { HorsePack, YardFacts } from "../pack";
import { doNextOf, kitUseOf, type Today, todayOf } from "../today";
import type { KitUse } from "../welfare";

/** What the start page offers of a horse. */
export interface StartChoices {
  readonly ladders: readonly {
    readonly id: string;
    readonly name: string;
    readonly next: NextStart;
    readonly criterion: string;
    readonly kitUse: KitUse;
    /** That two ways are tried on it and which block is next; null where none are. */
    readonly trying: string | null;
  }[];
  readonly limits: readonly string[];
  readonly doNext: { readonly text: string; readonly dayMs: number } | null;
  /** Why there is to be no work at all today, or null. */
  readonly noWork: string | null;
}

/** What is tried on a ladder, in words, or null. */
function tryingOf({ tries }: HorsePack, ladder: string): string | null {
  const due = tries.flatMap((one) => (one.ladder === ladder ? (dueTry(one, { blocks: [], trials: [] }) ?? []) : []))[0];
  return due === undefined ? null : tryingWords(due);
}

/** What may be begun with a horse at a moment. @example startChoices(pack, { … }) // { noWork: null, … } */
export function startChoices(pack: HorsePack, { states, leaves, allowance, cautions }: Today): StartChoices {
  return {
    ladders: states.map(({ ladder, next }) => ({
      id: ladder.id,
      name: ladder.behaviour.name,
      next,
      criterion: criterionOf(ladder.plan, next.rung).sentence,
      kitUse: kitUseOf(ladder, next.rung, leaves, allowance),
      trying: tryingOf(pack, ladder.id),
    })),
    limits: cautions,
    doNext: doNextOf(pack, null),
    noWork: allowance.noWork?.why ?? null,
  };
}

/** What may be begun, by who handles. */
export interface HandlerChoices {
  /** As trials name them; empty for somebody who has no trials with this horse. */
  readonly handler: string;
  readonly choices: StartChoices;
}

/** Of more people than this the others are taken as new to the horse. */
const MOST_HANDLERS = 6;

/**
 * What may be begun with a horse, by who handles it: evidence is a pair's. One
 * answer alone where the yard pools it or nobody was ever named.
 * @example startChoicesByHandler(pack, yard, nowMs).at(-1)?.handler // null
 */
export function startChoicesByHandler(pack: HorsePack, yard: YardFacts, nowMs: number): HandlerChoices[] {
  const byLast = new Map<string, number>();
  if (yard.settings.poolHandlers !== 1)
    for (const { trials } of pack.ladders)
      for (const { handler, wallMs } of trials) if (handler !== null) byLast.set(handler, Math.max(wallMs, byLast.get(handler) ?? 0));
  const handlers = [...byLast].sort((a, b) => b[1] - a[1]).slice(0, MOST_HANDLERS);
  const of = (handler: string | null) => startChoices(pack, todayOf(pack, yard, nowMs, handler));
  if (handlers.length === 0) return [{ handler: "", choices: of(null) }];
  return [...handlers.map(([handler]) => ({ handler, choices: of(handler) })), { handler: "", choices: of("") }];
}
