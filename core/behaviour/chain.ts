import { progressOf, valuesGoalOf, whereItStands } from "../advice";
import { toldShare } from "../compare";
import { FEWEST_TRIALS_TO_TELL, shareOfTrials } from "../evidence";
import { asksBothSides, type LadderPlan } from "../ladder";
import { type EvidenceTrial, evidenceForRung } from "../record/evidence-scope";
import { DEFAULT_SETTINGS } from "../settings";
import { MILLISECONDS_PER_DAY } from "../units";

export const CHAIN_DIRECTIONS = ["forward", "backward"] as const;
/** Forward: from the first link on. Backward: the last link first, so that every run ends on what is known. */
export type ChainDirection = (typeof CHAIN_DIRECTIONS)[number];

/** One link: a behaviour's ladder and the rung it has to hold in the chain. */
export interface ChainLink {
  readonly ladder: string;
  /** Counted from 1. */
  readonly rung: number;
}

/** A link with what is known of it. */
export interface LinkKnown {
  readonly name: string;
  readonly plan: LadderPlan;
  readonly version: number;
  /** Trials of the link's ladder, oldest first, as the present version counts them. */
  readonly trials: readonly EvidenceTrial[];
}

export interface LinkState {
  readonly met: number;
  readonly of: number;
  readonly share: number | null;
  readonly interval: readonly [number, number] | null;
  /** The share in words, with what it supports. */
  readonly sentence: string;
  /** Whether its ladder's rule is passed on its rung. */
  readonly holds: boolean;
}

export interface ChainState {
  readonly links: readonly LinkState[];
  /** Places, counted from 0, of the link to work next and of the weakest; null where all hold or none has trials enough. */
  readonly next: number | null;
  readonly weakest: number | null;
  /** Chance that all links hold one after another, if they do not lean on each other; null where one has no trials. */
  readonly wholeChance: number | null;
  readonly sentence: string;
}

/** The trials on each side a rung asks for, or all of them together: a rule must hold on each. */
const sidesOf = (plan: LadderPlan, rung: number, evidence: readonly EvidenceTrial[]) =>
  asksBothSides(plan, rung) ? (["L", "R"] as const).map((side) => evidence.filter((trial) => trial.side === side)) : [evidence];

/** The rung a ladder stands on by the one judge of that, or null where nothing of it counts any more. */
function standsOn(
  plan: LadderPlan,
  ladder: string,
  version: number,
  trials: readonly EvidenceTrial[],
  { nowWallMs, maxAgeDays }: { readonly nowWallMs: number; readonly maxAgeDays: number },
): number | null {
  const oldest = nowWallMs - maxAgeDays * MILLISECONDS_PER_DAY;
  const worked = trials.filter(
    (trial) =>
      trial.ladder === ladder &&
      trial.version === version &&
      trial.kind === "work" &&
      trial.wallMs >= oldest &&
      trial.rung <= plan.rungs.length,
  );
  if (worked.length === 0) return null;
  return whereItStands({ plan, ladder, version, trials: worked, nowWallMs }, { ...DEFAULT_SETTINGS, evidenceMaxAgeDays: maxAgeDays }).rung;
}

/**
 * Where a chain stands: each link by its own criterion and evidence, the weak
 * link, and the one to train next in the chosen direction.
 * @param links in the order they are asked, each with its ladder's facts.
 * @example chainState(links, "forward", { nowWallMs: 1777593600000, maxAgeDays: 21 }) // { next: 1, weakest: 1, … }
 */
export function chainState(
  links: readonly (ChainLink & LinkKnown)[],
  direction: ChainDirection,
  when: { readonly nowWallMs: number; readonly maxAgeDays: number },
): ChainState {
  const states = links.map(({ ladder, rung, plan, version, trials }): LinkState => {
    const evidence = evidenceForRung(
      trials.filter((trial) => trial.rung === rung),
      { ladder, version, rung, ...when },
    );
    const standing = standsOn(plan, ladder, version, trials, when);
    const above = standing !== null && standing > rung;
    const met = evidence.filter(({ outcome }) => outcome === "met").length;
    const of = evidence.length;
    const told = toldShare(shareOfTrials(evidence), `in the last ${when.maxAgeDays} days`);
    return {
      met,
      of,
      share: of === 0 ? null : met / of,
      interval: told.interval,
      sentence: above && of === 0 ? `Held: the ladder stands on rung ${standing}.` : told.sentence,
      // The one judge of where a ladder stands: what stands higher holds this rung too.
      holds: above || sidesOf(plan, rung, evidence).every((own) => progressOf(plan.mastery, valuesGoalOf(plan, rung), own).passed),
    };
  });
  const order = direction === "forward" ? [...states.keys()] : [...states.keys()].reverse();
  const next = order.find((i) => states[i]?.holds === false) ?? null;
  const known = [...states.keys()].filter((i) => (states[i]?.of ?? 0) >= FEWEST_TRIALS_TO_TELL && states[i]?.holds === false);
  const weakest = known.sort((a, b) => (states[a]?.share ?? 1) - (states[b]?.share ?? 1))[0] ?? null;
  const wholeChance = states.every(({ share }) => share !== null) ? states.reduce((chance, { share }) => chance * (share ?? 0), 1) : null;
  const name = (i: number) => links[i]?.name ?? "";
  const sentence =
    next === null
      ? "Every link holds by its own rule. Run the whole."
      : weakest !== null && weakest !== next
        ? `Next: ${name(next)}. The weak link is ${name(weakest)}, ${states[weakest]?.met} of ${states[weakest]?.of}.`
        : weakest !== null
          ? `Next: ${name(next)}, which is also the weak link, ${states[next]?.met} of ${states[next]?.of}.`
          : `Next: ${name(next)}. Too few trials yet to name a weak link.`;
  return { links: states, next, weakest, wholeChance, sentence };
}
