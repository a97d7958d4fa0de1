export { BinButton } from "./bin-button";
export { CheckRow, Choice, NumberBox, named, type Option, Options, type Outcome, OutcomeLine, Problem, TextBox } from "./controls";
export { Field, tied } from "./field";
export { FormEnd } from "./form-end";
export { GIVE_UP_MS, type Sent, send } from "./send";
export { type FieldsOf, SentChoice, SentInput, SentText } from "./sent-fields";
export { isOutOf, numberTyped, typedCount, typedNumber } from "./typed-number";
export { RequestIds, useRequestIds } from "./use-request-id";
export { type FormTarget, orNothing, savedUnder, useSentForm } from "./use-sent-form";
