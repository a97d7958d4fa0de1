"use client";

import { useState } from "react";
import { rungsBetween } from "@/core/ladder";
import { criterionSentence } from "@/core/strands";
import { rungNumber } from "../block-facts";
import { leftOn } from "../ladders";
import { useActs, useLog, useNow, useStart } from "../state";
import type { LadderPart } from "../types";

type Run = (work: () => Promise<string | null | undefined>) => Promise<void>;

/** A ladder to go over to: where it begins, where it was left today, or why it is closed. */
function LadderButton({ part, busy }: { part: LadderPart; busy: boolean }) {
  const start = useStart();
  const { block } = useNow();
  const { record } = useLog();
  const act = useActs();
  const here = part.ladderId === start.part.ladderId;
  const left = leftOn(part, record);
  const back = left === null ? { rung: part.next.rung, kind: part.next.kind } : { rung: left, kind: "work" as const };
  return (
    <button
      type="button"
      disabled={busy || here || part.next.barred !== null}
      onClick={() => act.begin({ side: block?.side ?? "L", ...back, part })}
      className="block w-full border-t-2 border-hair py-3 text-left enabled:hover:bg-paper disabled:text-soft"
    >
      <span className="block font-head text-lg font-bold">
        {part.behaviour}
        {here && <span className="font-sans text-sm font-normal"> · in work</span>}
      </span>
      <span className="block text-sm">
        {part.next.barred ?? (left === null ? part.next.headline : `Back to rung ${left}, where it was left`)}
      </span>
    </button>
  );
}

/** Something that has no ladder yet: it is named, gets a first one, and is begun. */
function SomethingNew({ busy, run, onProblem }: { busy: boolean; run: Run; onProblem: (problem: string) => void }) {
  const { parts } = useStart();
  const act = useActs();
  const [name, setName] = useState("");
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        const trimmed = name.trim();
        if (trimmed === "") return onProblem("Give it a name first.");
        if (parts.some(({ behaviour }) => behaviour.toLowerCase() === trimmed.toLowerCase()))
          return onProblem("There is a ladder of that name.");
        void run(async () => {
          await act.nameNew(trimmed);
          return null;
        });
      }}
    >
      <label className="block font-semibold">
        Something new
        <input
          value={name}
          maxLength={80}
          onChange={(event) => setName(event.target.value)}
          placeholder="what it is called"
          autoComplete="off"
          className="field-box mt-1 min-h-12 font-normal"
        />
      </label>
      <button type="submit" disabled={busy} className="act-quiet mt-2 min-h-14 w-full">
        Name it and begin
      </button>
      <p className="mt-1 text-sm text-soft">A first ladder is made: any try, then lighter and lighter. Shape it later.</p>
    </form>
  );
}

/** Going over to something else without leaving the recorder: another ladder, a rung in between, or something new. */
export function LadderSheet() {
  const start = useStart();
  const { block } = useNow();
  const act = useActs();
  const { parts } = start;
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const rung = block === null ? start.part.next.rung : rungNumber(start, block);
  const { plan } = start.part;
  const labels = plan.phases.map(({ label }) => label);
  const between = start.part.ladderId === null || rung < 2 ? [] : rungsBetween(plan.strands, plan.rungs, rung, plan.phases.length);
  const run: Run = async (work) => {
    setBusy(true);
    setProblem(null);
    const said = await work();
    setBusy(false);
    if (said != null) setProblem(said);
  };
  return (
    <div className="grid gap-5">
      {between.length > 0 && (
        <section>
          <h3 className="mb-1 font-semibold">
            A rung between {rung - 1} and {rung}
          </h3>
          {between.map((one, i) => (
            <p key={i}>{criterionSentence(plan.strands, one.values, labels)}</p>
          ))}
          <button
            type="button"
            disabled={busy}
            className="act mt-2 min-h-14 w-full"
            onClick={() => void run(() => act.putRungBetween(rung))}
          >
            Put it in and work it
          </button>
          <p className="mt-1 text-sm text-soft">The ladder gets a new version; what was worked stays where it was.</p>
        </section>
      )}
      <section>
        <h3 className="mb-1 font-semibold">Another ladder</h3>
        <div className="border-b-2 border-hair">
          {parts.map((part) => (
            <LadderButton key={part.ladderId} part={part} busy={busy} />
          ))}
          {parts.length === 0 && (
            <p className="py-2 text-soft">{start.today.unread ? "Its ladders are on the computer." : "No ladder yet."}</p>
          )}
        </div>
      </section>
      <SomethingNew busy={busy} run={run} onProblem={setProblem} />
      {problem !== null && (
        <p role="alert" className="font-semibold text-brick">
          {problem}
        </p>
      )}
    </div>
  );
}
