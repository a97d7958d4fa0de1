import { horseSchema } from "@/core/schemas";
import { addHorse } from "@/store";
import { takeForm } from "../../server/form-route";

export const POST = (request: Request) =>
  takeForm(request, horseSchema, async (store, horse) => ({ id: await addHorse(store, horse) }), 201);
