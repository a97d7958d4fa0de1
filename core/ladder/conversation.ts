import type * as z from "zod";
import { counted } from "../words";
import type { conversationDocument, pinnedSignDocument } from "./document/plan";

/** As their documents say them. */
export type Conversation = z.infer<typeof conversationDocument>;
export type PinnedSign = z.infer<typeof pinnedSignDocument>;
export type WhenWrong = NonNullable<Conversation["whenWrong"]>;
export type RigCheck = NonNullable<Conversation["rig"]>[number];

/** What a horse does when it chooses wrong; own words may stand beside them. */
export const WRONG_CHOICES = ["left", "backed out", "pulled", "crowded", "turned its quarters", "kicked at"] as const;

/** What it then met. */
export const WRONG_ANSWERS = ["moved on", "backed away farther", "tapped", "sent round", "let go and asked again", "ignored"] as const;

/** Answers that press on the horse no further: their seconds are no pressure. */
const WITHOUT_PRESSURE: readonly string[] = ["let go and asked again", "ignored"] satisfies readonly (typeof WRONG_ANSWERS)[number][];

/**
 * Whether what a wrong choice met was pressure. What was not said counts as
 * pressure: that is what the pad is for.
 * @example meetsPressure("ignored") // false
 */
export const meetsPressure = (met: string | null): boolean => met === null || !WITHOUT_PRESSURE.includes(met);

export const WRONG_BEGINS = ["first step", "edge", "far off"] as const;

/** The horse's own time that can be measured. */
export const OWN_TIMES = ["looks", "settles"] as const;
export type OwnTimeKind = (typeof OWN_TIMES)[number];

/** What a handler does that is worth counting; one of them is wanted. */
export const HANDLER_ACTS = ["steps", "pulled", "late", "spoke", "stepped back", "out of place", "good feel"] as const;
export type HandlerAct = (typeof HANDLER_ACTS)[number];

/** The act that is wanted: it is counted and never limited. */
export const WANTED_ACT: HandlerAct = "good feel";

/** How a movement is graded where the ladder has no words of its own. */
export const MOVEMENT_GRADES: readonly string[] = ["stiff", "short", "even", "free", "fluid"];

/** When a check of the rig is asked. */
export const RIG_TIMES = ["start", "side"] as const;

/** The plan for a wrong choice in one line, or null. @example whenWrongLine({ did: "left", met: "moved on", plan: "" }) // "If it left: moved on." */
export function whenWrongLine(plan: WhenWrong | undefined): string | null {
  if (plan === undefined) return null;
  const own = plan.plan.trim();
  if (own !== "") return `If it chooses wrong: ${own}${/[.?]$/.test(own) ? "" : "."}`;
  return plan.did === "" || plan.met === "" ? null : `If it ${plan.did}: ${plan.met}.`;
}

/** What a rung allows of the handler, in words. @example handlerMostWords({ act: "steps", most: 2 }) // "steps: at most 2 an ask" */
export const handlerMostWords = ({ act, most }: { readonly act: string; readonly most: number }): string =>
  act === "steps"
    ? most === 0
      ? "feet still"
      : `feet still: at most ${counted(most, "step")}`
    : `${act}: ${most === 0 ? "not at all" : `at most ${most} an ask`}`;
