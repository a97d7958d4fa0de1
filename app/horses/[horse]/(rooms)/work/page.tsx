import type { Metadata } from "next";
import { startChoicesByHandler } from "@/core/start";
import { openCoolDowns } from "@/core/today";
import { StartSession } from "@/features/work/start";
import { getHorse } from "@/store";
import { findOr404 } from "../../../../server/find-or-404";
import { horsePack, yardFacts } from "../../../../server/pack";
import { getStore } from "../../../../server/store";

export const metadata: Metadata = { title: "Work" };

export default async function WorkPage({ params }: { params: Promise<{ horse: string }> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const [pack, yard] = await Promise.all([horsePack(store, horse), yardFacts(store)]);
  return (
    <StartSession
      horse={pack.horse}
      byHandler={startChoicesByHandler(pack, yard, store.now())}
      yard={yard}
      last={pack.last}
      open={pack.open}
      cooling={openCoolDowns(pack.worked, store.now())}
      storeId={store.id}
    />
  );
}
