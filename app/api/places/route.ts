import { placeSchema } from "@/core/schemas";
import { addPlace } from "@/store";
import { takeForm } from "../../server/form-route";

export const POST = (request: Request) =>
  takeForm(request, placeSchema, async (store, place) => ({ id: await addPlace(store, place) }), 201);
