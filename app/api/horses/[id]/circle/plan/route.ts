import { planFromLog } from "@/core/events/circle-log";
import { keptPlanSchema } from "@/core/schemas";
import { saveCirclePlan } from "@/store";
import { takeForm } from "../../../../../server/form-route";

/** Keeps the plan a horse's next session begins with. */
export async function PUT(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return takeForm(request, keptPlanSchema, async (store, { plan }) => {
    await saveCirclePlan(store, id, planFromLog(plan));
    return { id };
  });
}
