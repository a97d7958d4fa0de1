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
export { type LaidRung, type LayoutOptions, type LayoutOrder, type LayoutStrand, layOut, MOST_LAID_RUNGS } from "./layout";
