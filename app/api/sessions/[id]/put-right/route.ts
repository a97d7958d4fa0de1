import { putRightSchema } from "@/core/schemas";
import { putSessionRight } from "@/store";
import { takeForm } from "../../../../server/form-route";
import { FieldsRefused } from "../../../../server/problem-of";

/** Puts the horse, handler, place or time of a session right. */
export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return takeForm(request, putRightSchema, async (store, right) => {
    if ((right.started_ms ?? 0) > store.now())
      throw new FieldsRefused([{ path: "started_ms", message: "It cannot have begun in the future." }]);
    await putSessionRight(store, id, right);
    return { id };
  });
}
