import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { type Criterion, criterionOf } from "@/core/ladder";
import type { Block } from "@/core/record";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import { reviewFacts } from "@/features/review/facts";
import { Review } from "@/features/review/review";
import { MOST_DRAWN_TAPS, TooLong } from "@/features/review/too-long";
import {
  digestsOfHorse,
  getHorse,
  getSettings,
  listPeople,
  listPlaces,
  loadSession,
  placeItems,
  plansOf,
  type Store,
  sizeOfSession,
} from "@/store";
import { findOr404 } from "../../../../../server/find-or-404";
import { heatLowerOf, horseCare, today } from "../../../../../server/horse-care";
import { ladderOrNone } from "../../../../../server/ladder-or-none";
import { ladderState } from "../../../../../server/ladder-state";
import { digestOf } from "../../../../../server/pack";
import { type Asked, oneOf } from "../../../../../server/past-of";
import { sidesIn, sidesOf } from "../../../../../server/sides-of";
import { getStore } from "../../../../../server/store";
import { chosenUnits } from "../../../../../server/units";

export const metadata: Metadata = { title: "Review" };

/** For each block the criteria of its ladder's rungs as they were in its version; none where it is gone. Each version is read once. */
async function rungsOf(store: Store, blocks: readonly Block[]): Promise<(readonly Criterion[])[]> {
  const keyOf = ({ ladder, version }: Block) => `${version} ${ladder}`;
  const wanted = new Map(
    blocks.flatMap(({ ladder, version }, i) =>
      ladder === null || version === null ? [] : [[keyOf(blocks[i] as Block), { ladder, version }] as const],
    ),
  );
  const plans = new Map((await plansOf(store, [...wanted.values()])).map(({ ladder, version, plan }) => [`${version} ${ladder}`, plan]));
  const criteria = new Map([...plans].map(([key, plan]) => [key, plan.rungs.map((_, i) => criterionOf(plan, i + 1))]));
  return blocks.map((block) => criteria.get(keyOf(block)) ?? []);
}

export default async function ReviewPage({
  params,
  searchParams,
}: {
  params: Promise<{ horse: string; session: string }>;
  searchParams: Promise<Asked>;
}) {
  const trial = Number(oneOf((await searchParams).trial) ?? Number.NaN);
  const { horse, session: id } = await params;
  const store = await getStore();
  const size = await findOr404(sizeOfSession(store, id));
  if (size.taps > MOST_DRAWN_TAPS) return <TooLong horseId={horse} sessionId={id} {...size} />;
  const { session, record, events } = await findOr404(loadSession(store, id));
  if (session.horse_id !== horse) notFound();
  const [owner, settings, ladder, items, people, places, rungs, units] = await Promise.all([
    findOr404(getHorse(store, horse)),
    getSettings(store),
    session.ladder_id === null ? null : ladderOrNone(store, session.ladder_id),
    session.place_id === null ? [] : placeItems(store, session.place_id),
    listPeople(store),
    listPlaces(store),
    rungsOf(store, record.blocks),
    chosenUnits(),
  ]);
  // Its own usual: every earlier session of the same kind, this one aside. Its sides are those of the last days, which may
  // be others where an old session is looked at.
  const usualSinceMs = session.created_ms - settings.usualDays * MILLISECONDS_PER_DAY;
  const sidesSinceMs = store.now() - settings.sidesDays * MILLISECONDS_PER_DAY;
  const together = session.created_ms >= sidesSinceMs;
  const found = await digestsOfHorse(store, horse, together ? Math.min(usualSinceMs, sidesSinceMs) : usualSinceMs);
  const since = (ms: number) => found.filter((one) => one.session.created_ms >= ms);
  const digests = since(usualSinceMs);
  const sides = together ? sidesIn(since(sidesSinceMs)) : await sidesOf(store, horse);
  const { allowance } = await horseCare(store, owner);
  const next =
    ladder === null || ladder.away ? null : (await ladderState(store, ladder, allowance, { handler: session.person_id, sides })).next;
  return (
    <Review
      storeId={store.id}
      horseId={horse}
      sessionId={id}
      record={record}
      next={next}
      sides={sides}
      settings={settings}
      units={units}
      facts={reviewFacts(record, events, { kind: session.kind, createdMs: session.created_ms }, digests.map(digestOf), settings)}
      restingBreaths={owner.resting_breaths_per_min}
      heatLowerCelsius={heatLowerOf(owner, today(store))}
      zones={items.map(({ name, kind }) => ({ name, kind }))}
      putRight={{
        storeId: store.id,
        horseId: horse,
        sessionId: session.id,
        personId: session.person_id,
        placeId: session.place_id,
        people: people.map(({ id, name }) => ({ id, name })),
        places: places.map(({ id, name }) => ({ id, name })),
        rungs,
      }}
      firstTrial={Number.isInteger(trial) ? trial : null}
    />
  );
}
