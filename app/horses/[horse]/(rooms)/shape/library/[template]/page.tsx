import type { Metadata } from "next";
import Link from "next/link";
import { notFound } from "next/navigation";
import { behaviourFromTemplate, defaultMethod, inTheWay, methodsOf, planFromTemplate, startAndGoal } from "@/core/behaviour";
import { masterySentence } from "@/core/mastery";
import { barredBehaviour } from "@/core/welfare";
import { Foundations } from "@/features/shape/foundations";
import { TemplateView } from "@/features/shape/library/template-view";
import { templateOf } from "@/library";
import { getHorse } from "@/store";
import { findOr404 } from "../../../../../../server/find-or-404";
import { horseCare } from "../../../../../../server/horse-care";
import { foundationsFor, graphLinks } from "../../../../../../server/shape-facts";
import { getStore } from "../../../../../../server/store";

interface Props {
  params: Promise<{ horse: string; template: string }>;
  searchParams: Promise<{ way?: string | string[] }>;
}

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  return { title: templateOf((await params).template)?.name ?? "Library" };
}

export default async function TemplatePage({ params, searchParams }: Props) {
  const { horse: horseId, template: key } = await params;
  const found = templateOf(key);
  if (found === undefined) notFound();
  const { template, ways } = inTheWay(found, (await searchParams).way);
  const store = await getStore();
  const horse = await findOr404(getHorse(store, horseId));
  const { allowance } = await horseCare(store, horse);
  const barred = barredBehaviour(template.involves, allowance);
  const { name, why, finished, cue, kit, faults, cautions, watch, rulesOfThumb } = template;
  const foundations = await foundationsFor(store, horse.id, behaviourFromTemplate(template));
  return (
    <>
      <p className="text-sm">
        <Link href={`/horses/${horse.id}/shape/library`} className="link">
          Library
        </Link>
      </p>
      <h1 className="text-[2rem]">{name}</h1>
      {barred !== null && <p className="mt-2 border-l-4 border-brick pl-4 font-semibold text-brick">Not today. {barred}</p>}
      <TemplateView
        horseId={horse.id}
        facts={{
          key,
          name,
          why,
          finished,
          cue,
          kit,
          faults,
          cautions,
          watch,
          ends: startAndGoal(template),
          thumb: rulesOfThumb.map(({ text }) => text),
          method: defaultMethod(template),
          plans: methodsOf(template).map((method) => ({ method, plan: planFromTemplate(template, method, ways) })),
          ways: template.ways.map((way) => ({ key: way.key, name: way.name, reason: way.reason, chosen: way.key === ways.taught })),
          movesOn: { rule: masterySentence(template.mastery), because: template.masteryReason },
        }}
      />
      <Foundations horseId={horse.id} {...foundations} graph={graphLinks(horse.id, foundations.graph)} />
    </>
  );
}
