export { layOutRibbon, type RibbonDrawing, type RibbonView, trialWords } from "./geometry";
export { OutcomeIcon, OutcomeMark, OutcomeSign, OutcomeSymbols } from "./outcome-sign";
export { Ribbon } from "./ribbon";
export { layOutSmallRibbon, SmallRibbon } from "./small-ribbon";
export { ZoomRibbon } from "./zoom-ribbon";
