export {
  CHAIN_DIRECTIONS,
  type ChainDirection,
  type ChainLink,
  type ChainState,
  chainState,
  type LinkKnown,
  type LinkState,
} from "./chain";
export { type ChainRun, chainRunsOf, type LinkInRuns, type RunningChain, type RunsOfChain, runsOfChain } from "./chain-runs";
export { behavioursUnder, type Foundations, foundationsOf, type GraphPart, graphOf, type KnownBehaviour } from "./foundations";
export { findCycle, type GraphNode, restsOn } from "./graph";
export { type Prerequisite, prerequisiteWords, rungReaching } from "./prerequisite";
export { type PrerequisiteReadiness, prerequisiteReadiness, readinessWarning, type WorkedLadder } from "./readiness";
export {
  type BehaviourTemplate,
  behaviourFromTemplate,
  type CommonFault,
  defaultMethod,
  FAMILIES,
  type Family,
  methodsOf,
  planFromTemplate,
  type RuleOfThumb,
  startAndGoal,
  TEMPLATE_DEFAULTS,
} from "./template";
