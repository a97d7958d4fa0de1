import { restrictionSchema } from "@/core/schemas";
import { addRestriction } from "@/store";
import { takeForm } from "../../../../server/form-route";

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return takeForm(request, restrictionSchema, async (store, restriction) => ({ id: await addRestriction(store, id, restriction) }), 201);
}
