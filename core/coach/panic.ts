/** The panic exit: it stands above every other rule. Common practice, no source. */
export const PANIC_EXIT = "Rears, runs back, goes down, a leg in the line, frantic: give line at once, then press danger.";

/** What a try gets, said the same by the coach, the guide and the card. */
export const ON_A_TRY = "A try: hold, no more. Let go on the smallest answer this rung calls right.";

/** What a wrong answer gets. */
export const ON_A_WRONG_ANSWER = "Wrong answer. Hold; don't add, don't release.";

/** A kick at a rope on the leg: fault, coach and stop card say the same. Common practice, no source. */
export const KICK_AT_ROPE =
  "The rope follows the foot without weight, 5 s at most. Let it go if the horse hops, staggers, kicks harder or turns on you. Then end here; a rung lower next time.";

/** The behaviours of the library that are worked with a rope on a leg, by key. */
const ROPE_ON_LEG: ReadonlySet<string> = new Set(["first-foot-rope"]);

/** Whether a ladder is worked with a rope on a leg, by its template. @example hasRopeOnLeg("first-foot-rope") // true */
export const hasRopeOnLeg = (template: string | null | undefined): boolean => ROPE_ON_LEG.has(template ?? "");
