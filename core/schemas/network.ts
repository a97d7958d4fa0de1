import * as yup from "yup";
import { record } from "../checks/common";

/** Shortest passphrase: long enough that guessing at the pace of the sign-in page takes years. */
export const SHORTEST_PASSPHRASE = 10;

export const signInSchema = record({
  name: yup.string().max(80).required("Name: who you are."),
  passphrase: yup.string().max(200).required("Passphrase is missing."),
});

export const networkSchema = record({ on: yup.boolean().required("on or off.") });

export const ACCESS_CHOICES = ["none", "helper", "owner"] as const;

export const accessSchema = record({
  access: yup
    .string<(typeof ACCESS_CHOICES)[number]>()
    .oneOf(ACCESS_CHOICES, "Access: none, helper or owner.")
    .required("Access is missing."),
  passphrase: yup
    .string()
    .max(200, "Passphrase: at most 200 characters.")
    .optional()
    .test("long", `Passphrase: at least ${SHORTEST_PASSPHRASE} characters; four words you remember do well.`, (value, context) =>
      context.parent.access === "none" ? true : value !== undefined && value.normalize("NFKC").length >= SHORTEST_PASSPHRASE,
    ),
});
export type AccessInput = yup.InferType<typeof accessSchema>;

export const joinSchema = record({ code: yup.string().max(20).required("The code is missing.") });

export const keepCopiesSchema = record({
  copies: yup.number().integer().min(1, "At least 1.").max(365, "At most 365.").required("A number is missing."),
});

export const restoreSchema = record({ file: yup.string().max(200).required("Which copy is missing.") });
