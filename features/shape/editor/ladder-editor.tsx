"use client";

import { useRouter } from "next/navigation";
import { type ComponentProps, memo, useEffect, useMemo, useState } from "react";
import { involvedIn, type LadderPlan, type Rope, unchangedRungs } from "@/core/ladder";
import { type Allowance, barredBehaviour, barredMethod, barredRung } from "@/core/welfare";
import { counted } from "@/core/words";
import type { ChartEvidence } from "@/ui/strand-chart";
import { BehaviourText } from "./behaviour-fields";
import { ConflictChoice } from "./conflict-choice";
import { CountedStrand } from "./counted-strand";
import type { LadderDraft } from "./draft";
import { LayOutPanel } from "./lay-out-panel";
import { RopeBoard } from "./rope-board";
import { RungSettings } from "./rung-settings";
import { type EditorSurroundings, SettingsPart } from "./settings-part";
import { useAfterPaint } from "./use-after-paint";
import { useByValue } from "./use-by-value";
import { useDraft } from "./use-draft";
import { useRope } from "./use-rope";

/** A ladder that was worked: what a change to it would leave behind. */
export interface WorkedBefore {
  readonly plan: LadderPlan;
  readonly evidence: readonly ChartEvidence[];
  /** The horse's values on the counted strand, oldest first. */
  readonly values: readonly number[];
}

const NO_VALUES: readonly number[] = [];

/** What saving does to the evidence there is; a moment after the rope, so that a drag is not held up. */
const VersionNote = memo(function VersionNote({ before, after: present }: { before: LadderPlan; after: LadderPlan }) {
  const after = useAfterPaint(present);
  const kept = useMemo(() => unchangedRungs(before, after), [before, after]);
  const all = before.rungs.length;
  return (
    <p className="border-l-4 border-ochre pl-4">
      This ladder has been worked. Saving a change makes a new version; trials so far stay with theirs.{" "}
      {kept.size === all
        ? "Every rung asks the same: all evidence is carried over."
        : `${kept.size} of ${counted(all, "rung")} ${kept.size === 1 ? "asks" : "ask"} the same and ${kept.size === 1 ? "keeps its" : "keep their"} evidence.`}
    </p>
  );
});

/** The settings follow the rope a moment later. */
const SettingsLater = memo(function SettingsLater({
  rope,
  ...rest
}: { rope: Rope } & Omit<ComponentProps<typeof SettingsPart>, "strands" | "rungs">) {
  const { strands, rungs } = useAfterPaint(rope);
  return <SettingsPart strands={strands} rungs={useByValue(rungs.map(({ values: _, ...own }) => own))} {...rest} />;
});

/** Plans a ladder: the rope, its rungs, its ask, what it earns, when it moves on. */
export function LadderEditor({
  start,
  horseId,
  edited,
  worked,
  allowance,
  surroundings,
}: {
  start: LadderDraft;
  horseId: string;
  /** The ladder that is edited and the revision the edit begins on; left out for a new one. */
  edited?: { ladderId: string; revision: number };
  worked: WorkedBefore | null;
  /** What restrictions and age allow today: what they close is shown beside it. */
  allowance: Allowance;
  surroundings: EditorSurroundings;
}) {
  const router = useRouter();
  const [state, dispatch] = useRope({ rope: { strands: start.plan.strands, rungs: start.plan.rungs }, ways: start.plan.ways });
  const { rope, ways, selected } = state;
  const [layingOut, setLayingOut] = useState(false);
  const { form, submit, problems, conflict } = useDraft(start, { rope, ways }, { horseId, edited }, (id) => {
    router.push(`/horses/${horseId}/shape/${id}`);
    router.refresh();
  });
  const settings = useByValue(form.watch("plan"));
  const plan = useMemo((): LadderPlan => ({ ...settings, ...rope, ways }), [settings, rope, ways]);
  const { workingStrandId } = settings;
  const gone = workingStrandId !== null && !rope.strands.some(({ id }) => id === workingStrandId);
  useEffect(() => {
    if (gone) form.setValue("plan.workingStrandId", null, { shouldDirty: true });
  }, [gone, form]);
  const involves = involvedIn(form.watch("behaviour.involves") ?? [], plan, form.watch("behaviour.free") ?? false);
  const closed = [
    barredBehaviour(involves, allowance),
    barredMethod(plan.method, allowance),
    ...barredRung(plan, selected, allowance).map(({ why }) => `Rung ${selected}: ${why}`),
  ].filter((why) => why !== null);
  const rung = rope.rungs[selected - 1];
  return (
    // Each part is a stacking context: what did not change is painted from what was kept of it.
    <form onSubmit={submit} noValidate className="grid grid-cols-[minmax(0,1fr)] gap-6 *:isolate [&_section]:isolate">
      {worked !== null && <VersionNote before={worked.plan} after={plan} />}
      <section className="grid gap-4 sm:grid-cols-2" aria-label="The behaviour">
        <BehaviourText form={form} name="name" label="Behaviour" hint="For example: steps back from a light touch" />
        <BehaviourText form={form} name="cue" label="Cue" hint="What you will use in the end" />
        {closed.length > 0 && (
          <div role="status" className="border-l-4 border-brick pl-4 font-semibold text-brick sm:col-span-2">
            {closed.map((why) => (
              <p key={why}>Not today. {why}</p>
            ))}
          </div>
        )}
      </section>
      <section>
        <div className="mb-2 flex flex-wrap items-baseline justify-between gap-x-6 gap-y-2">
          <h2 className="text-xl">Rungs</h2>
          <button type="button" className="link min-h-10" aria-expanded={layingOut} onClick={() => setLayingOut(!layingOut)}>
            {layingOut ? "Back to the rungs" : "Lay it out from a start and a goal"}
          </button>
        </div>
        {layingOut ? (
          <LayOutPanel
            plan={plan}
            onUse={(rungs) => {
              dispatch({ kind: "edit", edit: (now) => ({ ...now, rungs }), select: 1 });
              setLayingOut(false);
            }}
          />
        ) : (
          <RopeBoard state={state} dispatch={dispatch} plan={plan} evidence={worked?.evidence} allowance={allowance}>
            <CountedStrand form={form} strands={rope.strands} />
            {rung !== undefined && (
              <RungSettings plan={plan} rung={rung} number={selected} values={worked?.values ?? NO_VALUES} dispatch={dispatch} />
            )}
          </RopeBoard>
        )}
      </section>
      <SettingsLater form={form} rope={rope} ways={ways} allowance={allowance} surroundings={surroundings} dispatch={dispatch} />
      <div className="sticky bottom-0 z-10 -mx-2 max-md:bottom-18 border-t-2 border-ink bg-ground px-2 py-2">
        {conflict !== null && <ConflictChoice began={start} conflict={conflict} onTheirs={() => router.refresh()} />}
        <button type="submit" className="act" disabled={form.formState.isSubmitting || layingOut}>
          {edited === undefined ? "Make the ladder" : conflict === null ? "Save" : "Save mine over it"}
        </button>
        {layingOut && <span className="ml-4 text-soft">Use the laid out rungs first, or go back to the ones there are.</span>}
        {problems.length > 0 && (
          <div role="alert" className="mt-3 border-l-4 border-brick pl-4 text-brick">
            <p className="font-semibold">Not saved yet:</p>
            <ul className="list-disc pl-5">
              {[...new Set(problems)].slice(0, 8).map((problem) => (
                <li key={problem}>{problem}</li>
              ))}
            </ul>
          </div>
        )}
      </div>
    </form>
  );
}
