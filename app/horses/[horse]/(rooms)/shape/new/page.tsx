import type { Metadata } from "next";
import Link from "next/link";
import { notFound } from "next/navigation";
import { behaviourFromTemplate, defaultMethod, inTheWay, methodsOf, planFromTemplate } from "@/core/behaviour";
import { METHODS } from "@/core/ladder";
import { emptyDraft, type LadderDraft } from "@/features/shape/editor/draft";
import { LadderEditor } from "@/features/shape/editor/ladder-editor";
import { templateOf } from "@/library";
import { getHorse } from "@/store";
import { findOr404 } from "../../../../../server/find-or-404";
import { horseCare } from "../../../../../server/horse-care";
import { editorSurroundings } from "../../../../../server/shape-facts";
import { getStore } from "../../../../../server/store";

export const metadata: Metadata = { title: "Plan a ladder" };

type Asked = string | string[] | undefined;

interface Props {
  params: Promise<{ horse: string }>;
  /** A behaviour's name to begin with, for example from the first look; or a template of the library with a method and a way. */
  searchParams: Promise<{ behaviour?: Asked; template?: Asked; method?: Asked; way?: Asked }>;
}

/** The draft a page begins with; null where there is no such template. */
function draftFor(asked: { behaviour?: Asked; template?: Asked; method?: Asked; way?: Asked }): LadderDraft | null {
  const draft = emptyDraft();
  if (typeof asked.template !== "string")
    return typeof asked.behaviour === "string"
      ? { ...draft, behaviour: { ...draft.behaviour, name: asked.behaviour.slice(0, 80) } }
      : draft;
  const found = templateOf(asked.template);
  if (found === undefined) return null;
  const { template, ways } = inTheWay(found, asked.way);
  const methods = methodsOf(template);
  const method = METHODS.find((one) => one === asked.method && methods.includes(one)) ?? defaultMethod(template);
  return { behaviour: behaviourFromTemplate(template), plan: planFromTemplate(template, method, ways) };
}

export default async function NewLadderPage({ params, searchParams }: Props) {
  const { horse } = await params;
  const start = draftFor(await searchParams);
  if (start === null) notFound();
  const store = await getStore();
  const { allowance } = await horseCare(store, await findOr404(getHorse(store, horse)));
  return (
    <>
      <div className="mb-3 flex flex-wrap items-baseline justify-between gap-x-6 gap-y-2">
        <h1 className="text-[2rem]">Plan a ladder</h1>
        <Link href={`/horses/${horse}/shape/library`} className="link">
          Begin from the library
        </Link>
      </div>
      <LadderEditor
        start={start}
        horseId={horse}
        worked={null}
        allowance={allowance}
        surroundings={await editorSurroundings(store, horse, null)}
      />
    </>
  );
}
