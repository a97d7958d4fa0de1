import type { RestrictionInput } from "@/core/schemas";

/** One restriction as it stands, with whether it holds today. */
export interface ShownRestriction {
  readonly id: string;
  readonly sentence: string;
  /** Whether this version cannot read it: it is written anew or ended, and not gone against. */
  readonly unread: boolean;
  readonly holds: boolean;
  readonly when: string;
  readonly overlaps: boolean;
  /** Why it was ended, or null where it was not. */
  readonly ended: string | null;
  /** Days on which it was gone against, each with the reason. */
  readonly against: readonly { readonly words: string; readonly today: boolean }[];
  readonly input: RestrictionInput;
}
