import { tellApart } from "@/core/know";
import { PACK_VERSION, type PackedYard } from "@/core/pack";
import { asNamed, eventReach, listHorses } from "@/store";
import { meOf } from "../../server/me";
import { yardFacts } from "../../server/pack";
import { answer, json } from "../../server/respond";
import { getStore } from "../../server/store";
import { whoAsks } from "../../server/who";

/** What a device keeps of the yard, to open with no server: its facts, and which horses there are. */
export function GET(request: Request) {
  return answer(request, async () => {
    const store = await getStore();
    const [facts, horses, position] = await Promise.all([yardFacts(store), listHorses(store), eventReach(store.models)]);
    const apart = tellApart(horses.map(asNamed));
    const packed: PackedYard = {
      version: PACK_VERSION,
      store: store.id,
      epoch: store.epoch,
      position,
      nowMs: store.now(),
      facts,
      me: await meOf(store, whoAsks(request), request.headers.get("host") ?? ""),
      horses: horses.map(({ id, name, away, sample }) => ({ id, name, away, sample, apart: apart.get(id) ?? "" })),
    };
    return json(packed);
  });
}
