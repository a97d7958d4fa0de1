import { basename } from "node:path";
import type { Metadata } from "next";
import { Settings } from "@/features/settings/settings";
import { getSettings, hasSampleData } from "@/store";
import { getStore } from "../../server/store";
import { chosenUnits } from "../../server/units";

export const metadata: Metadata = { title: "Settings" };

export default async function SettingsPage() {
  const store = await getStore();
  return (
    <Settings
      storeId={store.id}
      sample={await hasSampleData(store)}
      fileName={basename(store.file)}
      units={await chosenUnits()}
      word={await getSettings(store)}
    />
  );
}
