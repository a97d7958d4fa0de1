export { SeriesChart } from "./series-chart";
export type { ChartColour, ChartPoint, ChartSeries, ChartSpec } from "./spec";
