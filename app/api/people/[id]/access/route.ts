import { accessSchema } from "@/core/schemas";
import { setAccess } from "@/store";
import { takeForm } from "../../../../server/form-route";

/** Says what a person may do on the network, and under which passphrase. Every sign-in of that person ends. */
export async function PUT(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return takeForm(request, accessSchema, async (store, { access, passphrase }) => {
    await setAccess(store, id, access === "none" ? null : access, access === "none" ? null : (passphrase ?? null));
    return { id };
  });
}
