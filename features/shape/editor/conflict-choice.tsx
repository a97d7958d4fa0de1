"use client";

import { type LadderPlan, otherSettingsDiffer, planChanges } from "@/core/ladder";
import { checkLadderPlan } from "@/core/schemas";
import type { LadderDraft } from "./draft";
import type { LadderConflict } from "./use-draft";

/** A plan as it would be saved: what a form holds as text is a number again. */
const asSaved = (plan: LadderPlan): LadderPlan => {
  const checked = checkLadderPlan(plan);
  return checked.ok ? checked.value : plan;
};

/** What one draft changes in another, in sentences. */
function changesOf(before: LadderDraft, after: LadderDraft): string[] {
  const [was, is] = [before.behaviour, after.behaviour];
  const [old, next] = [asSaved(before.plan), asSaved(after.plan)];
  const words = (["cue", "finished", "why"] as const).some((key) => was[key] !== is[key]);
  return [
    ...(was.name === is.name ? [] : [`It is called ${is.name}.`]),
    ...(words ? ["Its cue or its description says something else."] : []),
    ...planChanges(old, next).sentences,
    ...(otherSettingsDiffer(old, next) ? ["Some of its other settings differ."] : []),
  ];
}

function Changes({ title, sentences }: { title: string; sentences: readonly string[] }) {
  return (
    <div className="min-w-0">
      <h3 className="font-semibold">{title}</h3>
      <ul className="list-disc pl-5">
        {(sentences.length === 0 ? ["Nothing that can be told in words."] : sentences.slice(0, 6)).map((sentence) => (
          <li key={sentence}>{sentence}</li>
        ))}
        {sentences.length > 6 && <li>and {sentences.length - 6} more</li>}
      </ul>
    </div>
  );
}

/** Two saves of one ladder: what the other window changed, what yours changes, and a choice. */
export function ConflictChoice({ began, conflict, onTheirs }: { began: LadderDraft; conflict: LadderConflict; onTheirs: () => void }) {
  const { present, mine } = conflict;
  return (
    <div role="alert" className="mb-3 max-h-[45vh] overflow-y-auto border-l-4 border-brick pl-4" tabIndex={-1}>
      <p className="font-semibold text-brick">Not saved: this ladder was changed in another window since you opened it here.</p>
      <div className="mt-2 grid gap-4 sm:grid-cols-2">
        <Changes title="Saved there" sentences={changesOf(began, present)} />
        <Changes title="Yours, still here" sentences={changesOf(began, mine)} />
      </div>
      <button type="button" className="link mt-2 min-h-11" onClick={onTheirs}>
        Take what was saved there, and drop mine
      </button>
    </div>
  );
}
