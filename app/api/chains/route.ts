import * as yup from "yup";
import { chainSchema, record } from "@/core/schemas";
import { addChain } from "@/store";
import { takeForm } from "../../server/form-route";

const newChainSchema = chainSchema.concat(record({ horse: yup.string().required("Which horse it is for is missing.") }));

export const POST = (request: Request) =>
  takeForm(request, newChainSchema, async (store, { horse, ...chain }) => ({ id: await addChain(store, horse, chain) }), 201);
