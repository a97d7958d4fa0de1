"use client";

import { wayOfArm } from "@/core/experiment/due";
import { whenWrongLine } from "@/core/ladder";
import { FOLLOWS_WITHIN_SECONDS, precursorWords } from "@/core/past/precursor-words";
import { turnsWithin } from "@/core/past/turns-within";
import { zoneRuleLine } from "@/core/place";
import { handlerNow, type SessionRecord, whereNow } from "@/core/record";
import { useLog, useNow, useStart } from "./state";
import type { RecorderStart } from "./types";

/** Good answers of the session from which it is said when the horse usually turns. */
const SAID_FROM = 3;

/** In how many asks this horse usually turns; null where that is not shown, or far off. */
function turnLine({ moments }: RecorderStart, { trials, blocks }: SessionRecord): string | null {
  if (moments.turns === undefined) return null;
  const good = trials.filter(
    ({ outcome, blockIndex }) => outcome === "met" && blockIndex !== null && (blocks[blockIndex]?.kind ?? "work") === "work",
  ).length;
  const within = good < SAID_FROM ? null : turnsWithin(moments.turns, good);
  if (within === null) return null;
  const [from, to] = within;
  return `Usually turns within ${from === to ? from : `${from}–${to}`} ask${to === 1 ? "" : "s"}.`;
}

/** What has just been seen that comes before this horse leaves: in time to ease. */
function beforeLine({ moments }: RecorderStart, { facts, lastMs, timeLine }: SessionRecord): string | null {
  const shown = moments.before ?? [];
  if (shown.length === 0) return null;
  const since = lastMs - FOLLOWS_WITHIN_SECONDS * 1000;
  const zone = timeLine.zones.at(-1);
  for (const one of shown) {
    const seen =
      one.kind === "zone"
        ? zone?.zone === one.name && zone.startMs >= since
        : facts.some(
            (fact) => fact.ms >= since && fact.type === "signal" && fact.payload.class === one.kind && fact.payload.name === one.name,
          );
    if (seen) return `After ${precursorWords({ kind: one.kind, name: one.name })} it went ${one.followed} of ${one.bouts} times: ease now.`;
  }
  return null;
}

/**
 * What the coach says between the asks: what is tried in this block, the plan
 * for a wrong choice, what holds where the horse is, who has taken over, when
 * it usually turns. Nothing for whom none of it is.
 */
export function TalkLine() {
  const { record } = useLog();
  const start = useStart();
  const { plan, zones, tries } = start;
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
  const turns = block === null ? null : turnLine(start, record);
  const before = block === null ? null : beforeLine(start, record);
  const saysWrong = planned !== null && (open || inBlock);
  if (rule === undefined && handler === null && !saysWrong && experiment === undefined && turns === null && before === null) return null;
  return (
    <p className="flex shrink-0 flex-wrap gap-x-3 text-[0.85rem] leading-tight desk:text-base" data-testid="talk">
      {before !== null && <strong className="text-brick">{before}</strong>}
      {experiment !== undefined && tried !== null && (
        <strong className="text-tarn">
          Trying {tried.n} of {experiment.arms.length}: {wayOfArm(experiment, tried.arm)}.
        </strong>
      )}
      {saysWrong && <span className={open ? "font-semibold text-ochre" : "text-soft"}>{planned}</span>}
      {zone !== null && rule !== undefined && <strong className="text-ochre">{zoneRuleLine(zone, rule)}</strong>}
      {handler !== null && <span className="text-soft">{handler.name} handles.</span>}
      {turns !== null && <span className="text-soft">{turns}</span>}
    </p>
  );
}
