export { Field, tied } from "./field";
export { type Sent, send } from "./send";
