export { type MendedPlan, mendPlan } from "./mend";
export { pinnedSignDocument } from "./plan";
export { PLAN_FORMAT, planText, type ReadPlan, readPlanText } from "./read";
