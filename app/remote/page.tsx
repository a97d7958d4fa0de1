import type { Metadata } from "next";
import { RemoteWindow } from "@/features/work/remote/remote-window";

export const metadata: Metadata = { title: "Remote" };

export default function RemotePage() {
  return <RemoteWindow />;
}
