import { SIDE_WORDS } from "../words";
/** The name every block of touching carries as its behaviour. */
export const TOUCH_BEHAVIOUR = "Touched all over";

/** Zones of the body, from the nose back. */
export const TOUCH_ZONES = [
  "muzzle",
  "cheek",
  "ears",
  "poll",
  "neck",
  "chest",
  "shoulder",
  "foreleg upper",
  "knee",
  "cannon",
  "fetlock",
  "hoof",
  "girth",
  "back",
  "belly",
  "flank",
  "thigh",
  "hock",
  "hind cannon",
  "hind fetlock",
  "hind hoof",
  "tail",
  "behind the tail",
] as const;
export type TouchZone = (typeof TOUCH_ZONES)[number];

/** What touches. The first four run towards the hand; the others come once the hand is accepted. */
export const TOUCH_TOOLS = ["stick", "rope", "brush", "hand", "halter", "clipper", "spray"] as const;
export type TouchTool = (typeof TOUCH_TOOLS)[number];
/** Tools from the farthest from the hand to the hand itself (common practice, no source). */
export const TOOLS_TOWARDS_HAND: readonly TouchTool[] = ["stick", "rope", "brush", "hand"];

const PAIRS: readonly (readonly [TouchZone, TouchZone])[] = [
  ["muzzle", "cheek"],
  ["cheek", "poll"],
  ["cheek", "neck"],
  ["ears", "poll"],
  ["poll", "neck"],
  ["neck", "shoulder"],
  ["neck", "chest"],
  ["chest", "shoulder"],
  ["chest", "foreleg upper"],
  ["shoulder", "foreleg upper"],
  ["shoulder", "girth"],
  ["foreleg upper", "girth"],
  ["foreleg upper", "knee"],
  ["knee", "cannon"],
  ["cannon", "fetlock"],
  ["fetlock", "hoof"],
  ["girth", "back"],
  ["girth", "belly"],
  ["back", "belly"],
  ["back", "flank"],
  ["belly", "flank"],
  ["flank", "thigh"],
  ["thigh", "hock"],
  ["thigh", "tail"],
  ["thigh", "behind the tail"],
  ["tail", "behind the tail"],
  ["hock", "hind cannon"],
  ["hind cannon", "hind fetlock"],
  ["hind fetlock", "hind hoof"],
];

const NEIGHBOURS = new Map<TouchZone, TouchZone[]>(TOUCH_ZONES.map((zone) => [zone, []]));
for (const [a, b] of PAIRS) {
  NEIGHBOURS.get(a)?.push(b);
  NEIGHBOURS.get(b)?.push(a);
}

/** Zones that lie beside a zone. @example besideZone("ears") // ["poll"] */
export const besideZone = (zone: TouchZone): readonly TouchZone[] => NEIGHBOURS.get(zone) ?? [];

/** Where touching usually begins: the horse sees it and few mind it (common practice, no source). */
export const FIRST_TOUCH_ZONE: TouchZone = "shoulder";

const KICK: readonly TouchZone[] = [
  "belly",
  "flank",
  "thigh",
  "hock",
  "hind cannon",
  "hind fetlock",
  "hind hoof",
  "tail",
  "behind the tail",
];
const STRIKE: readonly TouchZone[] = ["chest", "foreleg upper", "knee", "cannon", "fetlock", "hoof"];

/** The caution of a zone a horse can kick or strike to, or null. Common practice, no source. @example zoneCaution("hock") */
export function zoneCaution(zone: TouchZone): string | null {
  if (KICK.includes(zone)) return "Kick zone: stand close at the shoulder or out of reach, never behind; a stick first.";
  if (STRIKE.includes(zone)) return "Strike zone: stand beside the shoulder, not in front; bend at the hip, do not kneel.";
  if (zone === "ears" || zone === "muzzle") return "Keep your own face out of the way of its head.";
  return null;
}

/** One touch: a zone on a side with a tool, and how it was taken, 0 (frantic) to 4 (deeply relaxed). */
export interface Touch {
  readonly wallMs: number;
  readonly zone: TouchZone;
  readonly side: "L" | "R";
  readonly tool: TouchTool;
  readonly grade: number;
}

/** Grades from here up count as accepted. */
export const ACCEPTED_GRADE = 3;
/** Grades up to here are worrying. */
export const WORRYING_GRADE = 1;

export type ZoneState = "untouched" | "worrying" | "unsure" | "accepted";

/** How a grade reads on the map. @example stateOfGrade(2) // "unsure" */
export function stateOfGrade(grade: number | null): ZoneState {
  if (grade === null) return "untouched";
  if (grade >= ACCEPTED_GRADE) return "accepted";
  return grade <= WORRYING_GRADE ? "worrying" : "unsure";
}

/** What is known of a zone with one tool on one side: the last grade, when, and all before, oldest first. */
export interface ZoneRecord {
  readonly zone: TouchZone;
  readonly side: "L" | "R";
  readonly tool: TouchTool;
  readonly grade: number;
  readonly wallMs: number;
  readonly history: readonly { readonly wallMs: number; readonly grade: number }[];
}

const keyOf = (side: "L" | "R", zone: TouchZone, tool: TouchTool) => `${side}|${zone}|${tool}`;

/** Everything touched so far, by side, zone and tool. */
export class TouchMap {
  private readonly records = new Map<string, ZoneRecord>();

  /** @param touches in any order. */
  constructor(touches: readonly Touch[]) {
    for (const { wallMs, zone, side, tool, grade } of [...touches].sort((a, b) => a.wallMs - b.wallMs)) {
      const key = keyOf(side, zone, tool);
      const history = [...(this.records.get(key)?.history ?? []), { wallMs, grade }];
      this.records.set(key, { zone, side, tool, grade, wallMs, history });
    }
  }

  get all(): readonly ZoneRecord[] {
    return [...this.records.values()];
  }

  of(side: "L" | "R", zone: TouchZone, tool: TouchTool): ZoneRecord | null {
    return this.records.get(keyOf(side, zone, tool)) ?? null;
  }

  /** The last touch of a zone with any tool, newest first wins. */
  latest(side: "L" | "R", zone: TouchZone): ZoneRecord | null {
    return this.all
      .filter((r) => r.side === side && r.zone === zone)
      .reduce<ZoneRecord | null>((newest, r) => (newest === null || r.wallMs > newest.wallMs ? r : newest), null);
  }

  state(side: "L" | "R", zone: TouchZone, tool: TouchTool): ZoneState {
    return stateOfGrade(this.of(side, zone, tool)?.grade ?? null);
  }

  /**
   * The side to begin on: the lower mean grade over zones touched on both
   * sides with the same tool; left where neither is lower.
   */
  weakerSide(): { readonly side: "L" | "R"; readonly left: number | null; readonly right: number | null; readonly pairs: number } {
    let left = 0;
    let right = 0;
    let pairs = 0;
    for (const record of this.all) {
      if (record.side !== "L") continue;
      const other = this.of("R", record.zone, record.tool);
      if (other === null) continue;
      left += record.grade;
      right += other.grade;
      pairs++;
    }
    if (pairs === 0) return { side: "L", left: null, right: null, pairs };
    return { side: right < left ? "R" : "L", left: left / pairs, right: right / pairs, pairs };
  }

  /** How many zones of a side read as each state, with their last tool. */
  counts(side: "L" | "R"): Readonly<Record<ZoneState, number>> {
    const counts: Record<ZoneState, number> = { untouched: 0, worrying: 0, unsure: 0, accepted: 0 };
    for (const zone of TOUCH_ZONES) counts[stateOfGrade(this.latest(side, zone)?.grade ?? null)]++;
    return counts;
  }
}

/** The touch to try next, and why. */
export interface TouchProposal {
  readonly zone: TouchZone;
  readonly side: "L" | "R";
  readonly tool: TouchTool;
  readonly reason: string;
}

const other = (side: "L" | "R") => (side === "L" ? ("R" as const) : ("L" as const));

/** Zones not yet accepted with a tool on a side that lie beside one that is; the least worrying first, then the nearest to the start. */
function frontier(
  map: TouchMap,
  side: "L" | "R",
  tool: TouchTool,
  open: (zone: TouchZone) => boolean,
): { zone: TouchZone; beside: TouchZone | null }[] {
  const accepted = (zone: TouchZone) => map.state(side, zone, tool) === "accepted";
  const found = TOUCH_ZONES.filter((zone) => open(zone) && !accepted(zone)).flatMap((zone) => {
    const beside = besideZone(zone).find(accepted);
    return beside === undefined ? [] : [{ zone, beside }];
  });
  if (found.length === 0 && !TOUCH_ZONES.some(accepted) && open(FIRST_TOUCH_ZONE)) return [{ zone: FIRST_TOUCH_ZONE, beside: null }];
  // Worrying zones wait until everything easier round them is accepted.
  const rank = { unsure: 0, untouched: 1, worrying: 2, accepted: 3 } as const;
  return found.sort((a, b) => rank[map.state(side, a.zone, tool)] - rank[map.state(side, b.zone, tool)]);
}

/**
 * Proposes the next touch: beside a zone already accepted, on the weaker side
 * first, and where a tool has gone everywhere it may, the tool one step nearer
 * to the hand.
 * @param offLimits zones a restriction names; they are never proposed.
 * @returns null where every zone is accepted with the hand.
 * @example proposeTouch(map) // { zone: "neck", side: "L", tool: "stick", … }
 */
export function proposeTouch(map: TouchMap, offLimits: readonly string[] = []): TouchProposal | null {
  const barred = offLimits.map((zone) => zone.toLowerCase());
  const open = (zone: TouchZone) => !barred.includes(zone);
  const weaker = map.weakerSide();
  for (const [i, tool] of TOOLS_TOWARDS_HAND.entries()) {
    const nearer = TOOLS_TOWARDS_HAND.slice(i + 1);
    for (const side of [weaker.side, other(weaker.side)]) {
      // A tool is passed over on a zone where a nearer one is already accepted.
      const [next] = frontier(map, side, tool, (zone) => open(zone) && !nearer.some((one) => map.state(side, zone, one) === "accepted"));
      if (next === undefined) continue;
      const why =
        next.beside === null
          ? i === 0
            ? "a quiet place to begin"
            : `the ${TOOLS_TOWARDS_HAND[i - 1]} has gone where it may: one step nearer to the hand`
          : `beside the ${next.beside}, which is accepted`;
      const first =
        weaker.pairs > 0 && side === weaker.side && weaker.left !== weaker.right ? `; ${SIDE_WORDS[side]} is the weaker side` : "";
      return { zone: next.zone, side, tool, reason: `${why[0]?.toUpperCase()}${why.slice(1)}${first}.` };
    }
  }
  return null;
}
