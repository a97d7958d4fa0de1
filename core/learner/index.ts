export { type SimulatedAnswer, SimulatedHorse, type Temper } from "./learner";
