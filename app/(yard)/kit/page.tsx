import type { Metadata } from "next";
import { KitRoom } from "@/features/kit/kit-room";
import { listKit } from "@/store";
import { getStore } from "../../server/store";

export const metadata: Metadata = { title: "Kit" };

export default async function KitPage() {
  const kit = await listKit(await getStore());
  return (
    <KitRoom
      kit={kit.map(({ id, name, kind, length_m, mass_g, buckles_equal, note }) => ({
        id,
        name,
        kind,
        length_m,
        mass_g,
        buckles_equal: buckles_equal === null ? null : Boolean(buckles_equal),
        note,
      }))}
    />
  );
}
