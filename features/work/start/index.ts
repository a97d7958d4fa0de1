export { StartSession } from "./start-session";
