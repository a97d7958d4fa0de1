import type { RigCheck } from "@/core/ladder";
import type { SessionRecord } from "@/core/record";
import type { AtWork } from "./types";

/** What of the rig is to be looked at now, and on which side. */
export interface RigAsked {
  readonly checks: readonly RigCheck[];
  readonly side: "L" | "R" | null;
}

/**
 * The checks of the rig that are due: all at the start, those of a side again
 * each time the side changes. Null where none are, or they were looked at or
 * skipped for this side.
 */
export function rigDue({ part: { plan }, session: { battery } }: Pick<AtWork, "part" | "session">, record: SessionRecord): RigAsked | null {
  const rig = plan.conversation?.rig ?? [];
  if (rig.length === 0 || battery || record.finishMs !== null) return null;
  const looked = record.facts.filter((fact) => fact.type === "rig");
  if (looked.length === 0) return { checks: rig, side: record.blocks.at(-1)?.side ?? null };
  const ofSide = rig.filter(({ when }) => when === "side");
  const side = record.blocks.at(-1)?.side ?? null;
  if (ofSide.length === 0 || side === null) return null;
  // Before the first block no side was said: what was looked at holds for the one it began on.
  const last = looked.at(-1)?.payload.side;
  const held = last === "L" || last === "R" ? last : (record.blocks.find((block) => block.side !== null)?.side ?? null);
  return held === side ? null : { checks: ofSide, side };
}
