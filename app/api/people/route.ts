import { personSchema } from "@/core/schemas";
import { addPerson } from "@/store";
import { takeForm } from "../../server/form-route";

export const POST = (request: Request) =>
  takeForm(request, personSchema, async (store, person) => ({ id: await addPerson(store, person) }), 201);
