/** A colour of the theme, each with its one job. */
export type ChartColour = "tarn" | "ochre" | "plum" | "sage" | "brick" | "ink" | "soft";

/** A place along the chart: a session, or an ask. */
export interface ChartPoint {
  /** Milliseconds since 1970 on an axis of days, otherwise a number. */
  readonly x: number;
  /** What was special about it, in words; such a point is drawn with a mark under it. */
  readonly marks?: readonly string[];
  /** Where it leads. */
  readonly href?: string;
}

/** One line of values, one for each point. */
export interface ChartSeries {
  readonly name: string;
  readonly colour: ChartColour;
  /** Open rings joined by a line, steps, points alone, ticks across the line, or a dashed line without points. */
  readonly style: "line" | "steps" | "points" | "ticks" | "dashes";
  readonly values: readonly (number | null)[];
  /** Ends of each value's interval. */
  readonly low?: readonly (number | null)[];
  readonly high?: readonly (number | null)[];
  /** Each value as it is said, for the line under the chart and the table. */
  readonly words: readonly (string | null)[];
}

/** A chart as plain data: drawn, read out point by point, shown as a table, saved as a picture or a file. */
export interface ChartSpec {
  readonly title: string;
  readonly points: readonly ChartPoint[];
  readonly series: readonly ChartSeries[];
  readonly x: { readonly kind: "day" | "number"; readonly title: string };
  readonly y: {
    readonly title: string;
    readonly least?: number;
    readonly most?: number;
    readonly log?: boolean;
    readonly percent?: boolean;
    readonly whole?: boolean;
  };
  /** Lines across the chart with a word at their head: a new plan, a break, another handler. */
  readonly seams?: readonly { readonly x: number; readonly label: string }[];
}
