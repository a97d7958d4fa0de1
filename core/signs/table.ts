/** Classes that say something of how the horse is. */
export const SIGN_CLASSES = ["ease", "tension", "danger", "pain"] as const;
export type SignClass = (typeof SIGN_CLASSES)[number];

/** All classes of signs: those, and plain counts that say nothing by themselves. */
export const SIGN_KINDS = [...SIGN_CLASSES, "count"] as const;
export type SignKind = (typeof SIGN_KINDS)[number];

/** Said of a threat where somebody stood within reach of it. */
export const THREAT_IN_REACH = "threatens to kick, in reach";
const THREAT = "threatens to kick";

/**
 * The signs of each class that can be tapped by name from the start; a yard
 * adds its own. Common practice, no source. A name stands in one class alone,
 * but for pawing, which some count and some hold for tension.
 */
export const SIGNS: Readonly<Record<SignKind, readonly string[]>> = {
  ease: ["licks and chews", "lowers head", "blows out", "softens eye", "ear on handler", "rests a hind foot", "deep breath"],
  tension: [
    "head high",
    "ears back",
    "tail swishes",
    "paws",
    "calls",
    "fixed stare",
    "freezes",
    "sweats",
    "rushes",
    "braces",
    "bites at",
    THREAT,
  ],
  danger: [
    "rears",
    "strikes",
    "kicks",
    "bucks",
    "turns quarters",
    "bolts",
    "pulls back",
    "runs back",
    "falls",
    "leg in the line",
    "frantic",
    THREAT_IN_REACH,
  ],
  pain: ["nods", "steps short", "guards a leg", "flinches at one place"],
  count: ["eats", "eyes on me", "takes the foot away", "paws"],
};

/** Wrong choices that are a sign of danger, with the name of that sign. */
const DANGEROUS_CHOICES: Readonly<Record<string, string>> = {
  "turned its quarters": "turns quarters",
  "kicked at": "kicks",
  kicked: "kicks",
  struck: "strikes",
  reared: "rears",
  bolted: "bolts",
  bucked: "bucks",
};

/** Classes a name of the table stands in, by name in small letters. */
const CLASSES_OF: ReadonlyMap<string, readonly SignKind[]> = (() => {
  const found = new Map<string, SignKind[]>();
  for (const kind of SIGN_KINDS) for (const name of SIGNS[kind]) found.set(name, [...(found.get(name) ?? []), kind]);
  return found;
})();

/**
 * Names a sign that was tapped on a class's pad may be given: its own; on the
 * stop card those of danger and of pain, since one looks like the other.
 * @example namesFor("pain") // ["nods", …]
 */
export function namesFor(kind: SignKind): readonly string[] {
  if (kind === "danger") return [...SIGNS.danger, ...SIGNS.pain];
  return kind === "pain" ? [...SIGNS.pain, ...SIGNS.danger] : SIGNS[kind];
}

/** Whether a sign means: stop now. @example stopsWork("pain") // true */
export const stopsWork = (kind: SignKind): boolean => kind === "danger" || kind === "pain";

/**
 * The class of a sign: by the table, whatever pad it was tapped on and
 * whatever an earlier version held it for; a sign the table does not know
 * keeps the class it was tapped with.
 * @param inReach whether a person stood where a kick reaches: a threat is then danger.
 * @example classOfSign("bucks", "count", false) // "danger"
 */
export function classOfSign(name: string, tapped: SignKind, inReach: boolean): SignKind {
  const known = name.trim().toLowerCase();
  if (known === THREAT) return inReach ? "danger" : "tension";
  const classes = CLASSES_OF.get(known);
  return classes === undefined || classes.includes(tapped) ? tapped : (classes[0] ?? tapped);
}

/**
 * The sign of danger a wrong choice is, or null where it is none.
 * @example dangerOfChoice("kicked at") // "kicks"
 */
export function dangerOfChoice(did: string | null): string | null {
  const said = (did ?? "").trim().toLowerCase();
  if (!Object.hasOwn(DANGEROUS_CHOICES, said)) return classOfSign(said, "count", false) === "danger" ? said : null;
  return DANGEROUS_CHOICES[said] ?? null;
}
