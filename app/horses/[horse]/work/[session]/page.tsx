import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { openSession } from "@/core/start";
import { MOST_DRAWN_TAPS, TooLong } from "@/features/review/too-long";
import { SessionRecorder } from "@/features/session/session-recorder";
import { CHAIN_KEY } from "@/features/work/run-address";
import { getHorse, loadSession, sizeOfSession } from "@/store";
import { findOr404 } from "../../../../server/find-or-404";
import { begunOf, horsePack, yardFacts } from "../../../../server/pack";
import { getStore } from "../../../../server/store";

export const metadata: Metadata = { title: "Work" };

export default async function RecorderPage({
  params,
  searchParams,
}: {
  params: Promise<{ horse: string; session: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const { horse: horseId, session: sessionId } = await params;
  const store = await getStore();
  const size = await findOr404(sizeOfSession(store, sessionId));
  if (size.taps > MOST_DRAWN_TAPS)
    return (
      <main className="mx-auto max-w-2xl px-5 py-16">
        <TooLong horseId={horseId} sessionId={sessionId} {...size} />
      </main>
    );
  const { session, events, offsets, position } = await findOr404(loadSession(store, sessionId));
  if (session.horse_id !== horseId) notFound();
  const horse = await findOr404(getHorse(store, horseId));
  const [pack, yard] = await Promise.all([horsePack(store, horse), yardFacts(store)]);
  const begun = begunOf(session);
  const soFar = { storeId: store.id, events, clocks: Object.fromEntries(offsets), position };
  const { [CHAIN_KEY]: chain } = await searchParams;
  return (
    <SessionRecorder opened={openSession(pack, yard, store.now(), begun, soFar, "all")} chain={typeof chain === "string" ? chain : null} />
  );
}
