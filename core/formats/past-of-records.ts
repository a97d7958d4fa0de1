import { reliefOfSession } from "../know";
import { pastFactsOf, pastTrialsOf } from "../past";
import type { SessionRecord } from "../record";
import type { HorsePast } from "./over-sessions";

/**
 * Sessions worked out from an events.csv as one past, that of the horse whose
 * file it is: events name no horse. Ladders go by their behaviour, and plans are
 * not in such a file.
 * @param seconds working time by session.
 * @example pastsOfRecords(records, seconds, false) // one
 */
export function pastsOfRecords(
  records: readonly (readonly [id: string, record: SessionRecord])[],
  seconds: ReadonlyMap<string, number>,
  withoutLate: boolean,
): HorsePast[] {
  const worked = records.filter(([, { trials }]) => trials.length > 0).sort(([, a], [, b]) => (a.startWallMs ?? 0) - (b.startWallMs ?? 0));
  if (worked.length === 0) return [];
  const names = new Map<string, string>();
  for (const [, { blocks }] of worked) for (const { ladder, behaviour } of blocks) if (ladder !== null) names.set(ladder, behaviour);
  return [
    {
      horse: null,
      past: {
        sessions: worked.map(([id, record]) => ({
          id,
          horse: "",
          startedMs: record.startWallMs ?? 0,
          workSeconds: seconds.get(id) ?? 0,
          handler: null,
          place: null,
          kit: [],
          facts: pastFactsOf(record),
        })),
        trials: worked.flatMap(([, record], i) =>
          pastTrialsOf(record, i, null).filter(({ logged }) => !(withoutLate && logged === "late")),
        ),
      },
      places: [{ place: null, sessions: worked.map(([, record]) => reliefOfSession(record)) }],
      moments: true,
      planOf: () => undefined,
      names,
    },
  ];
}
