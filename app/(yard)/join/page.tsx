import type { Metadata } from "next";
import { Join } from "@/features/join/join";

export const metadata: Metadata = { title: "Join a session" };

export default function JoinPage() {
  return <Join />;
}
