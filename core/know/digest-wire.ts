import type { SideSession } from "../compare";
import type { KnowDigest } from "./digest";
import { NOTHING, type SessionRelief, type ZoneSums } from "./relief";
import { NO_SIGNS, noNames } from "./signs";

type PackedRelief = Omit<SessionRelief, "zones" | "stays"> & {
  /** Without what is 0. */
  readonly zones: readonly (Pick<ZoneSums, "zone"> & Partial<ZoneSums>)[];
  /** By the place of the zone among `zones`; a third number where the work ended first. */
  readonly stays: readonly (readonly [zone: number, seconds: number, cut?: 1])[];
};

type PackedCell = readonly [stratum: string, firstMet: number, first: number, secondMet: number, second: number, began: 0 | 1 | 2 | 3];

const packCell = ({ stratum, first, second, began }: SideSession[number]): PackedCell => [
  stratum,
  first.met,
  first.of,
  second.met,
  second.of,
  began === undefined ? 0 : began === "first" ? 1 : began === "second" ? 2 : 3,
];
const BEGAN = { 1: "first", 2: "second", 3: "turns" } as const;
/** A cell as it was kept before it was known what came first stands as it was. */
const readCell = (cell: PackedCell | SideSession[number]): SideSession[number] => {
  if ("stratum" in cell) return cell;
  const [stratum, firstMet, first, secondMet, second, began] = cell;
  return {
    stratum,
    first: { met: firstMet, of: first },
    second: { met: secondMet, of: second },
    ...(began === 0 ? {} : { began: BEGAN[began] }),
  };
};

/**
 * A digest as a short text: a zone's counts of 0 are left out, and a stay names its zone by number.
 * @example readDigest(packDigest(digest)) // digest
 */
export function packDigest({ relief, sides, ...rest }: KnowDigest): string {
  const at = new Map(relief.zones.map(({ zone }, i) => [zone, i]));
  const packed: PackedRelief = {
    ...relief,
    zones: relief.zones.map(
      (sums) => Object.fromEntries(Object.entries(sums).filter(([, value]) => value !== 0)) as Pick<ZoneSums, "zone"> & Partial<ZoneSums>,
    ),
    stays: relief.stays.map(({ zone, seconds, left }) => (left ? [at.get(zone) ?? 0, seconds] : [at.get(zone) ?? 0, seconds, 1])),
  };
  return JSON.stringify({ ...rest, sides: sides.map(packCell), relief: packed });
}

/** The digest out of its text. @example readDigest(text) // { atRest: false, beepSeconds: null, trials: 40, … } */
export function readDigest(text: string): KnowDigest {
  const { relief, sides, signs, ...rest } = JSON.parse(text) as Omit<KnowDigest, "relief" | "sides"> & {
    relief: PackedRelief;
    sides: readonly (PackedCell | SideSession[number])[];
  };
  const zones = relief.zones.map((sums) => ({ ...NOTHING, ...sums }));
  return {
    ...rest,
    // What was kept before a class of signs was known holds none of it.
    signs: { ...signs, byClass: { ...NO_SIGNS.byClass, ...signs.byClass }, byName: { ...noNames(), ...signs.byName } },
    sides: sides.map(readCell),
    relief: {
      ...relief,
      zones,
      stays: relief.stays.map(([zone, seconds, cut]) => ({ zone: zones[zone]?.zone ?? "", seconds, left: cut === undefined })),
    },
  };
}
