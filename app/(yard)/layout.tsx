import type { ReactNode } from "react";
import { Frame } from "@/ui/frame";
import { pinnedTheme } from "../server/theme";

export default async function YardLayout({ children }: { children: ReactNode }) {
  return (
    <Frame horse={null} theme={await pinnedTheme()}>
      {children}
    </Frame>
  );
}
