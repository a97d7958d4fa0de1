import type { Metadata } from "next";
import { CircleNav } from "@/features/circle/circle-nav";
import { RampView } from "@/features/circle/ramp";
import { circlePage } from "../../../../../../server/circle-of";

export const metadata: Metadata = { title: "Ramp and caps" };

export default async function RampPage({ params }: { params: Promise<{ horse: string }> }) {
  const { start, entries } = await circlePage(params);
  return (
    <>
      <CircleNav horseId={start.horse.id} here="ramp" />
      <RampView key={JSON.stringify(start.setup)} start={start} entries={entries} />
    </>
  );
}
