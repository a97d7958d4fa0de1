import * as yup from "yup";
import { flagSchema, record } from "@/core/checks/common";
import { settleAside } from "@/store";
import { takeForm } from "../../../server/form-route";

const asideSchema = record({
  id: yup.string().max(100).required("Which tap is missing."),
  take: flagSchema("Take it in").required("Whether it is taken in is missing."),
}).required();

/** Takes a helper's tap in that was not taken, or leaves it out. */
export const POST = (request: Request) =>
  takeForm(request, asideSchema, async (store, { id, take }) => {
    await settleAside(store, id, take);
    return { id };
  });
