export { How } from "./how";
export { LagStrip } from "./lag-strip";
export { ValueStrip } from "./value-strip";
export { Whisker } from "./whisker";
export { clockWords, decimals, minutesWords, percent } from "./words";
