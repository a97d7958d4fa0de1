import type { PackedHorse, PackedYard } from "@/core/pack";
import { keepMe } from "../device/me";
import { bodyOf, reach } from "../device/reach";
import { forgetOthers, horseFetchedMs, keepHorse, keepYard, keptHorses, lyingYard } from "./keep";

/** The horse in hand is fetched anew after this time, the others of the yard after the longer one. */
const IN_HAND_FRESH_MS = 60_000;
const OTHERS_FRESH_MS = 3 * 3_600_000;
/** Between two horses, so that the server's other work gets in between. */
const PAUSE_MS = 150;

export const NOT_SIGNED_IN = "Not signed in on this device.";

/** Fetches the yard's facts and keeps them. @throws with words where the server does not answer. */
export async function fetchYard(): Promise<PackedYard> {
  const before = Date.now();
  const response = await reach("/api/pack");
  const yard = response.ok ? await bodyOf<PackedYard>(response) : null;
  if (yard === null) throw new Error(response.status === 401 ? NOT_SIGNED_IN : "The server does not answer.");
  const after = Date.now();
  keepMe(yard.me);
  await keepYard({ store: yard.store, yard, fetchedMs: before, offsetMs: Math.round(yard.nowMs - (before + after) / 2) });
  await forgetOthers(
    yard.store,
    yard.horses.map(({ id }) => id),
  );
  return yard;
}

/** Fetches one horse and keeps it. */
export async function fetchHorse(store: string, horse: string): Promise<PackedHorse> {
  const before = Date.now();
  const response = await reach(`/api/pack/${encodeURIComponent(horse)}`);
  const pack = response.ok ? await bodyOf<PackedHorse>(response) : null;
  if (pack === null) throw new Error("The server does not answer.");
  await keepHorse(store, pack, before);
  return pack;
}

let running = false;

/** Fetches the horses that are not fresh: the one in hand first, the others one after another. */
export async function refreshHorses({ store, horses }: PackedYard, inHand: string | null): Promise<void> {
  if (inHand !== null && horses.some(({ id }) => id === inHand)) {
    const fetchedMs = await horseFetchedMs(store, inHand);
    if (fetchedMs === null || Date.now() - fetchedMs > IN_HAND_FRESH_MS) await fetchHorse(store, inHand);
  }
  const fetched = await keptHorses(store);
  for (const { id } of horses) {
    if (id === inHand || Date.now() - (fetched.get(id) ?? 0) < OTHERS_FRESH_MS) continue;
    await fetchHorse(store, id);
    await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
  }
}

/**
 * Brings what this device keeps up to date: the yard, the horse in hand, then
 * every other horse that was not fetched for some hours, one after another.
 */
export async function refreshKept(inHand: string | null): Promise<void> {
  if (running) return;
  running = true;
  try {
    // A page after the other of the same horse asks for nothing again.
    const had = await lyingYard();
    const fresh = (fetchedMs: number | undefined) => fetchedMs !== undefined && Math.abs(Date.now() - fetchedMs) < IN_HAND_FRESH_MS;
    if (had !== null && fresh(had.fetchedMs) && (inHand === null || fresh((await horseFetchedMs(had.store, inHand)) ?? undefined))) return;
    await refreshHorses(await fetchYard(), inHand);
  } finally {
    running = false;
  }
}
