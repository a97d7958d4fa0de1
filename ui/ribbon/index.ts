export { layOutRibbon, type RibbonDrawing, type RibbonView, trialWords } from "./geometry";
export { OutcomeIcon, OutcomeSign } from "./outcome-sign";
export { Ribbon } from "./ribbon";
export { layOutSmallRibbon, SmallRibbon } from "./small-ribbon";
export { ZoomRibbon } from "./zoom-ribbon";
