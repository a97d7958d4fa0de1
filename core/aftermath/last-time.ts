import { unusualRate } from "../evidence";
import { MILLISECONDS_PER_DAY } from "../units";
import type { AftermathEntry, SessionAftermath } from "./aftermath";

/** What last time asks of the next start. */
export interface LastTime {
  /** The highest rung to begin on. */
  readonly rung: number;
  /** Whether that is a test rather than teaching. */
  readonly test: boolean;
  readonly sentence: string;
}

/** What is looked at. */
export interface LastTimeInput {
  readonly ladder: string;
  readonly top: number;
  /** Work sessions of the horse with what they left, oldest first. */
  readonly aftermaths: readonly SessionAftermath[];
  /** The last work on the ladder: its session, when its last trial was and on which rung; null where there is none. */
  readonly last: { readonly session: string; readonly wallMs: number; readonly rung: number } | null;
  /** How far a horse's own usual goes back, in days. */
  readonly usualDays: number;
  /** Sessions shorter than this show no rate of signs, in minutes. */
  readonly leastMinutes: number;
}

/** From the gravest. */
const GRAVITY: readonly AftermathEntry["kind"][] = ["safety", "danger", "pain", "wrong"];

/** How many rungs lower it begins. */
const LOWER: Readonly<Record<AftermathEntry["kind"], number>> = { safety: 2, danger: 1, pain: 1, wrong: 1 };

const named = (entries: readonly AftermathEntry[], kind: AftermathEntry["kind"]) => {
  const names = [...new Set(entries.filter((one) => one.kind === kind).map(({ what }) => what))];
  const known = names.filter((name) => name !== "danger" && name !== "pain");
  return known.length === 0 ? (kind === "pain" ? "a sign of pain" : "danger") : known.join(", ");
};

function sentenceOf(entry: AftermathEntry, entries: readonly AftermathEntry[], rung: number): string {
  const lowest = rung <= 1 ? " Begin farther off, or with something it does calmly." : "";
  switch (entry.kind) {
    case "safety":
      return `Last time on rung ${entry.rung}: ${named(entries, "safety")}. ${entry.rung === 2 ? "Begin on rung 1" : "Begin two rungs lower than that"}, and give line at once if it comes again.${lowest}`;
    case "danger":
      return `Last time on rung ${entry.rung}: ${named(entries, "danger")}. Begin a rung lower than that.${lowest}`;
    case "pain":
      return `Last time: ${named(entries, "pain")}. Have a vet look before you work. Then test an easier rung first.`;
    case "wrong":
      return `Last time ${entry.what} wrong choices met pressure. Test an easier rung first.`;
  }
}

/**
 * What last time on a ladder asks of its next start: after the line had to be
 * given two rungs lower, after other danger one, after pain, many wrong
 * choices that met pressure, or tension over the horse's usual a test of the
 * rung below. Nothing wipes it but a later session of the ladder.
 * @returns null where nothing asks for anything.
 * @example lastTimeOn({ … }) // { rung: 1, test: true, … }
 */
export function lastTimeOn({ ladder, top, aftermaths, last, usualDays, leastMinutes }: LastTimeInput): LastTime | null {
  // The last session of the ladder, or a later one that came to no ask of it.
  const found = aftermaths.findLast(
    (one) =>
      (last !== null && one.session === last.session) ||
      (one.startedMs > (last?.wallMs ?? Number.NEGATIVE_INFINITY) && one.entries.some((entry) => entry.ladder === ladder)),
  );
  if (found === undefined) return null;
  const own = found.entries.filter((entry) => entry.ladder === ladder);
  const hurt = found.hurt === true && own.length > 0 ? " Somebody fell or was hurt: not alone, and with a professional." : "";
  const gravest = GRAVITY.flatMap((kind) => own.filter((entry) => entry.kind === kind))[0];
  if (gravest !== undefined) {
    const lowestOf = (kind: AftermathEntry["kind"]) => Math.min(...own.filter((one) => one.kind === kind).map((one) => one.rung));
    // Several rungs: the lowest on which the gravest came, and no kind is forgotten.
    const caps = GRAVITY.filter((kind) => own.some((one) => one.kind === kind)).map((kind) => lowestOf(kind) - LOWER[kind]);
    const rung = Math.max(1, Math.min(top, ...caps));
    const lowest = own.find((one) => one.kind === gravest.kind && one.rung === lowestOf(gravest.kind)) ?? gravest;
    const test = gravest.kind === "pain" || gravest.kind === "wrong" || lowest.rung <= 1;
    // A graver kind does not silence pain: it is the vet's, whatever else there was.
    const pain = gravest.kind !== "pain" && own.some(({ kind }) => kind === "pain");
    const vet = pain ? ` It also showed ${named(own, "pain")}: have a vet look before you work.` : "";
    return { rung, test, sentence: `${sentenceOf(lowest, own, lowest.rung)}${vet}${hurt}` };
  }
  if (last === null) return null;
  const before = aftermaths.filter(
    (one) => one.startedMs < found.startedMs && one.startedMs >= found.startedMs - usualDays * MILLISECONDS_PER_DAY,
  );
  const counted = (one: SessionAftermath) => ({ count: one.tension, minutes: one.minutes });
  const unusual = unusualRate(counted(found), before.map(counted), leastMinutes);
  if (unusual === null || !unusual.unusual || !unusual.above) return null;
  return {
    rung: Math.max(1, Math.min(top, last.rung - 1)),
    test: true,
    sentence: `It showed far more tension than usual last time, ${found.tension} signs in ${Math.max(1, Math.round(found.minutes))} min. Look for pain, then test an easier rung first.`,
  };
}
