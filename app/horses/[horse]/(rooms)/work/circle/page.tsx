import type { Metadata } from "next";
import { CircleNav } from "@/features/circle/circle-nav";
import { CirclePlanner } from "@/features/circle/planner";
import { unreadCircleSetup } from "@/store";
import { circlePage } from "../../../../../server/circle-of";
import { getStore } from "../../../../../server/store";

export const metadata: Metadata = { title: "Circle work" };

export default async function CirclePage({ params }: { params: Promise<{ horse: string }> }) {
  const { start, storeId } = await circlePage(params);
  const unread = await unreadCircleSetup(await getStore(), start.horse.id);
  return (
    <>
      <CircleNav horseId={start.horse.id} here="" />
      {unread !== null && (
        <p className="mb-4 max-w-prose font-semibold text-brick">
          This version cannot read how {start.horse.name} works on the circle. It says “{unread}”. Until it is set anew the caps are the
          least there are: one minute, once a week.
        </p>
      )}
      <CirclePlanner start={start} storeId={storeId} />
    </>
  );
}
