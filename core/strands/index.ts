export { STRAND_CATALOGUE, startValue, strandFromCatalogue, templateOf } from "./catalogue";
export { difficulty, relativeHeights } from "./height";
export { type ClimbRule, numberPath, valuePath } from "./path";
export { type SentencePart, shortNumber, VALUE_HERE } from "./phrase";
export { notch } from "./sensible";
export { criterionParts, criterionSentence } from "./sentence";
export { GREATEST_STEP_RATIO, type StepFault, stepAllowed, stepFaults } from "./step-rule";
export { EASE_GRADES, MOST_LEVELS, STRAND_KEYS, type Strand, type StrandKey, type StrandTemplate, type StrandValue } from "./strand";
