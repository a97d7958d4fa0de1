import { tellApart } from "@/core/know";
import { asNamed, ladderNames, listHorses } from "@/store";
import { answer, json } from "../../server/respond";
import { getStore } from "../../server/store";

/** What the command box can go to. */
export function GET(request: Request) {
  return answer(request, async () => {
    const store = await getStore();
    const [horses, ladders] = await Promise.all([listHorses(store), ladderNames(store)]);
    const apart = tellApart(horses.map(asNamed));
    const own = new Map(horses.map(({ id }) => [id, [] as { id: string; name: string }[]]));
    for (const { id, horseId, name } of ladders) own.get(horseId)?.push({ id, name });
    return json({
      horses: horses.map(({ id, name }) => ({ id, name, apart: apart.get(id) ?? "", ladders: own.get(id) ?? [] })),
    });
  });
}
