export { type HeardMark, MarkListener, REFRACTORY_MS } from "./mark-listener";
export { HOP_MS } from "./spectrum";
export { FEWEST_SAMPLES, MOST_SAMPLES, type Taught, type TaughtSound, TaughtSounds, teachMark } from "./teach";
export { BANDS, isTemplate, type MarkTemplate } from "./template";
