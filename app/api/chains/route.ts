import { newChainSchema } from "@/core/schemas";
import { addChain } from "@/store";
import { takeForm } from "../../server/form-route";

export const POST = (request: Request) =>
  takeForm(request, newChainSchema, async (store, { horse, ...chain }) => ({ id: await addChain(store, horse, chain) }), 201);
