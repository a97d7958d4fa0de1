import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import { WatchRecorder } from "@/features/observe/watch-recorder";
import { packStart } from "@/features/work/pack-start";
import { Recorder } from "@/features/work/recorder";
import { digestsOfHorse, getHorse, getPlace, getSettings, listPeople, loadSession } from "@/store";
import { findOr404 } from "../../../../server/find-or-404";
import { horseCare } from "../../../../server/horse-care";
import { LOOK_BACK_DAYS } from "../../../../server/horse-picture";
import { batteryPart, freePart, ladderParts, lastDoNext, usedUp } from "../../../../server/recorder-start";
import { sidesIn } from "../../../../server/sides-of";
import { getStore } from "../../../../server/store";

export const metadata: Metadata = { title: "Work" };

export default async function RecorderPage({ params }: { params: Promise<{ horse: string; session: string }> }) {
  const { horse: horseId, session: sessionId } = await params;
  const store = await getStore();
  const loaded = await findOr404(loadSession(store, sessionId));
  const { session } = loaded;
  if (session.horse_id !== horseId) notFound();
  const horse = await findOr404(getHorse(store, horseId));
  const [care, people, place, digests, wordSettings] = await Promise.all([
    horseCare(store, horse),
    listPeople(store),
    session.place_id === null ? null : getPlace(store, session.place_id),
    // As far back as Know looks.
    digestsOfHorse(store, horseId, store.now() - LOOK_BACK_DAYS * MILLISECONDS_PER_DAY),
    getSettings(store),
  ]);
  const base = {
    storeId: store.id,
    sessionId,
    horse: { id: horse.id, name: horse.name },
    handler: people.find((person) => person.id === session.person_id)?.name ?? "",
    place: place?.name ?? "",
    allowance: care.allowance,
    cautions: care.sentences,
    events: loaded.events,
    clocks: Object.fromEntries(loaded.offsets),
    position: loaded.position,
    silenceMinutes: wordSettings.silenceMinutes,
  };
  const touches = digests.filter((other) => other.session.id !== sessionId).flatMap(({ digest }) => digest.touches);
  const { kind } = session;
  if (kind === "touch" || kind === "connection" || kind === "signs") return <WatchRecorder kind={kind} start={base} touches={touches} />;
  const sidesSince = store.now() - wordSettings.sidesDays * MILLISECONDS_PER_DAY;
  const leaves = digests.some(({ digest }) => digest.relief.departures > 0);
  const battery = kind === "first-look";
  const ladders = battery ? [] : await ladderParts(store, session, care.allowance, leaves);
  const first = battery ? batteryPart() : session.ladder_id === null ? freePart() : (ladders[0] ?? freePart());
  const [doNext, used] = await Promise.all([
    lastDoNext(store, horseId, sessionId, session.ladder_id),
    usedUp(store, horseId, care.allowance, first.plan, sessionId),
  ]);
  return (
    <Recorder
      packed={packStart({
        ...base,
        ...first,
        battery,
        ladders,
        zones: place?.items.map(({ name, kind }) => ({ name, kind })) ?? [],
        touches,
        doNext,
        used,
        restingBreaths: horse.resting_breaths_per_min,
        weakerSide: sidesIn(digests.filter(({ startedMs }) => startedMs >= sidesSince)).weaker,
        wordSettings,
      })}
    />
  );
}
