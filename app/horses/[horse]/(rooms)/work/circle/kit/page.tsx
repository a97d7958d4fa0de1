import type { Metadata } from "next";
import { CircleNav } from "@/features/circle/circle-nav";
import { KitView } from "@/features/circle/kit-view";
import { circlePage } from "../../../../../../server/circle-of";

export const metadata: Metadata = { title: "Kit and fit" };

export default async function KitFitPage({ params }: { params: Promise<{ horse: string }> }) {
  const { start } = await circlePage(params);
  return (
    <>
      <CircleNav horseId={start.horse.id} here="kit" />
      <KitView start={start} />
    </>
  );
}
