import type { Metadata } from "next";
import { InOutRoom } from "@/features/in-out/in-out-room";
import { listHorses } from "@/store";
import { getStore } from "../../server/store";

export const metadata: Metadata = { title: "In and out" };

export default async function InOutPage() {
  return <InOutRoom horses={(await listHorses(await getStore())).map(({ id, name }) => ({ id, name }))} />;
}
