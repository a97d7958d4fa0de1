import type { ReactNode } from "react";
import { getHorse, nameApart } from "@/store";
import { Frame } from "@/ui/frame";
import { findOr404 } from "../../../server/find-or-404";
import { getStore } from "../../../server/store";
import { pinnedTheme } from "../../../server/theme";

export default async function RoomsLayout({ children, params }: { children: ReactNode; params: Promise<{ horse: string }> }) {
  const { horse: id } = await params;
  const store = await getStore();
  const horse = await findOr404(getHorse(store, id));
  const apart = await nameApart(store, horse);
  return (
    <Frame horse={{ id, name: horse.name, apart, sample: horse.sample }} theme={await pinnedTheme()}>
      {children}
    </Frame>
  );
}
