"use client";

import { useRouter } from "next/navigation";
import { beginTour, type TourStop } from "@/ui/frame";

/** The first look at the sample yard: a walk of a few stops, for whoever wants it. */
export function BeginTour({ stops }: { stops: readonly TourStop[] }) {
  const router = useRouter();
  const [first] = stops;
  if (first === undefined) return null;
  return (
    <button
      type="button"
      className="link"
      onClick={() => {
        beginTour(stops);
        router.push(first.href);
      }}
    >
      Walk round it in {stops.length} stops
    </button>
  );
}
