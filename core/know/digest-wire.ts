import type { KnowDigest } from "./digest";
import { NOTHING, type SessionRelief, type ZoneSums } from "./relief";

type PackedRelief = Omit<SessionRelief, "zones" | "stays"> & {
  /** Without what is 0. */
  readonly zones: readonly (Pick<ZoneSums, "zone"> & Partial<ZoneSums>)[];
  /** By the place of the zone among `zones`; a third number where the work ended first. */
  readonly stays: readonly (readonly [zone: number, seconds: number, cut?: 1])[];
};

/**
 * A digest as a short text: a zone's counts of 0 are left out, and a stay names its zone by number.
 * @example readDigest(packDigest(digest)) // digest
 */
export function packDigest({ relief, ...rest }: KnowDigest): string {
  const at = new Map(relief.zones.map(({ zone }, i) => [zone, i]));
  const packed: PackedRelief = {
    ...relief,
    zones: relief.zones.map(
      (sums) => Object.fromEntries(Object.entries(sums).filter(([, value]) => value !== 0)) as Pick<ZoneSums, "zone"> & Partial<ZoneSums>,
    ),
    stays: relief.stays.map(({ zone, seconds, left }) => (left ? [at.get(zone) ?? 0, seconds] : [at.get(zone) ?? 0, seconds, 1])),
  };
  return JSON.stringify({ ...rest, relief: packed });
}

/** The digest out of its text. */
export function readDigest(text: string): KnowDigest {
  const { relief, ...rest } = JSON.parse(text) as Omit<KnowDigest, "relief"> & { relief: PackedRelief };
  const zones = relief.zones.map((sums) => ({ ...NOTHING, ...sums }));
  return {
    ...rest,
    relief: {
      ...relief,
      zones,
      stays: relief.stays.map(([zone, seconds, cut]) => ({ zone: zones[zone]?.zone ?? "", seconds, left: cut === undefined })),
    },
  };
}
