import "server-only";
import { getLadder, isOfCode, type Store, type StoredLadder } from "@/store";

/** A ladder that may lie in the bin, be gone since it was worked, or have a plan that this version cannot read. */
export async function ladderOrNone(store: Store, id: string, version?: number): Promise<StoredLadder | null> {
  try {
    return await getLadder(store, id, version);
  } catch (error) {
    if (isOfCode(error, "not-found") || isOfCode(error, "unread")) return null;
    throw error;
  }
}
