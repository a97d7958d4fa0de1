import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { FIRST_LOOK_BEHAVIOUR, firstLookPlan } from "@/core/know";
import { wayCautions } from "@/core/ladder";
import { kitCautions } from "@/core/welfare";
import { WatchRecorder } from "@/features/observe/watch-recorder";
import { Recorder } from "@/features/work/recorder";
import type { RecorderStart } from "@/features/work/types";
import { templateOf } from "@/library";
import { asKit, digestsOfHorse, getHorse, getLadder, getPlace, listKit, listPeople, loadSession, type Store } from "@/store";
import { findOr404 } from "../../../../server/find-or-404";
import { horseCare } from "../../../../server/horse-care";
import { kitUse } from "../../../../server/kit-use";
import { ladderState } from "../../../../server/ladder-state";
import { getStore } from "../../../../server/store";

export const metadata: Metadata = { title: "Work" };

/** Which ladder the recorder runs, and where it goes on. */
async function ladderPart(
  store: Store,
  session: { ladder_id: string; ladder_version: number; kit: string },
  allowance: RecorderStart["allowance"],
  leaves: boolean,
) {
  const ladder = await findOr404(getLadder(store, session.ladder_id, session.ladder_version));
  const [state, kit] = await Promise.all([ladderState(store, ladder, allowance), listKit(store)]);
  const taken = new Set(JSON.parse(session.kit) as string[]);
  return {
    battery: false,
    ladderId: ladder.id,
    version: ladder.version,
    behaviour: ladder.behaviour.name,
    plan: ladder.plan,
    next: state.next,
    trials: state.trials,
    cautions: [...(templateOf(ladder.behaviour.template ?? "")?.cautions ?? []), ...wayCautions(ladder.plan, ladder.behaviour.free)],
    kit: kitCautions(kit.filter(({ id }) => taken.has(id)).map(asKit), kitUse(ladder, state.next.rung, leaves, allowance)),
  };
}

/** The battery in place of a ladder. */
const batteryPart = () => ({
  battery: true,
  ladderId: null,
  version: null,
  behaviour: FIRST_LOOK_BEHAVIOUR,
  plan: firstLookPlan(),
  next: {
    rung: 1,
    kind: "probe" as const,
    headline: "First look",
    reason: "One to three asks an item, the lightest cue first. Nothing is taught yet.",
    barred: null,
  },
  trials: [],
  cautions: [],
  kit: [],
});

export default async function RecorderPage({ params }: { params: Promise<{ horse: string; session: string }> }) {
  const { horse: horseId, session: sessionId } = await params;
  const store = await getStore();
  const loaded = await findOr404(loadSession(store, sessionId));
  const { session } = loaded;
  if (session.horse_id !== horseId) notFound();
  const horse = await findOr404(getHorse(store, horseId));
  const [care, people, place, digests] = await Promise.all([
    horseCare(store, horse),
    listPeople(store),
    session.place_id === null ? null : getPlace(store, session.place_id),
    digestsOfHorse(store, horseId),
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
  };
  const touches = digests.filter((other) => other.session.id !== sessionId).flatMap(({ digest }) => digest.touches);
  const { kind } = session;
  if (kind === "touch" || kind === "connection" || kind === "signs") return <WatchRecorder kind={kind} start={base} touches={touches} />;
  const { ladder_id, ladder_version, kit } = session;
  const leaves = digests.some(({ digest }) => digest.relief.departures > 0);
  const {
    trials,
    kit: kitWords,
    cautions: planWords,
    ...part
  } = ladder_id === null || ladder_version === null
    ? batteryPart()
    : await ladderPart(store, { ladder_id, ladder_version, kit }, care.allowance, leaves);
  return (
    <Recorder
      start={{
        ...base,
        ...part,
        cautions: [...care.sentences, ...kitWords, ...planWords],
        zones: place?.items.map(({ name }) => name) ?? [],
        touches,
        earlier: trials.filter((trial) => trial.session !== sessionId),
      }}
    />
  );
}
