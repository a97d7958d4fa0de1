export { CircleStrip, type StripStretch, stripWords } from "./circle-strip";
