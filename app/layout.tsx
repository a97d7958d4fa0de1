import type { Metadata, Viewport } from "next";
import { headers } from "next/headers";
import type { ReactNode } from "react";
import "./globals.css";
import { SyncAgent } from "@/features/device/sync-agent";
import { UnitsProvider } from "@/ui/units";
import { getStore } from "./server/store";
import { pinnedTheme } from "./server/theme";
import { chosenUnits } from "./server/units";

export const metadata: Metadata = {
  title: { default: "Deft Tether", template: "%s · Deft Tether" },
  description: "Groundwork with horses: plan the rungs, record every ask, see what the numbers support.",
};

export const viewport: Viewport = { width: "device-width", initialScale: 1, viewportFit: "cover" };

export default async function RootLayout({ children }: { children: ReactNode }) {
  // Reading the headers keeps every page dynamic, which the script nonce needs.
  await headers();
  const [theme, store, units] = await Promise.all([pinnedTheme(), getStore(), chosenUnits()]);
  return (
    <html lang="en" data-theme={theme ?? undefined}>
      <body>
        <UnitsProvider units={units}>{children}</UnitsProvider>
        <SyncAgent storeId={store.id} />
      </body>
    </html>
  );
}
