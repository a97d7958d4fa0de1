import "server-only";
import { getLadder, isOfCode, type Store, type StoredLadder } from "@/store";

/** A ladder that may lie in the bin or be gone since it was worked. */
export async function ladderOrNone(store: Store, id: string, version?: number): Promise<StoredLadder | null> {
  try {
    return await getLadder(store, id, version);
  } catch (error) {
    if (isOfCode(error, "not-found")) return null;
    throw error;
  }
}
