export { LateForm } from "./late-form";
