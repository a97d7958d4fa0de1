import type { Metadata } from "next";
import Link from "next/link";
import { KnowNav } from "@/features/know/know-nav";
import { PlaceReliefView } from "@/features/know/relief-view";
import { getHorse } from "@/store";
import { findOr404 } from "../../../../../server/find-or-404";
import { horsePicture } from "../../../../../server/horse-picture";
import { shownPlace } from "../../../../../server/relief-of";
import { getStore } from "../../../../../server/store";

export const metadata: Metadata = { title: "Places" };

export default async function HorsePlacesPage({ params }: { params: Promise<{ horse: string }> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const { places } = await horsePicture(store, horse);
  return (
    <>
      <KnowNav horseId={horse.id} here="places" />
      <h1 className="text-[2rem]">Where it finds it easier</h1>
      {places.length === 0 ? (
        <p className="mt-3 max-w-prose text-lg">
          No zone was tapped yet.{" "}
          <Link href="/places" className="link">
            Draw a place
          </Link>{" "}
          with its zones; at work one tap says where the horse is, and this page says where it finds it easier.
        </p>
      ) : (
        <div className="mt-5 grid grid-cols-[minmax(0,1fr)] gap-10">
          {places.map((place) => (
            <PlaceReliefView key={place.place.id} place={shownPlace(place)} />
          ))}
        </div>
      )}
    </>
  );
}
