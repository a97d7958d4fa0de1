import type { Metadata } from "next";
import { Pen } from "@/features/pen/pen";

export const metadata: Metadata = { title: "Pen" };

/** The pen's page is the same for everybody and holds no data: a device keeps it, and reads what it shows from itself. */
export default function PenPage() {
  return <Pen />;
}
