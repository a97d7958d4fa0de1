import { listHorses, listLadders, namesApart } from "@/store";
import { answer, json } from "../../server/respond";
import { getStore } from "../../server/store";

/** What the command box can go to. */
export function GET(request: Request) {
  return answer(request, async () => {
    const store = await getStore();
    const [horses, apart] = await Promise.all([listHorses(store), namesApart(store)]);
    const ladders = await Promise.all(horses.map((horse) => listLadders(store, horse.id)));
    return json({
      horses: horses.map(({ id, name }, i) => ({
        id,
        name,
        apart: apart.get(id) ?? "",
        ladders: (ladders[i] ?? []).map((ladder) => ({ id: ladder.id, name: ladder.behaviour.name })),
      })),
    });
  });
}
