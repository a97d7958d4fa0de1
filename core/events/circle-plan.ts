/** On a line round the handler, driven loose in a pen, or in long lines with the handler behind. */
export const CIRCLE_FORMS = ["circle", "pen", "lines"] as const;
export type CircleForm = (typeof CIRCLE_FORMS)[number];

/** Gaits a segment may ask for, from the slowest. */
export const CIRCLE_GAITS = ["stand", "walk", "trot", "canter"] as const;
export type CircleGait = (typeof CIRCLE_GAITS)[number];

/** How the radius was found. */
export const RADIUS_BY = ["line", "paces", "metres"] as const;
/** When transitions come. */
export const TRANSITIONS_BY = ["will", "time", "quarter", "lap"] as const;
/** Both ways in one session, or one way a day in turn. */
export const WAYS = ["both", "turn"] as const;
export type Ways = (typeof WAYS)[number];

/** The stages of new kit, in order. */
export const KIT_STAGES = ["one part", "the other part", "both loose", "led in hand", "on the circle"] as const;
export type KitStage = (typeof KIT_STAGES)[number];

export interface CircleSegment {
  readonly gait: CircleGait;
  readonly side: "L" | "R";
  readonly minutes: number;
}

/** Long lines and driving steps: what is on and who is where. */
export interface LinesSetup {
  /** Two lines on a circle, walking behind, or straight out. */
  readonly step: string;
  readonly blinkers: "on" | "off" | "none";
  readonly traces: boolean;
  readonly breeching: boolean;
  /** Somebody leads at the head. */
  readonly head: string;
  readonly traffic: "L" | "R" | "none";
  /** A steady companion alongside: its name, on which side, its rope slack or not, where its head stands. */
  readonly companion: { readonly name: string; readonly side: "L" | "R"; readonly rope_slack: boolean; readonly head_at: string } | null;
  /** Whether the quick release was tried before. */
  readonly release_checked: boolean;
}

/** What a session on the circle is to be. The same shape is kept, sent and logged. */
export interface CirclePlan {
  readonly form: CircleForm;
  /** Null in long lines away from a circle, and in a pen. */
  readonly radius_m: number | null;
  readonly radius_by: (typeof RADIUS_BY)[number];
  readonly segments: readonly CircleSegment[];
  readonly transitions: {
    readonly by: (typeof TRANSITIONS_BY)[number];
    readonly every: number | null /** The gait whose transitions are asks of the ladder; null: every one. */;
    readonly to: string | null;
  };
  readonly obstacles: readonly string[];
  readonly led_first: boolean;
  readonly ways: Ways;
  readonly kit: string | null;
  readonly kit_stage: KitStage | null;
  readonly lines: LinesSetup | null;
}

/** A caution gone against with a word of why. */
export interface CircleOverride {
  readonly key: string;
  readonly why: string;
}

/** Most segments of a plan. */
export const MOST_SEGMENTS = 24;
