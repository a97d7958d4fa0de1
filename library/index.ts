import type { BehaviourTemplate } from "@/core/behaviour";
import { CIRCLE } from "./circle";
import { CIRCLE_KIT } from "./circle-kit";
import { DRIVING } from "./driving";
import { HARNESS } from "./driving-harness";
import { FREE } from "./free";
import { PEN } from "./free-pen";
import { FEET } from "./in-hand-feet";
import { FIRST } from "./in-hand-first";
import { HANDLING } from "./in-hand-handling";
import { LEADING } from "./in-hand-leading";
import { MOVES } from "./in-hand-moves";
import { PLACES } from "./in-hand-places";
import { TIED } from "./in-hand-tied";
import { TRAVEL } from "./in-hand-travel";
import { YIELDS } from "./in-hand-yields";

/** Every behaviour the app knows how to begin, in the order it is told. */
export const LIBRARY: readonly BehaviourTemplate[] = [
  ...FIRST,
  ...YIELDS,
  ...LEADING,
  ...HANDLING,
  ...FEET,
  ...PLACES,
  ...TRAVEL,
  ...TIED,
  ...MOVES,
  ...CIRCLE,
  ...CIRCLE_KIT,
  ...PEN,
  ...FREE,
  ...HARNESS,
  ...DRIVING,
];

const byKey = new Map(LIBRARY.map((template) => [template.key, template]));

/** The template of a key, or undefined where there is none. */
export const templateOf = (key: string): BehaviourTemplate | undefined => byKey.get(key);
