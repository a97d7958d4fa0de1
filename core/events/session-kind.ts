import { keysOf } from "../typed";
/** What a kind of session is: the one place that says it. */
export interface SessionKindFacts {
  /** What lists and sums call it. */
  readonly word: string;
  /** Whether what is asked in it is evidence of ladders: of any it works, of the one it was begun on alone, or of none. */
  readonly evidence: "any ladder" | "its ladder" | "none";
  /** What it asks of the horse: watching asks nothing, and is open when work is not. */
  readonly asks: "work" | "nothing";
  /** Which recorder it opens. */
  readonly recorder: "work" | "circle" | "touch" | "connection" | "signs";
  /** What the recorder of work goes by in it. */
  readonly plan: "ladders" | "battery" | "circle" | "none";
  /** What must be there before it begins. */
  readonly needs: "nothing" | "circle plan";
  /** Whether its signs are held against the horse's usual. */
  readonly signs: boolean;
}

/** Every kind of session. What an ask of the first look or of the body map comes to is a trial too, of no ladder. */
export const SESSION_KIND_FACTS = {
  work: { word: "work", evidence: "any ladder", asks: "work", recorder: "work", plan: "ladders", needs: "nothing", signs: true },
  "first-look": { word: "first look", evidence: "none", asks: "work", recorder: "work", plan: "battery", needs: "nothing", signs: true },
  touch: { word: "touching", evidence: "none", asks: "work", recorder: "touch", plan: "none", needs: "nothing", signs: true },
  connection: {
    word: "what it goes to",
    evidence: "none",
    asks: "nothing",
    recorder: "connection",
    plan: "none",
    needs: "nothing",
    signs: false,
  },
  signs: { word: "watched at rest", evidence: "none", asks: "nothing", recorder: "signs", plan: "none", needs: "nothing", signs: true },
  circle: {
    word: "on the circle",
    evidence: "its ladder",
    asks: "work",
    recorder: "circle",
    plan: "circle",
    needs: "circle plan",
    signs: true,
  },
} as const satisfies Readonly<Record<string, SessionKindFacts>>;

export type SessionKind = keyof typeof SESSION_KIND_FACTS;
export const SESSION_KINDS = keysOf(SESSION_KIND_FACTS);

/**
 * What a kind is. @throws RangeError where there is no such kind.
 * @example kindFacts("circle").evidence // "its ladder"
 */
export function kindFacts(kind: string): SessionKindFacts {
  const facts = (SESSION_KIND_FACTS as Readonly<Record<string, SessionKindFacts>>)[kind];
  if (facts === undefined || !Object.hasOwn(SESSION_KIND_FACTS, kind)) throw new RangeError(`There is no session of kind ${kind}.`);
  return facts;
}

/**
 * The kinds of which something holds, in the table's order.
 * @example kindsWhere(({ asks }) => asks === "nothing") // ["connection", "signs"]
 */
export const kindsWhere = (holds: (facts: SessionKindFacts) => boolean): readonly SessionKind[] =>
  SESSION_KINDS.filter((kind) => holds(SESSION_KIND_FACTS[kind]));

/** Kinds whose asks count for a ladder. */
export const WORK_KINDS: readonly SessionKind[] = kindsWhere(({ evidence }) => evidence !== "none");

/** What a block of watching is about: signs at rest, and what the horse goes to. */
export const REST_BEHAVIOUR = "Signs at rest";
export const CONNECTION_BEHAVIOUR = "What it goes to";

/** Whether a block asks nothing: the horse is only watched in it. @example isWatching({ … }) // true */
export const isWatching = ({ ladder, behaviour }: { readonly ladder: string | null; readonly behaviour: string }): boolean =>
  ladder === null && (behaviour === REST_BEHAVIOUR || behaviour === CONNECTION_BEHAVIOUR);

/**
 * Whether nothing is asked in a session of this kind: the horse is only watched.
 * @example isWatch("signs") // true
 */
export const isWatch = (kind: SessionKind): boolean => SESSION_KIND_FACTS[kind].asks === "nothing";

/**
 * Whether what was asked in a session of this kind is evidence of a ladder.
 * @example isWork("circle") // true
 */
export const isWork = (kind: SessionKind): boolean => SESSION_KIND_FACTS[kind].evidence !== "none";

/**
 * Whether a session of this kind works any of the horse's ladders, from one to
 * another: it is the only one to run, takes kit along, and leaves a line for next time.
 * @example worksLadders("circle") // false
 */
export const worksLadders = (kind: SessionKind): boolean => SESSION_KIND_FACTS[kind].evidence === "any ladder";
