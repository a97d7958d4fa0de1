import "server-only";
import { entranceRelief } from "@/core/know";
import { outlineOf } from "@/core/place";
import { asPlaceItem } from "@/core/schemas";
import type { ShownPlace } from "@/features/know/relief-view";
import type { PlaceRelief } from "./horse-picture";

/** A place's relief as the page draws it. */
export function shownPlace({ place, relief, sessions }: PlaceRelief): ShownPlace {
  const named = (kind: string) => place.items.filter((item) => item.kind === kind).map(({ name }) => name);
  return {
    id: place.id,
    name: place.name,
    outline: outlineOf(place.shape, place.length_m, place.width_m),
    items: place.items.map(asPlaceItem),
    relief,
    entrance: entranceRelief(sessions, named("arch-in"), named("arch-out")),
  };
}
