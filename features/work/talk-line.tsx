"use client";

import { whenWrongLine } from "@/core/ladder";
import { zoneRuleLine } from "@/core/place";
import { handlerNow, whereNow } from "@/core/record";
import { useLog, useNow, useStart } from "./state";

/** What the coach says between the asks: the plan for a wrong choice, what holds where the horse is, who has taken over. Nothing for whom none of it is. */
export function TalkLine() {
  const { record } = useLog();
  const { plan, zones } = useStart();
  const { block } = useNow();
  const wrong = record.timeLine.wrongs.at(-1);
  const open = wrong?.endMs === null;
  const { zone } = whereNow(record);
  const rule = zone === null ? undefined : zones.find(({ name }) => name === zone)?.rule;
  const planned = whenWrongLine(plan.conversation?.whenWrong);
  const inBlock = wrong !== undefined && block !== null && wrong.startMs >= block.startMs;
  const handler = handlerNow(record);
  if (rule === undefined && handler === null && (planned === null || (!open && !inBlock))) return null;
  return (
    <p className="flex shrink-0 flex-wrap gap-x-3 text-[0.85rem] leading-tight desk:text-base" data-testid="talk">
      {planned !== null && (open || inBlock) && <span className={open ? "font-semibold text-ochre" : "text-soft"}>{planned}</span>}
      {zone !== null && rule !== undefined && <strong className="text-ochre">{zoneRuleLine(zone, rule)}</strong>}
      {handler !== null && <span className="text-soft">{handler.name} handles.</span>}
    </p>
  );
}
