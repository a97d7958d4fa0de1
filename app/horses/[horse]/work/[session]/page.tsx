import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { dayIn } from "@/core/day";
import { circleStart, packNow, recorderStart, shellStart, touchesBefore } from "@/core/pack";
import { CircleRecorder } from "@/features/circle/circle-recorder";
import { WatchRecorder } from "@/features/observe/watch-recorder";
import { MOST_DRAWN_TAPS, TooLong } from "@/features/review/too-long";
import { packStart } from "@/features/work/pack-start";
import { Recorder } from "@/features/work/recorder";
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
  const { kind } = session;
  if (kind === "touch" || kind === "connection" || kind === "signs")
    return (
      <WatchRecorder
        kind={kind}
        start={shellStart(pack, yard, packNow(pack, yard, store.now()), begun, soFar)}
        touches={touchesBefore(pack, sessionId)}
      />
    );
  if (kind === "circle")
    return <CircleRecorder start={circleStart(pack, yard, store.now(), begun, soFar)} today={dayIn(store.now(), yard.timeZone)} />;
  const { [CHAIN_KEY]: chain } = await searchParams;
  return (
    <Recorder packed={packStart(recorderStart(pack, yard, store.now(), begun, soFar))} chain={typeof chain === "string" ? chain : null} />
  );
}
