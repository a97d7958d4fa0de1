"use client";

import { wayOfArm } from "@/core/experiment/due";
import { whenWrongLine } from "@/core/ladder";
import { zoneRuleLine } from "@/core/place";
import { handlerNow, whereNow } from "@/core/record";
import { useLog, useNow, useStart } from "./state";

/**
 * What the coach says between the asks: what is tried in this block, the plan
 * for a wrong choice, what holds where the horse is, who has taken over.
 * Nothing for whom none of it is.
 */
export function TalkLine() {
  const { record } = useLog();
  const start = useStart();
  const {
    part: { plan },
    session: { zones },
    today: { tries },
  } = start;
  const { block } = useNow();
  const wrong = record.timeLine.wrongs.at(-1);
  const open = wrong?.endMs === null;
  const { zone } = whereNow(record);
  const rule = zone === null ? undefined : zones.find(({ name }) => name === zone)?.rule;
  const planned = whenWrongLine(plan.conversation?.whenWrong);
  const inBlock = wrong !== undefined && block !== null && wrong.startMs >= block.startMs;
  const handler = handlerNow(record);
  const tried = block?.tries == null || block.endMs !== null ? null : block.tries;
  const experiment = tried === null ? undefined : tries.find(({ id }) => id === tried.id);
  const saysWrong = planned !== null && (open || inBlock);
  if (rule === undefined && handler === null && !saysWrong && experiment === undefined) return null;
  return (
    <p className="flex shrink-0 flex-wrap gap-x-3 text-[0.85rem] leading-tight desk:text-base" data-testid="talk">
      {experiment !== undefined && tried !== null && (
        <strong className="text-tarn">
          Trying {tried.n} of {experiment.arms.length}: {wayOfArm(experiment, tried.arm)}.
        </strong>
      )}
      {saysWrong && <span className={open ? "font-semibold text-ochre" : "text-soft"}>{planned}</span>}
      {zone !== null && rule !== undefined && <strong className="text-ochre">{zoneRuleLine(zone, rule)}</strong>}
      {handler !== null && <span className="text-soft">{handler.name} handles.</span>}
    </p>
  );
}
