import { type SurvivalCurve, survival, type Waiting } from "../evidence";
import { OWN_TIMES, type OwnTimeKind } from "../ladder";
import { endOfWorkMs, type SessionRecord, secondsWithoutBreaks } from "../record";

/** The horse's own time of one kind in a session. */
export interface OwnTimes {
  readonly what: OwnTimeKind;
  readonly times: readonly Waiting[];
  readonly curve: SurvivalCurve;
}

/**
 * The times of one kind: ended by the horse, or cut off by the handler, an ask or the end of work.
 * @example ownWaitings(record, "looks") // [{ seconds: 4, answered: false }]
 */
export function ownWaitings(record: SessionRecord, what: OwnTimeKind): Waiting[] {
  const endMs = endOfWorkMs(record);
  return record.timeLine.ownTimes.flatMap((span) =>
    span.what !== what || span.startMs > endMs
      ? []
      : [
          {
            seconds: secondsWithoutBreaks(
              span.startMs,
              Math.max(span.startMs, Math.min(span.endMs ?? endMs, endMs)),
              record.timeLine.breaks,
            ),
            answered: span.reached,
          },
        ],
  );
}

/**
 * How long the horse was left to look, and how long until it had settled, by
 * the product-limit estimate: what was cut off counts up to there.
 * @example ownTimesOf(record)[0]?.curve.medianSeconds
 */
export function ownTimesOf(record: SessionRecord): OwnTimes[] {
  return OWN_TIMES.flatMap((what) => {
    const times = ownWaitings(record, what);
    return times.length === 0 ? [] : [{ what, times, curve: survival(times) }];
  });
}
