import { endTrySchema } from "@/core/experiment";
import { endTry } from "@/store";
import { takeForm } from "../../../../../server/form-route";

/** Ends an experiment before its last block: it stays valid as cut short. */
export async function POST(request: Request, { params }: { params: Promise<{ id: string; try: string }> }) {
  const { id, try: one } = await params;
  return takeForm(request, endTrySchema, async (store, { why }) => {
    await endTry(store, id, one, why);
    return { id: one };
  });
}
