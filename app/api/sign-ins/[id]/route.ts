import { endSignIn } from "@/store";
import { takeAct } from "../../../server/form-route";

/** Ends a sign-in: the device that has it is out with its next request. */
export async function DELETE(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return takeAct(request, async (store) => ({ ended: await endSignIn(store, id) }));
}
