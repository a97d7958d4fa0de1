import { practiceSchema } from "@/core/schemas";
import { addPractice } from "@/store";
import { takeForm } from "../../../../server/form-route";

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return takeForm(request, practiceSchema, async (store, practice) => ({ id: await addPractice(store, id, practice) }), 201);
}
