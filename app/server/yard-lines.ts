import "server-only";
import type { SessionRecord } from "@/core/session";
import type { YardLine } from "@/features/yard/yard";
import { listHorses, listSessions, type Store } from "@/store";
import { ladderStates } from "./ladder-state";

/** One line for each horse: its last session and what comes next. */
export async function yardLines(store: Store): Promise<YardLine[]> {
  const horses = await listHorses(store);
  return Promise.all(
    horses.map(async (horse) => {
      const [last] = await listSessions(store, horse.id, 1);
      const [state] = await ladderStates(store, horse.id);
      return {
        id: horse.id,
        name: horse.name,
        sample: horse.sample,
        restrictions: horse.restrictions,
        last:
          last === undefined || last.summary.started_ms === null
            ? null
            : {
                sessionId: last.session.id,
                startedMs: last.summary.started_ms,
                finished: last.summary.finished,
                workSeconds: last.summary.work_s,
                n: last.summary.n,
                met: last.summary.met,
                record: JSON.parse(last.summary.record) as SessionRecord,
              },
        next:
          state === undefined ? null : { behaviour: state.ladder.behaviour.name, headline: state.next.headline, reason: state.next.reason },
      };
    }),
  );
}
