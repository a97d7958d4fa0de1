import { goAgainstSchema } from "@/core/schemas";
import { goAgainst, takeBackAgainst } from "@/store";
import { takeAct, takeForm } from "../../../../../../server/form-route";
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

/** Takes back what was gone against today; the reason stays in the list. */
export async function DELETE(request: Request, { params }: { params: Promise<{ id: string; restriction: string }> }) {
  const { id, restriction } = await params;
  return takeAct(request, async (store) => {
    await takeBackAgainst(store, id, restriction === OF_THE_YARD ? null : restriction, today(store));
    return { id: restriction };
  });
}
