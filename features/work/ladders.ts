import { planByWay, starterPlan } from "@/core/ladder";
import type { Block, SessionRecord } from "@/core/record";
import type { BehaviourInput } from "@/core/schemas";
import { planBlock } from "./block-facts";
import type { LadderPart, RecorderStart } from "./types";

/** A behaviour of which only the name is known. Written out here, so that the recorder does not load the ladder's form. */
export const onlyNamed = (name: string): BehaviourInput => ({
  name,
  finished: "",
  cue: "",
  why: "",
  involves: [],
  movement: "other",
  template: null,
  free: false,
  prerequisites: [],
});

/** Something worked on the spot without a ladder: its blocks carry a name alone, and a plan only for the cue and the pads. */
export function namedPart(behaviour: string, like: LadderPart | null): LadderPart {
  return {
    ladderId: null,
    version: null,
    revision: null,
    behaviour,
    behaviourInput: onlyNamed(behaviour),
    plan: starterPlan(like?.plan ?? null),
    next: { rung: 1, kind: "work", headline: `Start: ${behaviour}`, reason: "Named on the spot.", barred: null },
    earlier: [],
    carried: [],
    planCautions: [],
  };
}

/** Ladders known to the recorder: those made or changed in it come before those the page came with. */
export function knownParts(given: RecorderStart, added: readonly LadderPart[]): LadderPart[] {
  const ids = new Set(added.map(({ ladderId }) => ladderId));
  return [...added, ...given.ladders.filter(({ ladderId }) => !ids.has(ladderId))];
}

function partOfBlock(given: RecorderStart, parts: readonly LadderPart[], block: Block): LadderPart {
  const known = parts.find(({ ladderId }) => ladderId !== null && ladderId === block.ladder);
  if (known !== undefined) return known;
  // Of a ladder that is gone nothing but its name is left.
  return namedPart(block.behaviour, given.ladders[0] ?? null);
}

/** A ladder as the running block works it: of an experiment by its way, otherwise as it is. */
const byWayOf = ({ tries, endMs }: Block, part: LadderPart): LadderPart =>
  tries === null || endMs !== null ? part : { ...part, plan: planByWay(part.plan, tries), ownPlan: part.plan };

/** The ladder in work: that of the last block of the plan, otherwise the one the session begins on. */
export function partNow(given: RecorderStart, added: readonly LadderPart[], record: SessionRecord): LadderPart {
  if (given.battery) return given;
  const parts = knownParts(given, added);
  const block = planBlock(given, record);
  if (block !== null) return byWayOf(block, partOfBlock(given, parts, block));
  return parts.find(({ ladderId }) => ladderId === given.ladderId) ?? given;
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
