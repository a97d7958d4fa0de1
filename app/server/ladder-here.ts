import "server-only";
import { notFound, redirect } from "next/navigation";
import { getLadder, isOfCode, type Store, type StoredLadder } from "@/store";

/** The ladder of a page: one that is not this horse's gives the 404 page, one that this version cannot read the page where it is mended. */
export async function ladderHere(store: Store, horseId: string, id: string): Promise<StoredLadder> {
  let ladder: StoredLadder;
  try {
    ladder = await getLadder(store, id);
  } catch (error) {
    if (isOfCode(error, "not-found")) notFound();
    if (isOfCode(error, "unread")) redirect(`/horses/${horseId}/shape/${id}/mend`);
    throw error;
  }
  if (ladder.horseId !== horseId) notFound();
  return ladder;
}
