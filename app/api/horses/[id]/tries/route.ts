import { tryBothSchema } from "@/core/experiment";
import { beginTry, listLadders } from "@/store";
import { takeForm } from "../../../../server/form-route";
import { triesOf } from "../../../../server/tries";

/** Begins an experiment: its order is drawn with it. */
export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return takeForm(
    request,
    tryBothSchema,
    async (store, input) => {
      const states = await triesOf(store, id, await listLadders(store, id));
      const complete = new Set(states.flatMap(({ of, result }) => (result.complete ? [of.id] : [])));
      return { id: await beginTry(store, id, input, { complete }) };
    },
    201,
  );
}
