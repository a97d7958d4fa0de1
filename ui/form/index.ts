export { BinButton } from "./bin-button";
export { Field, tied } from "./field";
export { FormEnd } from "./form-end";
export { GIVE_UP_MS, type Sent, send } from "./send";
export { RequestIds, useRequestIds } from "./use-request-id";
export { type FormTarget, orNothing, savedUnder, useSentForm } from "./use-sent-form";
