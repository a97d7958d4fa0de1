import { RoomNav } from "@/ui/room-nav";

/** The parts of Review. */
const PARTS = [
  { key: "", label: "Sessions" },
  { key: "weeks", label: "Over weeks" },
  { key: "sides", label: "Sides" },
  { key: "compare", label: "Compare" },
  { key: "try-both", label: "Try both" },
  { key: "changes", label: "Changes" },
  { key: "moments", label: "Moments" },
  { key: "load", label: "Load book" },
  { key: "month", label: "Month" },
] as const;

export type ReviewPart = (typeof PARTS)[number]["key"];

/** Leads between the parts of Review. */
export const ReviewNav = ({ horseId, here }: { horseId: string; here: ReviewPart }) => (
  <RoomNav name="Review" base={`/horses/${horseId}/review`} parts={PARTS} here={here} />
);
