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
export { covers, MOST_PREREQUISITES, type Prerequisite, prerequisiteWords, rungReaching } from "./prerequisite";
export {
  isStale,
  monthOf,
  type PrerequisiteReadiness,
  prerequisiteReadiness,
  type ReadinessState,
  type ReadinessTime,
  readinessWarning,
  type WorkedLadder,
} from "./readiness";
export {
  type BehaviourTemplate,
  behaviourFromTemplate,
  type CommonFault,
  defaultMethod,
  FAMILIES,
  type Family,
  faultWords,
  inTheWay,
  methodsOf,
  planFromTemplate,
  type RuleOfThumb,
  startAndGoal,
  TEMPLATE_DEFAULTS,
  type TemplateWay,
  taughtBy,
  type WayWords,
  wordsOfWay,
} from "./template";
