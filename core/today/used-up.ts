import { circlingLeft, circlingSentence } from "../circle";
import { startOfDayIn } from "../day";
import { circles } from "../ladder";
import type { BegunSession, HorsePack, YardFacts } from "../pack";
import { MILLISECONDS_PER_DAY } from "../units";
import { asUsed, type Cap, usedSentences } from "../welfare";
import type { CircleState } from "./circle";
import type { Today } from "./today";

/** More than anybody works with one horse in a week. */
const WEEK_SESSIONS = 60;

/**
 * What is used up of the last seven days and of today, in sentences.
 * @param state where the horse stands on the circle, without the session about to be worked.
 * @param but the session about to be worked, which is left out.
 * @example usedUp(pack, yard, today, circleState(pack, yard, today.nowMs, id), 400, id) // ["3 sessions in the last 7 days…"]
 */
export function usedUp(
  pack: HorsePack,
  yard: YardFacts,
  today: Today,
  state: CircleState,
  foodLimitGrams: number | null,
  but: string,
): string[] {
  const ladders = new Map(pack.ladders.map((ladder) => [ladder.id, ladder]));
  const weekAgo = today.nowMs - 7 * MILLISECONDS_PER_DAY;
  const cap = today.allowance.circlingMinutes;
  const goesRound = state.use.weekVisits > 0 || pack.ladders.some(({ involves }) => circles(involves)) || cap !== null;
  // Where there is to be none at all the caution says so already.
  const circling = goesRound && cap?.value !== 0 ? circlingSentence(state.use, state.caps) : null;
  const sessions = pack.worked
    .filter(({ id, startedMs }) => id !== but && (startedMs ?? 0) >= weekAgo)
    .slice(0, WEEK_SESSIONS)
    .map(({ startedMs, ladders: worked, ...sums }) =>
      asUsed({
        startMs: startedMs ?? 0,
        ...sums,
        ladders: worked.flatMap((id) => ladders.get(id) ?? []).map(({ plan }) => ({ pieceGrams: plan.feeding.pieceGrams })),
      }),
    );
  return usedSentences(sessions, today.nowMs, startOfDayIn(today.nowMs, yard.timeZone), circling, foodLimitGrams);
}

/**
 * Circling minutes that may still be worked, of the day and of the week.
 * @param state without the session about to be worked.
 * @returns null where a reason was given against the caps.
 * @example leftOfCircling({ against: "vet asked for it" }, state) // null
 */
export const leftOfCircling = (
  begun: Pick<BegunSession, "against">,
  { caps, use }: Pick<CircleState, "caps" | "use">,
): Cap<number> | null => ((begun.against ?? "") === "" ? circlingLeft(use, { day: caps.sessionMinutes, week: caps.weekMinutes }) : null);
