import { packHorse } from "@/core/pack";
import { getHorse } from "@/store";
import { horsePack } from "../../../server/pack";
import { answer, json } from "../../../server/respond";
import { getStore } from "../../../server/store";

/** Everything a device needs to work one horse with no server. */
export function GET(request: Request, { params }: { params: Promise<{ horse: string }> }) {
  return answer(request, async () => {
    const store = await getStore();
    const { horse } = await params;
    return json(packHorse(await horsePack(store, await getHorse(store, horse))));
  });
}
