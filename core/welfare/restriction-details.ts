import { TOUCH_ZONES } from "../know/touch-map";
import { GAITS_SLOWEST_FIRST, type RestrictionDetail } from "./restrictions";

/** What the detail of a restriction may be, by what kind of detail it is; undefined where there is none to choose. */
export const RESTRICTION_DETAILS: Readonly<Partial<Record<RestrictionDetail, readonly string[]>>> = {
  gait: GAITS_SLOWEST_FIRST,
  side: ["left", "right"],
  "touch-zone": TOUCH_ZONES,
};
