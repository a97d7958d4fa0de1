export { LoadView } from "./load-view";
