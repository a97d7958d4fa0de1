export {
  cellsOfSession,
  cellsOfTrials,
  oneSideKnown,
  type SidePicture,
  type SideSession,
  sidePicture,
} from "./sides";
export { FEWEST_SESSIONS_TO_TELL, RANGE_MEANS, SINCE_IT_CAME, type ToldShare, toldShare } from "./told-share";
