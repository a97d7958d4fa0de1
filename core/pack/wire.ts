import { type PackedEvidence, packEvidence, unpackEvidence } from "../record";
import type { HorsePack, PackLadder } from "./types";

/** A pack as it travels and lies on a device: the trials of its ladders in short. */
export type PackedHorse = Omit<HorsePack, "ladders"> & {
  readonly ladders: readonly (Omit<PackLadder, "trials"> & { readonly trials: readonly PackedEvidence[] })[];
};

/** Packs a horse. @example unpackHorse(packHorse(pack)) // the same */
export const packHorse = (pack: HorsePack): PackedHorse => ({
  ...pack,
  ladders: pack.ladders.map((ladder) => ({ ...ladder, trials: packEvidence(ladder.trials) })),
});

/** And back, on the device. */
export const unpackHorse = (packed: PackedHorse): HorsePack => ({
  ...packed,
  ladders: packed.ladders.map((ladder) => ({ ...ladder, trials: unpackEvidence(ladder.trials) })),
});
