import { type Day, isDay } from "../day";
import { isOneOf } from "../typed";
import { goneAgainstIn, LIMBS, RESTRICTION_FACTS, type Restriction, type RestrictionKind, UNREAD } from "../welfare/restrictions";
import { RESTRICTION_DETAILS } from "./restriction";

/** A restriction as it is kept: whatever a program wrote, perhaps another version of this one. */
export interface KeptRestriction {
  readonly kind: unknown;
  readonly amount: unknown;
  readonly detail: unknown;
  readonly limb?: unknown;
  readonly carries_others?: unknown;
  readonly reason: unknown;
  readonly given_by: unknown;
  readonly from_day: unknown;
  readonly until_day: unknown;
  /** JSON list of {@link GoneAgainst}. */
  readonly gone_against?: unknown;
}

const text = (value: unknown): string => (typeof value === "string" ? value : value == null ? "" : String(value));
const nothing = (value: unknown): boolean => value === null || value === undefined || value === "";
const MOST_RAW_CHARACTERS = 300;

/** Whether its kind, and what its kind needs, mean something to this version. */
function isRead({ kind, amount, detail, from_day, until_day }: KeptRestriction): boolean {
  if (typeof kind !== "string" || !Object.hasOwn(RESTRICTION_FACTS, kind)) return false;
  const facts = RESTRICTION_FACTS[kind as RestrictionKind];
  const [least, most] = facts.range;
  if (facts.detail === "amount" && !(typeof amount === "number" && amount >= least && amount <= most)) return false;
  const details = RESTRICTION_DETAILS[facts.detail];
  if (details !== undefined && !details.includes(text(detail))) return false;
  return [from_day, until_day].every((day) => nothing(day) || isDay(day));
}

/** Everything that was written of it, in a line. */
const rawWords = (row: KeptRestriction): string =>
  [row.kind, row.amount, row.detail, row.limb, row.reason, row.given_by, row.from_day, row.until_day]
    .filter((value) => !nothing(value))
    .map(text)
    .join(", ")
    .slice(0, MOST_RAW_CHARACTERS);

/**
 * A restriction as it is kept. One whose kind, amount, detail or days mean
 * nothing to this version holds from now on with no end, closes all work and
 * says what was written: silence is never a yes.
 *
 * @example readRestriction({ kind: "no-jumping", amount: null, detail: "", reason: "", given_by: "", from_day: null, until_day: null }).kind // "unread"
 */
export function readRestriction(row: KeptRestriction): Restriction {
  const against = goneAgainstIn(row.gone_against);
  const goneAgainst = against.length === 0 ? {} : { goneAgainst: against };
  if (!isRead(row))
    return { kind: UNREAD, amount: null, detail: null, reason: rawWords(row), givenBy: "", from: null, until: null, ...goneAgainst };
  const day = (value: unknown): Day | null => (nothing(value) ? null : (value as Day));
  return {
    kind: row.kind as RestrictionKind,
    amount: typeof row.amount === "number" ? row.amount : null,
    detail: nothing(row.detail) ? null : text(row.detail),
    // What is not one of the legs or sides means all of them.
    limb: isOneOf(LIMBS, row.limb) ? row.limb : null,
    carriesOthers: row.carries_others === "yes" ? true : row.carries_others === "no" ? false : null,
    reason: text(row.reason),
    givenBy: text(row.given_by),
    from: day(row.from_day),
    until: day(row.until_day),
    ...goneAgainst,
  };
}
