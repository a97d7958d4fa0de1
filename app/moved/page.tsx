import type { Metadata } from "next";
import { headers } from "next/headers";
import { Moved } from "@/features/device/moved";
import { getStore } from "../server/store";

export const metadata: Metadata = { title: "One address" };

/** Shown in place of every page that is asked for under another name of this machine. */
export default async function MovedPage() {
  const to = (await headers()).get("x-moved-to") ?? "/";
  return <Moved storeId={(await getStore()).id} to={to} />;
}
