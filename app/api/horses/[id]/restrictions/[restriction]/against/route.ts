import { goAgainstSchema } from "@/core/schemas";
import { goAgainst } from "@/store";
import { takeForm } from "../../../../../../server/form-route";
import { today } from "../../../../../../server/horse-care";

/** The yard's own settings for young horses, where a restriction's id stands otherwise. */
const OF_THE_YARD = "yard";

/** Goes against it for today, with a reason that stays in the list. */
export async function POST(request: Request, { params }: { params: Promise<{ id: string; restriction: string }> }) {
  const { id, restriction } = await params;
  return takeForm(request, goAgainstSchema, async (store, { reason }) => {
    await goAgainst(store, id, restriction === OF_THE_YARD ? null : restriction, today(store), reason);
    return { id: restriction };
  });
}
