import { type PackedEvidence, packEvidence, unpackEvidence } from "../record";
import type { HorsePack, PackLadder } from "./types";
import { PACK_VERSION } from "./versions";

/** A pack as it travels and lies on a device: the trials of its ladders in short. */
export type PackedHorse = Omit<HorsePack, "ladders" | "unread"> & {
  readonly version: number;
  readonly ladders: readonly (Omit<PackLadder, "trials"> & { readonly trials: readonly PackedEvidence[] })[];
};

/** Packs a horse. @example unpackHorse(packHorse(pack)) // the same */
export const packHorse = ({ unread: _unread, ...pack }: HorsePack): PackedHorse => ({
  ...pack,
  version: PACK_VERSION,
  ladders: pack.ladders.map((ladder) => ({ ...ladder, trials: packEvidence(ladder.trials) })),
});

/** And back, on the device; see {@link horseForward} for one that another version of the program kept. @example unpackHorse({ … }) */
export const unpackHorse = ({ version: _version, ...packed }: PackedHorse): HorsePack => ({
  ...packed,
  ladders: packed.ladders.map((ladder) => ({ ...ladder, trials: unpackEvidence(ladder.trials) })),
});
