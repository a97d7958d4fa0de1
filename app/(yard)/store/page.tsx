import type { Metadata } from "next";
import { StoreRoom } from "@/features/store-care/store-room";
import { storeCare } from "@/store";
import { getStore } from "../../server/store";

export const metadata: Metadata = { title: "The data" };

export default async function StorePage() {
  return <StoreRoom care={await storeCare(await getStore())} />;
}
