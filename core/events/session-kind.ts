/** What a session is for: work on a ladder, work on the circle, or getting to know the horse. */
export const SESSION_KINDS = ["work", "first-look", "touch", "connection", "signs", "circle"] as const;
export type SessionKind = (typeof SESSION_KINDS)[number];

/** Kinds whose asks count for a ladder. What a first look or the body map asks is a trial too, of no ladder. */
export const WORK_KINDS: readonly SessionKind[] = ["work", "circle"];

/** What a block of watching is about: signs at rest, and what the horse goes to. */
export const REST_BEHAVIOUR = "Signs at rest";
export const CONNECTION_BEHAVIOUR = "What it goes to";

/** Whether a block asks nothing: the horse is only watched in it. */
export const isWatching = ({ ladder, behaviour }: { readonly ladder: string | null; readonly behaviour: string }): boolean =>
  ladder === null && (behaviour === REST_BEHAVIOUR || behaviour === CONNECTION_BEHAVIOUR);

/**
 * Whether nothing is asked in a session of this kind: the horse is only watched.
 * @example isWatch("signs") // true
 */
export const isWatch = (kind: string): boolean => kind === "signs" || kind === "connection";

/**
 * Whether what was asked in a session of this kind is evidence of a ladder.
 * @example isWork("circle") // true
 */
export const isWork = (kind: string): boolean => (WORK_KINDS as readonly string[]).includes(kind);
