export { type Criterion, criterionOf } from "./criterion";
export {
  FEWEST_RUNGS,
  type LadderPlan,
  METHODS,
  type Method,
  MOST_RUNGS,
  OFFER_RULES,
  type OfferRule,
  type Rung,
  type Schedule,
} from "./ladder";
