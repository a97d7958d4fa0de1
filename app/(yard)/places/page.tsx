import type { Metadata } from "next";
import { PlaceList } from "@/features/places/place-list";
import { getPlace, listPlaces } from "@/store";
import { getStore } from "../../server/store";

export const metadata: Metadata = { title: "Places" };

export default async function PlacesPage() {
  const store = await getStore();
  const places = await Promise.all((await listPlaces(store)).map(({ id }) => getPlace(store, id)));
  return <PlaceList places={places.map((place) => ({ ...place, items: place.items.length }))} />;
}
