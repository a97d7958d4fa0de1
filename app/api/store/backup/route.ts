import { copyNow } from "@/store";
import { takeAct } from "../../../server/form-route";

/** Makes a copy now, checked. */
export const POST = (request: Request) => takeAct(request, (store) => copyNow(store));
