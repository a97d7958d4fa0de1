import { useMemo } from "react";
import type { Block } from "@/core/record";
import { criterionParts } from "@/core/strands";
import { planBlock, rungNumber } from "./block-facts";
import type { AtWork } from "./types";
import type { RecorderState } from "./use-recorder";

/** What a block was asked for in words of its own, where its ladder does not say it any more; null where it does. */
function saidByBlock(start: AtWork, block: Block | null): string | null {
  if (block === null) return null;
  const ownWords = block.ladder === null ? !start.session.battery : block.version !== start.part.version;
  return ownWords ? (block.criterion?.sentence ?? null) : null;
}

/** The rung in work, and what it asks for in parts, the strong ones first seen. */
export function useCriterion({ start, session }: Pick<RecorderState, "start" | "session">) {
  const planned = planBlock(start, session.record);
  const { plan, next } = start.part;
  const rung = planned === null ? next.rung : Math.min(rungNumber(start, planned), plan.rungs.length);
  // What the block itself was asked for stands, also where the ladder has been changed since.
  const said = saidByBlock(start, planned);
  const parts = useMemo(() => {
    if (said !== null) return [{ text: said, strong: false }];
    const labels = plan.phases.map(({ label }) => label);
    return criterionParts(plan.strands, plan.rungs[rung - 1]?.values ?? {}, labels);
  }, [plan, said, rung]);
  return { rung, parts };
}
