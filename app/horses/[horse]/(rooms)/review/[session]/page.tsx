import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { Review } from "@/features/review/review";
import { getLadder, loadSession } from "@/store";
import { findOr404 } from "../../../../../server/find-or-404";
import { ladderState } from "../../../../../server/ladder-state";
import { getStore } from "../../../../../server/store";

export const metadata: Metadata = { title: "Review" };

export default async function ReviewPage({ params }: { params: Promise<{ horse: string; session: string }> }) {
  const { horse, session: id } = await params;
  const store = await getStore();
  const { session, record } = await findOr404(loadSession(store, id));
  if (session.horse_id !== horse) notFound();
  const { next } = await ladderState(store, await findOr404(getLadder(store, session.ladder_id)));
  return <Review storeId={store.id} horseId={horse} sessionId={id} record={record} next={next} />;
}
