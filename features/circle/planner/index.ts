export { CirclePlanner } from "./circle-planner";
