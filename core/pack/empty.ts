import { USUAL_SETUP } from "../circle";
import type { HorsePack, PackHorse } from "./types";

/** A pack of a horse of which nothing but what is said here is known: no ladder, nothing worked, nothing that restricts it. @example emptyPack(horse).ladders // [] */
export const emptyPack = (horse: PackHorse): HorsePack => ({
  horse,
  restrictions: [],
  ladders: [],
  digests: [],
  aftermaths: [],
  worked: [],
  open: [],
  chains: [],
  tries: [],
  circle: { setup: USUAL_SETUP, fits: [], byHand: [] },
  last: { person: null, place: null, kit: [] },
});
