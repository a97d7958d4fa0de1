import { USUAL_SETUP } from "../circle";
import { fromLog } from "../events/circle-log";
import { DEFAULT_SETTINGS } from "../settings";
import type { PackedYard } from "./types";
import type { PackedHorse } from "./wire";

/** The shape of a pack, of a horse and of the yard, as this program writes and reads it. What changes it raises it and adds a step. */
export const PACK_VERSION = 1;

/** A pack that this program cannot bring forward. */
export class PackProblem extends Error {
  override readonly name = "PackProblem";
  readonly code = "pack-unread";
}

type Raw = Readonly<Record<string, unknown>>;
interface Step {
  readonly horse: (pack: Raw) => Raw;
  readonly yard: (yard: Raw) => Raw;
}

const isRaw = (value: unknown): value is Raw => typeof value === "object" && value !== null && !Array.isArray(value);

/** Each brings a pack of its number to the next. Those of the last three versions stay. */
const STEPS: readonly Step[] = [
  // Programs up to 0.14.0 wrote no version, and left out what their server did not know.
  {
    horse: (pack) => ({
      ...pack,
      aftermaths: pack.aftermaths ?? [],
      chains: pack.chains ?? [],
      tries: pack.tries ?? [],
      circle: fromLog(pack.circle ?? { setup: USUAL_SETUP, fits: [], byHand: [] }),
      worked: (pack.worked as readonly Raw[]).map((one) => ({
        ...one,
        // Where it was not said how long each ladder was worked, each may have been worked all the time: no cap is passed by it.
        seconds: one.seconds ?? (one.ladders as readonly string[]).map(() => one.workSeconds),
      })),
    }),
    yard: ({ facts, ...yard }) => {
      if (!isRaw(facts)) throw new PackProblem("The yard has no facts.");
      return {
        ...yard,
        facts: {
          ...facts,
          settings: { ...DEFAULT_SETTINGS, ...(facts.settings as object) },
          ownSigns: facts.ownSigns ?? [],
          places: (facts.places as readonly Raw[]).map((place) => ({ acrossMetres: null, ...place })),
        },
      };
    },
  },
];

function forward(kept: unknown, part: keyof Step): Raw {
  if (!isRaw(kept)) throw new PackProblem("It is no pack.");
  const { version = 0 } = kept;
  if (typeof version !== "number" || !Number.isInteger(version) || version < 0 || version > PACK_VERSION)
    throw new PackProblem(`It is of version ${String(version)}; this program reads up to ${PACK_VERSION}.`);
  const missing = PACK_VERSION - STEPS.length;
  if (version < missing) throw new PackProblem(`It is of version ${version}; this program reads from ${missing} on.`);
  let pack = kept;
  for (const step of STEPS.slice(version - missing)) pack = step[part](pack);
  return { ...pack, version: PACK_VERSION };
}

/**
 * A horse's pack as a device kept it, brought to the present version.
 * @throws PackProblem, or what a pack of another shape makes it throw.
 * @example horseForward(kept.pack).version // PACK_VERSION
 */
export const horseForward = (kept: unknown): PackedHorse => forward(kept, "horse") as unknown as PackedHorse;

/** The same of the yard. @example yardForward(JSON.parse(kept)).version // the present one */
export const yardForward = (kept: unknown): PackedYard => forward(kept, "yard") as unknown as PackedYard;
