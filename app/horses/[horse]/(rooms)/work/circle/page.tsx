import type { Metadata } from "next";
import { CircleNav } from "@/features/circle/circle-nav";
import { CirclePlanner } from "@/features/circle/planner";
import { circlePage } from "../../../../../server/circle-of";

export const metadata: Metadata = { title: "Circle work" };

export default async function CirclePage({ params }: { params: Promise<{ horse: string }> }) {
  const { start, storeId } = await circlePage(params);
  return (
    <>
      <CircleNav horseId={start.horse.id} here="" />
      <CirclePlanner start={start} storeId={storeId} />
    </>
  );
}
