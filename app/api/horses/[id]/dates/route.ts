import { horseDateSchema } from "@/core/schemas";
import { addDate } from "@/store";
import { takeForm } from "../../../../server/form-route";

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return takeForm(request, horseDateSchema, async (store, date) => ({ id: await addDate(store, id, date) }), 201);
}
