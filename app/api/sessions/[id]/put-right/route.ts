import { putRightSchema } from "@/core/schemas";
import { putSessionRight } from "@/store";
import { takeForm } from "../../../../server/form-route";

/** Puts the horse, handler, place or time of a session right. */
export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return takeForm(request, putRightSchema, async (store, right) => {
    await putSessionRight(store, id, right);
    return { id };
  });
}
