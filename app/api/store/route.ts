import { keepCopiesSchema } from "@/core/schemas";
import { checkStore, keepDailyCopies, storeCare } from "@/store";
import { takeForm } from "../../server/form-route";
import { answer, json } from "../../server/respond";
import { getStore } from "../../server/store";

/** How the data is; with `?check` every page and index is checked first. */
export function GET(request: Request) {
  return answer(request, async () => {
    const store = await getStore();
    if (new URL(request.url).searchParams.has("check")) await checkStore(store);
    return json(await storeCare(store));
  });
}

/** Says how many daily copies are kept. */
export const PUT = (request: Request) =>
  takeForm(request, keepCopiesSchema, async (store, { copies }) => {
    await keepDailyCopies(store, copies);
    return { copies };
  });
