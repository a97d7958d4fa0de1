import { ownSignSchema } from "@/core/schemas";
import { addOwnSign, removeOwnSign } from "@/store";
import { takeForm } from "../../server/form-route";

/** Adds a sign to the yard's own. */
export const POST = (request: Request) =>
  takeForm(
    request,
    ownSignSchema,
    async (store, sign) => {
      await addOwnSign(store, sign);
      return {};
    },
    201,
  );

/** Takes a sign off the yard's list. */
export const DELETE = (request: Request) =>
  takeForm(request, ownSignSchema, async (store, sign) => {
    await removeOwnSign(store, sign);
    return {};
  });
