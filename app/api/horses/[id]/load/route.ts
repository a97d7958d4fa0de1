import { type HandLoadInput, handLoadSchema } from "@/core/schemas";
import { addHandLoad } from "@/store";
import { takeForm } from "../../../../server/form-route";

/** Adds work that was not logged here. */
export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return takeForm(
    request,
    handLoadSchema,
    async (store, input) => {
      const entry = input as unknown as HandLoadInput;
      return { id: await addHandLoad(store, id, entry) };
    },
    201,
  );
}
