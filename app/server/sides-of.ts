import "server-only";
import { type SidePicture, sidePicture } from "@/core/compare";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import { type DigestedSession, digestsOfHorse, getSettings, type Store } from "@/store";

/** A horse's sides by these sessions, oldest first. */
export const sidesIn = (digests: readonly DigestedSession[]): SidePicture => sidePicture(digests.map(({ digest }) => digest.sides));

/** A horse's sides over the last days that count: the one picture every page goes by. */
export async function sidesOf(store: Store, horseId: string): Promise<SidePicture> {
  const { sidesDays } = await getSettings(store);
  return sidesIn(await digestsOfHorse(store, horseId, store.now() - sidesDays * MILLISECONDS_PER_DAY));
}
