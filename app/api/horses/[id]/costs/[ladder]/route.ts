import { beforeARung, changeCosts, raisesOf } from "@/core/past";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import { getHorse, getLadder, listLadders, NotFoundError, pastOfHorse } from "@/store";
import { plansIn } from "../../../../../server/past-of";
import { answer, json } from "../../../../../server/respond";
import { getStore } from "../../../../../server/store";

/** How far back steps are looked at: as the page of changes opens on. */
const LOOK_BACK_DAYS = 365;

/** What stands before each rung of a ladder by what such steps cost this horse; rungs of which nothing can be said are left out. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string; ladder: string }> }) {
  const { id, ladder: ladderId } = await params;
  return answer(request, async () => {
    const store = await getStore();
    await getHorse(store, id);
    const ladder = await getLadder(store, ladderId);
    if (ladder.horseId !== id) throw new NotFoundError("This ladder belongs to another horse.");
    const past = await pastOfHorse(store, id, {
      fromMs: store.now() - LOOK_BACK_DAYS * MILLISECONDS_PER_DAY,
      ladders: await listLadders(store, id),
    });
    const costs = changeCosts(raisesOf(past, await plansIn(store, past)));
    const rungs = ladder.plan.rungs.flatMap((_, i) => {
      const sentence = beforeARung(ladder.plan, i + 1, costs);
      return sentence === null ? [] : [{ rung: i + 1, sentence }];
    });
    return json({ rungs });
  });
}
