export { type AgeCaution, ageCaution } from "./age";
