import { planByWay, starterPlan } from "@/core/ladder";
import type { CareNews } from "@/core/pack";
import type { Block, SessionRecord } from "@/core/record";
import { ladderPart, onlyNamed } from "@/core/start/part";
import { planBlock } from "./block-facts";
import type { AtWork, LadderPart, RecorderStart } from "./types";

/** Something worked on the spot without a ladder: its blocks carry a name alone, and a plan only for the cue and the pads. */
export const namedPart = (behaviour: string, like: LadderPart | null): LadderPart =>
  ladderPart({
    behaviourInput: onlyNamed(behaviour),
    plan: starterPlan(like?.plan ?? null),
    next: { rung: 1, kind: "work", headline: `Start: ${behaviour}`, reason: "Named on the spot.", barred: null },
    circlingLeft: null,
  });

/** Ladders known to the recorder: those made or changed in it come before those the page came with. */
export function knownParts(given: RecorderStart, added: readonly LadderPart[]): LadderPart[] {
  const ids = new Set(added.map(({ ladderId }) => ladderId));
  return [...added, ...given.parts.filter(({ ladderId }) => !ids.has(ladderId))];
}

function partOfBlock(given: RecorderStart, parts: readonly LadderPart[], block: Block): LadderPart {
  const known = parts.find(({ ladderId }) => ladderId !== null && ladderId === block.ladder);
  if (known !== undefined) return known;
  // Of a ladder that is gone nothing but its name is left.
  return namedPart(block.behaviour, given.parts[0] ?? null);
}

/** A ladder as the running block works it: of an experiment by its way, otherwise as it is. */
const byWayOf = ({ tries, endMs }: Block, part: LadderPart): LadderPart =>
  tries === null || endMs !== null ? part : { ...part, plan: planByWay(part.plan, tries), ownPlan: part.plan };

/** The ladder in work: that of the last block of the plan, otherwise the one the session begins on. */
export function partNow(given: RecorderStart, added: readonly LadderPart[], record: SessionRecord): LadderPart {
  if (given.session.battery) return given.first;
  const parts = knownParts(given, added);
  const block = planBlock(given, record);
  if (block !== null) return byWayOf(block, partOfBlock(given, parts, block));
  return parts.find(({ ladderId }) => ladderId === given.first.ladderId) ?? given.first;
}

/**
 * The rung a ladder was left on in this session, as its present version numbers
 * it; null where it was not worked yet, or that rung is no longer there.
 */
export function leftOn({ ladderId, version, carried }: LadderPart, record: SessionRecord): number | null {
  const block = ladderId === null ? undefined : record.blocks.findLast(({ ladder, kind }) => ladder === ladderId && kind !== "sure");
  if (block === undefined) return null;
  if (block.version === version) return Number(block.rung);
  const rungs = carried.find(([of]) => of === block.version)?.[1];
  return rungs?.find(([old]) => old === Number(block.rung))?.[1] ?? null;
}

/** What the recorder goes by now: what it was given, ladders as they were changed in it, the limits it was told since, and the ladder in work. */
export function atWork(given: RecorderStart, added: readonly LadderPart[], care: CareNews | null, part: LadderPart): AtWork {
  const now = { ...given, parts: added.length === 0 ? given.parts : knownParts(given, added), part };
  if (care === null) return now;
  const { allowance, cautions, wordSettings } = care;
  return { ...now, yard: { ...given.yard, settings: wordSettings }, today: { ...given.today, allowance, cautions } };
}
