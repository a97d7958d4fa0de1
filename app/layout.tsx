import type { Metadata, Viewport } from "next";
import { headers } from "next/headers";
import type { ReactNode } from "react";
import "./globals.css";
import { ShellLook } from "@/features/device/shell-look";
import { SyncAgent } from "@/features/pen/sync-agent";
import { YardZoneProvider } from "@/ui/day";
import { UnitsProvider } from "@/ui/units";
import { SHELL_HEADER } from "./server/shell";
import { getStore } from "./server/store";
import { pinnedTheme } from "./server/theme";
import { chosenUnits } from "./server/units";

export const metadata: Metadata = {
  title: { default: "Deft Tether", template: "%s · Deft Tether" },
  manifest: "/manifest.webmanifest",
  appleWebApp: { capable: true, title: "Deft Tether" },
  icons: { icon: "/icon.svg", apple: "/icons/touch-180.png" },
  description: "Groundwork with horses: plan the rungs, record every ask, see what the numbers support.",
};

export const viewport: Viewport = { width: "device-width", initialScale: 1, viewportFit: "cover" };

export default async function RootLayout({ children }: { children: ReactNode }) {
  // Reading the headers keeps every page dynamic, which the script nonce needs.
  const asked = await headers();
  // The pen's page is kept on devices and shown to anybody: nothing of the data is in it.
  if (asked.get(SHELL_HEADER) !== null)
    return (
      <html lang="en">
        <body>
          {children}
          <ShellLook />
        </body>
      </html>
    );
  const [theme, store, units] = await Promise.all([pinnedTheme(), getStore(), chosenUnits()]);
  return (
    <html lang="en" data-theme={theme ?? undefined}>
      <body>
        <YardZoneProvider zone={store.timeZone}>
          <UnitsProvider units={units}>{children}</UnitsProvider>
        </YardZoneProvider>
        <SyncAgent storeId={store.id} />
      </body>
    </html>
  );
}
