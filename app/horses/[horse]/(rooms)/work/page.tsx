import type { Metadata } from "next";
import { criterionOf } from "@/core/ladder";
import { StartSession } from "@/features/work/start-session";
import { asKit, getHorse, listKit, listSessions, openSessions } from "@/store";
import { findOr404 } from "../../../../server/find-or-404";
import { horseCare } from "../../../../server/horse-care";
import { horsePicture } from "../../../../server/horse-picture";
import { kitUse } from "../../../../server/kit-use";
import { ladderStates } from "../../../../server/ladder-state";
import { lastPeople } from "../../../../server/last-people";
import { lastDoNext } from "../../../../server/recorder-start";
import { getStore } from "../../../../server/store";

export const metadata: Metadata = { title: "Work" };

export default async function WorkPage({ params }: { params: Promise<{ horse: string }> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const care = await horseCare(store, horse);
  const [states, who, kit, sessions, open, { departures }, doNext] = await Promise.all([
    ladderStates(store, horse.id, care.allowance),
    lastPeople(store, horse.id),
    listKit(store),
    listSessions(store, horse.id, { limit: 1, kind: "work" }),
    openSessions(store, horse.id),
    horsePicture(store, horse),
    lastDoNext(store, horse.id, null),
  ]);
  const last = sessions[0]?.session;
  return (
    <StartSession
      horse={{ id: horse.id, name: horse.name, away: horse.away }}
      limits={care.sentences}
      ladders={states.map(({ ladder, next }) => ({
        id: ladder.id,
        name: ladder.behaviour.name,
        next,
        criterion: criterionOf(ladder.plan, next.rung).sentence,
        kitUse: kitUse(ladder, next.rung, departures > 0, care.allowance),
      }))}
      {...who}
      kit={kit.map((row) => ({ id: row.id, ...asKit(row) }))}
      doNext={doNext}
      noWork={care.allowance.noWork?.why ?? null}
      kitLast={JSON.parse(last?.kit ?? "[]") as string[]}
      open={open}
      storeId={store.id}
    />
  );
}
