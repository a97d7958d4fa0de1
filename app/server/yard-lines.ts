import "server-only";
import type { SessionRecord } from "@/core/session";
import type { YardLine } from "@/features/yard/yard";
import { listHorses, listSessions, namesApart, openSessions, type Store } from "@/store";
import { horseCare } from "./horse-care";
import { ladderStates } from "./ladder-state";

/** One line for each horse: what to mind, its last work and what comes next. */
export async function yardLines(store: Store): Promise<YardLine[]> {
  const [horses, apart] = await Promise.all([listHorses(store), namesApart(store)]);
  return Promise.all(
    horses.map(async (horse) => {
      const { allowance, sentences } = await horseCare(store, horse);
      const [[last], open] = await Promise.all([listSessions(store, horse.id, 1, "work"), openSessions(store, horse.id)]);
      const [state] = await ladderStates(store, horse.id, allowance);
      return {
        id: horse.id,
        name: horse.name,
        apart: apart.get(horse.id) ?? "",
        sample: horse.sample,
        away: horse.away,
        limits: sentences,
        runningId: open.find(({ running }) => running)?.id ?? null,
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
