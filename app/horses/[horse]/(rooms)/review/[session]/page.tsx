import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { addSigns, compareSigns, knowDigest } from "@/core/know";
import { criterionOf } from "@/core/ladder";
import { correctionsOf } from "@/core/session";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import { Review } from "@/features/review/review";
import { digestsOfHorse, getHorse, listPeople, listPlaces, loadSession, type Store } from "@/store";
import { findOr404 } from "../../../../../server/find-or-404";
import { horseCare } from "../../../../../server/horse-care";
import { ladderOrNone } from "../../../../../server/ladder-or-none";
import { ladderState } from "../../../../../server/ladder-state";
import { getStore } from "../../../../../server/store";

/** How far back a horse's own usual goes (a setting). */
const USUAL_DAYS = 180;

export const metadata: Metadata = { title: "Review" };

/** The criteria of a ladder's rungs as they were in a version; none where it is gone. */
async function rungsOf(store: Store, ladder: string | null, version: number | null) {
  if (ladder === null || version === null) return [];
  const worked = await ladderOrNone(store, ladder, version);
  return worked === null ? [] : worked.plan.rungs.map((_, i) => criterionOf(worked.plan, i + 1));
}

export default async function ReviewPage({ params }: { params: Promise<{ horse: string; session: string }> }) {
  const { horse, session: id } = await params;
  const store = await getStore();
  const { session, record, events } = await findOr404(loadSession(store, id));
  if (session.horse_id !== horse) notFound();
  const owner = await findOr404(getHorse(store, horse));
  const { allowance } = await horseCare(store, owner);
  const ladder = session.ladder_id === null ? null : await ladderOrNone(store, session.ladder_id);
  const next = ladder === null || ladder.away ? null : (await ladderState(store, ladder, allowance)).next;
  // Its own usual: every earlier session of the same kind, this one aside.
  const digests = await digestsOfHorse(store, horse, session.created_ms - USUAL_DAYS * MILLISECONDS_PER_DAY);
  const usual = addSigns(
    digests
      .filter((other) => other.session.kind === session.kind && other.session.created_ms < session.created_ms)
      .map(({ digest }) => digest.signs),
  );
  const own = knowDigest(record).signs;
  const signs =
    session.kind === "connection" ? [] : (["tension", "ease", "danger"] as const).flatMap((kind) => compareSigns(own, usual, kind) ?? []);
  const [people, places] = await Promise.all([listPeople(store), listPlaces(store)]);
  const rungs = await Promise.all(record.blocks.map(({ ladder, version }) => rungsOf(store, ladder, version)));
  return (
    <Review
      storeId={store.id}
      horseId={horse}
      sessionId={id}
      record={record}
      next={next}
      signs={signs.filter(({ here, usual: before }) => here.count + before.count > 0).map(({ words }) => words)}
      restingBreaths={owner.resting_breaths_per_min}
      putRight={{
        storeId: store.id,
        horseId: horse,
        sessionId: session.id,
        personId: session.person_id,
        placeId: session.place_id,
        people: people.map(({ id, name }) => ({ id, name })),
        places: places.map(({ id, name }) => ({ id, name })),
        rungs,
        corrections: correctionsOf(events),
      }}
      rungWord={session.kind === "work" ? "rung" : "part"}
    />
  );
}
