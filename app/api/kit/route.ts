import { kitSchema } from "@/core/schemas";
import { addKit } from "@/store";
import { takeForm } from "../../server/form-route";

export const POST = (request: Request) => takeForm(request, kitSchema, async (store, kit) => ({ id: await addKit(store, kit) }), 201);
