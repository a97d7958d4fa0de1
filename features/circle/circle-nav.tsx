import { RoomNav } from "@/ui/room-nav";

const PARTS = [
  { key: "", label: "Plan a session" },
  { key: "ramp", label: "Ramp and caps" },
  { key: "kit", label: "Kit and fit" },
] as const;

/** Leads between the parts of circle work. */
export const CircleNav = ({ horseId, here }: { horseId: string; here: (typeof PARTS)[number]["key"] }) => (
  <RoomNav name="Circle work" base={`/horses/${horseId}/work/circle`} parts={PARTS} here={here} />
);
