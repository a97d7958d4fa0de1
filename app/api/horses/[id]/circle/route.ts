import { fromLog } from "@/core/events/circle-log";
import { type CircleSetupInput, circleSetupSchema } from "@/core/schemas";
import { saveCircleSetup } from "@/store";
import { takeForm } from "../../../../server/form-route";
import { today } from "../../../../server/horse-care";

/** Keeps how a horse works on the circle. */
export async function PUT(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return takeForm(request, circleSetupSchema, (store, input) =>
    saveCircleSetup(store, id, fromLog(input) as CircleSetupInput, today(store)),
  );
}
