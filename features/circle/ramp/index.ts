export { RampView } from "./ramp-view";
