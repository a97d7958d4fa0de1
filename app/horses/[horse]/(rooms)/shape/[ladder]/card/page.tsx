import type { Metadata } from "next";
import Link from "next/link";
import { wordsOfWay } from "@/core/behaviour";
import { methodCautions, wayCautions } from "@/core/ladder";
import { PocketCard } from "@/features/shape/pocket-card";
import { PrintButton } from "@/features/shape/print-button";
import { templateOf } from "@/library";
import { asBehaviour, getHorse, getSettings } from "@/store";
import { findOr404 } from "../../../../../../server/find-or-404";
import { ladderHere } from "../../../../../../server/ladder-here";
import { getStore } from "../../../../../../server/store";

export const metadata: Metadata = { title: "Pocket card" };

export default async function CardPage({ params }: { params: Promise<{ horse: string; ladder: string }> }) {
  const { horse, ladder: id } = await params;
  const store = await getStore();
  const ladder = await ladderHere(store, horse, id);
  const { name } = await findOr404(getHorse(store, horse));
  const behaviour = asBehaviour(ladder.behaviour);
  const template = behaviour.template == null ? undefined : templateOf(behaviour.template);
  const words = wordsOfWay(template, ladder.plan);
  return (
    <>
      <div className="no-print mb-5 flex flex-wrap items-center gap-6">
        <h1 className="text-[2rem]">Pocket card</h1>
        <PrintButton label="Print" />
        <Link href={`/horses/${horse}/shape/${id}`} className="link">
          Back to the ladder
        </Link>
        <p className="text-soft">One page, black and white. Fold it twice along the dashes.</p>
      </div>
      <PocketCard
        horse={name}
        behaviour={behaviour.name}
        cue={behaviour.cue ?? ""}
        finished={behaviour.finished ?? ""}
        version={ladder.version}
        plan={ladder.plan}
        settings={await getSettings(store)}
        faults={words.faults}
        cautions={[...words.cautions, ...wayCautions(ladder.plan, behaviour.free ?? false), ...methodCautions(ladder.plan)]}
        watch={words.watch}
      />
    </>
  );
}
