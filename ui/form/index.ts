export { Field, tied } from "./field";
export { FormEnd } from "./form-end";
export { Remove } from "./remove";
export { type Sent, send } from "./send";
export { type FormTarget, orNothing, savedUnder, useSentForm } from "./use-sent-form";
