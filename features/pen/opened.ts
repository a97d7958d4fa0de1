import type { HorsePack, PackedYard } from "@/core/pack";
import { readHorse, readYard } from "@/core/today";
import { fieldsOf } from "@/core/typed";
import { keepMe, knownMe } from "../device/me";
import { horseOf, type LyingYard, lyingHorse, lyingHorses, lyingYard } from "./keep";

// Apart from what keeps: every page of the program brings the copy up to date, only the pen reads it.

/** The yard as this device keeps it, brought to this version of the program. */
export interface KeptYard {
  readonly store: string;
  readonly yard: PackedYard;
  /** Why this program could not read it, where it could not: then only names are left. Never put away. */
  readonly unread?: string;
  /** When it was fetched, and how the server's clock stood to this device's then. */
  readonly fetchedMs: number;
  readonly offsetMs: number;
}

/** Why something could not be read, in words. */
const whyOf = (error: unknown) => (error instanceof Error ? error.message : String(error));

/** The yard as it lies here, brought to this version of the program; what cannot be read leaves its names. */
async function opened(lying: LyingYard): Promise<KeptYard> {
  try {
    return { ...lying, yard: readYard(lying.yard) };
  } catch (error) {
    const { bareYard } = await import("@/core/pack/bare");
    const others = (await lyingHorses(lying.store)).flatMap((one) => {
      const name = fieldsOf(fieldsOf(one.pack).horse).name;
      return typeof name === "string" ? [{ id: horseOf(one, lying.store), name }] : [];
    });
    const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
    return { ...lying, yard: bareYard({ ...Object(lying.yard), store: lying.store }, zone, others), unread: whyOf(error) };
  }
}

/** The yard this device was last with, or null where it never was. */
export async function keptYard(): Promise<KeptYard | null> {
  const lying = await lyingYard();
  if (lying === null) return null;
  const kept = await opened(lying);
  // A browser that was killed may have lost who this device is to the server.
  if (knownMe() === null) keepMe(kept.yard.me);
  return kept;
}

/** A horse as it is kept here, brought to this version of the program; of one that cannot be read what is needed to record it. */
export async function keptHorse(
  { store, yard, unread, offsetMs }: KeptYard,
  horse: string,
): Promise<{ readonly pack: HorsePack; readonly fetchedMs: number } | null> {
  const lying = await lyingHorse(store, horse);
  if (lying === undefined) return null;
  const { pack, fetchedMs } = lying;
  try {
    if (unread !== undefined) throw new Error(unread);
    return { pack: readHorse(pack, yard.facts, Date.now() + offsetMs), fetchedMs };
  } catch (error) {
    const { bareHorse } = await import("@/core/pack/bare");
    const name = yard.horses.find(({ id }) => id === horse)?.name ?? "";
    return { pack: bareHorse(pack, { id: horse, name }, whyOf(error)), fetchedMs };
  }
}
