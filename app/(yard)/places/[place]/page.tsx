import type { Metadata } from "next";
import { asPlaceItem } from "@/core/schemas";
import { PlaceEditor } from "@/features/places/editor";
import { getPlace } from "@/store";
import { BinButton } from "@/ui/form";
import { findOr404 } from "../../../server/find-or-404";
import { getStore } from "../../../server/store";

export const metadata: Metadata = { title: "Place" };

export default async function PlacePage({ params }: { params: Promise<{ place: string }> }) {
  const place = await findOr404(getPlace(await getStore(), (await params).place));
  const { id, name, shape, length_m, width_m, footing, fence, items } = place;
  return (
    <>
      <div className="mb-6 flex flex-wrap items-baseline justify-between gap-4">
        <h1 className="text-[2rem]">{name}</h1>
        <BinButton kind="place" id={id} name={name} onwards="/places" />
      </div>
      <PlaceEditor id={id} start={{ name, shape, length: length_m, width: width_m, footing, fence, items: items.map(asPlaceItem) }} />
    </>
  );
}
