import * as yup from "yup";
import { record } from "@/core/checks/common";
import { takeForm } from "../../server/form-route";
import { beginImport, MOST_IMPORT_BYTES } from "../../server/imports";

const beginSchema = record({
  name: yup.string().required("Choose a file.").max(300, "The file's name is too long."),
  size: yup.number().integer().min(0).max(MOST_IMPORT_BYTES, "The file is too large: at most 2 GB.").required(),
}).required();

/** A file is going to be brought in; it comes in pieces. */
export const POST = (request: Request) =>
  takeForm(request, beginSchema, async (store, { name, size }) => beginImport(store, name, size), 201);
