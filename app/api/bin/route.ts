import { binSchema } from "@/core/schemas";
import { bringBack, putInBin } from "@/store";
import { takeForm } from "../../server/form-route";

/** Puts something in the bin with what goes with it, or brings it back. */
export function POST(request: Request) {
  return takeForm(request, binSchema, async (store, { kind, id, back }) => {
    if (back) {
      await bringBack(store, kind, id);
      store.caches.catchUp();
    } else await putInBin(store, kind, id);
    return { id };
  });
}
