export { actsBefore, doNextOf, touchesBefore, usualSigns } from "./before";
export { type CareOnDay, careOn, heatLower } from "./care";
export {
  type CirclePack,
  type CircleState,
  COOL_HOURS,
  cautionsOfPlan,
  circleState,
  loadEntriesOf,
  type OpenCoolDown,
  openCoolDowns,
  rampCapsOf,
  USUAL_START,
} from "./circle";
export { kitUseOf } from "./kit-use";
export { readHorse, readYard } from "./read-pack";
export { byStanding, type Standing, type StandingLadder, type StandingOn, standing } from "./standing";
export { momentOn, type Today, todayOf, UNREAD_WORDS } from "./today";
export { leftOfCircling, usedUp } from "./used-up";
