import type { Metadata } from "next";
import { goesWithWords } from "@/core/schemas";
import { BinRoom } from "@/features/bin/bin-room";
import { listBin } from "@/store";
import { getStore } from "../../server/store";

export const metadata: Metadata = { title: "Bin" };

export default async function BinPage() {
  const store = await getStore();
  return (
    <BinRoom
      storeId={store.id}
      lines={(await listBin(store)).map((one) => ({
        kind: one.kind,
        id: one.id,
        name: one.name,
        madeMs: one.kind === "session" ? Number(one.name) : null,
        of: one.of,
        binnedMs: one.binnedMs,
        goneMs: one.goneMs,
        along: one.kind === "note" ? "" : goesWithWords(one.kind, one.with),
        sessionId: "sessionId" in one ? one.sessionId : null,
      }))}
    />
  );
}
