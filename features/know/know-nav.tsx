import { RoomNav } from "@/ui/room-nav";

/** The parts of knowing a horse. */
const PARTS = [
  { key: "", label: "Today" },
  { key: "first-look", label: "First look" },
  { key: "touch", label: "Body" },
  { key: "places", label: "Places" },
  { key: "connection", label: "Goes to" },
  { key: "signs", label: "Signs" },
  { key: "limits", label: "Limits" },
] as const;

export type KnowPart = (typeof PARTS)[number]["key"];

/** Leads between the parts of Know. */
export const KnowNav = ({ horseId, here }: { horseId: string; here: KnowPart }) => (
  <RoomNav name="Know" base={`/horses/${horseId}/know`} parts={PARTS} here={here} />
);
