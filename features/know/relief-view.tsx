"use client";

import Link from "next/link";
import type { EntranceRelief, ReliefMap } from "@/core/know";
import type { PlaceItem, PlaceOutline } from "@/core/place";
import { counted } from "@/core/words";
import { clockWords } from "@/ui/measure";
import { PlacePlan } from "@/ui/place-plan";
import { ScrollBox } from "@/ui/scroll-box";
import { lengthWords, useUnits } from "@/ui/units";

export interface ShownPlace {
  readonly id: string;
  readonly name: string;
  readonly outline: PlaceOutline | null;
  readonly items: readonly PlaceItem[];
  readonly relief: ReliefMap;
  readonly entrance: EntranceRelief | null;
}

const percent = (share: number | null) => (share === null ? "–" : `${Math.round(share * 100)} %`);

/** The plan with each zone as dark as its share of pressure. */
export function ReliefPlan({ place, small = false }: { place: ShownPlace; small?: boolean }) {
  const units = useUnits();
  if (place.outline === null)
    return (
      <p className="text-soft">
        The place has no size yet.{" "}
        <Link href={`/places/${place.id}`} className="link">
          Draw it
        </Link>
      </p>
    );
  const told = place.relief.zones.filter((zone) => zone.pressureShare !== null);
  return (
    <PlacePlan
      outline={place.outline}
      items={place.items}
      shade={Object.fromEntries(told.map((zone) => [zone.zone, zone.pressureShare ?? 0]))}
      notes={Object.fromEntries(
        told.map((zone) => [zone.zone, small ? percent(zone.pressureShare) : `${percent(zone.pressureShare)} pressure`]),
      )}
      label={`${place.name} from above. ${place.relief.sentence}`}
      scaleWords={(metres) => lengthWords(metres, units)}
      letters={small ? 16 : 26}
    />
  );
}

function Entrance({ entrance }: { entrance: EntranceRelief }) {
  const { stays } = entrance;
  return (
    <section className="mt-6 border-t-2 border-ink pt-3">
      <h3 className="text-lg">At the entrance</h3>
      <p className="figures mt-1 text-lg">
        Inside without pressure <strong>{clockWords(entrance.insideEasySeconds)}</strong>, outside under pressure{" "}
        <strong>{clockWords(entrance.outsidePressureSeconds)}</strong>.
      </p>
      <p className="figures text-soft">
        Inside under pressure {clockWords(entrance.insidePressureSeconds)}, outside without {clockWords(entrance.outsideEasySeconds)}.
      </p>
      <p className="figures mt-2">
        {stays.answered + stays.censored === 0
          ? "It was not inside yet."
          : stays.medianSeconds === null
            ? `It stays in: of ${stays.answered + stays.censored} stays it left ${stays.answered}; more than half last longer than was watched.`
            : `It stays in: half of ${stays.answered + stays.censored} stays last ${Math.round(stays.medianSeconds)} s or longer; it left ${stays.answered} of them.`}
      </p>
      <p className="text-sm text-soft">A stay that the end of work or a break cut off counts as longer than seen (Kaplan & Meier 1958).</p>
    </section>
  );
}

/** One place: drawn, said in a sentence, and as a table. */
export function PlaceReliefView({ place }: { place: ShownPlace }) {
  const { relief } = place;
  return (
    <article className="border-t-2 border-hair pt-5">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <h2 className="text-2xl">{place.name}</h2>
        <Link href={`/places/${place.id}`} className="link">
          The place
        </Link>
      </div>
      <p className="text-lg text-tarn">{relief.sentence}</p>
      <div className="mt-3 grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.15fr)]">
        <ReliefPlan place={place} />
        <div>
          <ScrollBox label={`Zones of ${place.name}`}>
            <table className="figures w-full text-sm">
              <caption className="sr-only">Zones of {place.name}</caption>
              <thead className="text-left text-soft">
                <tr>
                  {["Zone", "Time", "Pressure", "Left alone", "Releases", "Reinforcers", "Left from", "Left to", "Met"].map((head) => (
                    <th key={head} scope="col" className="py-1 pr-3 align-bottom font-normal">
                      {head}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {relief.zones.map((zone) => (
                  <tr key={zone.zone} className="border-t border-hair">
                    <th scope="row" className="py-1.5 pr-3 text-left font-semibold">
                      {zone.zone}
                    </th>
                    <td className="pr-3">{clockWords(zone.seconds)}</td>
                    <td className="pr-3 whitespace-nowrap">
                      {Math.round(zone.pressureSeconds)} s, {percent(zone.pressureShare)}
                    </td>
                    <td className="pr-3">{clockWords(zone.easySeconds)}</td>
                    <td className="pr-3">{zone.releases}</td>
                    <td className="pr-3">{zone.reinforcers}</td>
                    <td className="pr-3">{zone.departuresFrom}</td>
                    <td className="pr-3">{zone.departuresTo}</td>
                    <td className="whitespace-nowrap">
                      {zone.met} of {zone.trials}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </ScrollBox>
          <p className="mt-2 text-sm text-soft">
            {counted(relief.sessions, "session")} with zones tapped. Pressure runs from an ask to its release; left alone is the rest of the
            time in the zone, breaks aside.
            {relief.zones.some((zone) => zone.untimed > 0) &&
              ` ${counted(
                relief.zones.reduce((sum, zone) => sum + zone.untimed, 0),
                "ask",
              )} tallied without timing: their pressure is not in it.`}
            {relief.secondsElsewhere > 0 && ` ${clockWords(relief.secondsElsewhere)} of work had no zone tapped.`}
          </p>
          {place.entrance !== null && <Entrance entrance={place.entrance} />}
        </div>
      </div>
    </article>
  );
}
