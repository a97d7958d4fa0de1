import type { BehaviourTemplate } from "@/core/behaviour";
import { CIRCLE } from "./circle";
import { DRIVING } from "./driving";
import { FREE } from "./free";
import { HANDLING } from "./in-hand-handling";
import { PLACES } from "./in-hand-places";
import { YIELDS } from "./in-hand-yields";

/** Every behaviour the app knows how to begin, in the order it is told. */
export const LIBRARY: readonly BehaviourTemplate[] = [...YIELDS, ...PLACES, ...HANDLING, ...CIRCLE, ...FREE, ...DRIVING];

const byKey = new Map(LIBRARY.map((template) => [template.key, template]));

/** The template of a key, or undefined where there is none. */
export const templateOf = (key: string): BehaviourTemplate | undefined => byKey.get(key);
