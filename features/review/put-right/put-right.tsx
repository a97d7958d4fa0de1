"use client";

import { useMemo, useState } from "react";
import { askedName } from "@/core/know/first-look";
import type { Trial } from "@/core/record";
import { wholeTrial } from "@/core/record/slim-trial";
import { BinButton, Choice } from "@/ui/form";
import { trialWords } from "@/ui/ribbon";
import { useWay } from "@/ui/way";
import { LOGGED_WORDS, logApart } from "../../device/log-apart";
import { BlockRight } from "./block-right";
import type { PutRightFacts, PutRightRecord, RightRecord, Saving } from "./facts";
import { SessionRight } from "./session-right";
import { TrialRight } from "./trial-right";
import { type Chosen, useChosen } from "./use-chosen";
import { WasPutRight } from "./was-put-right";

/** The criterion a trial was asked by; null where it stands in no block. */
const criterionOf = ({ blocks }: RightRecord, { blockIndex }: Trial) =>
  blockIndex === null ? null : (blocks[blockIndex]?.criterion ?? null);
const phasesOf = (record: RightRecord, trial: Trial) => criterionOf(record, trial)?.phases ?? [];

/** Everything that can be chosen, in words. */
const choicesOf = (record: RightRecord) => [
  { value: "session", label: "the session: horse, handler, place, time" },
  ...record.blocks.map((one, i) => ({
    value: `b${i}`,
    label: `block ${one.number}: ${[one.behaviour, askedName(one) ?? []].flat().join(", ")}`,
  })),
  ...record.trials.map((one, i) => ({ value: `t${i}`, label: `trial ${trialWords(one, phasesOf(record, one))}` })),
];

/** What is chosen, with its own fields. */
function ChosenRight({
  chosen,
  record,
  facts,
  saving,
  onSaved,
}: {
  chosen: Chosen;
  record: RightRecord;
  facts: PutRightFacts;
  saving: Saving;
  onSaved: (message: string) => void;
}) {
  if (chosen === "session") return <SessionRight record={record} facts={facts} onSaved={onSaved} />;
  const at = Number(chosen.slice(1));
  const block = chosen.startsWith("b") ? record.blocks[at] : undefined;
  if (block !== undefined)
    return <BlockRight key={block.eventId} block={block} record={record} rungs={facts.rungs[at] ?? []} saving={saving} />;
  const trial = chosen.startsWith("t") ? record.trials[at] : undefined;
  if (trial === undefined) return null;
  return (
    <TrialRight key={trial.eventId} trial={trial} phases={phasesOf(record, trial)} criterion={criterionOf(record, trial)} saving={saving} />
  );
}

/** Anything of a session put right or struck, with the reason; what was is kept as events and can be brought back. */
export function PutRight({
  record: given,
  facts,
  first = null,
}: {
  record: PutRightRecord;
  facts: PutRightFacts;
  /** The number of the trial it opens on; null for none. */
  first?: number | null;
}) {
  const way = useWay();
  const record = useMemo(() => ({ ...given, trials: given.trials.map(wholeTrial) }), [given]);
  const { panel, opened, setOpened, chosen, setChosen } = useChosen(given, first);
  const [busy, setBusy] = useState(false);
  const [message, setMessage] = useState<string | null>(null);
  const { storeId, sessionId, corrections } = facts;
  const save: Saving["save"] = async (list) => {
    setBusy(true);
    const logged = await logApart(storeId, sessionId, list);
    setBusy(false);
    setChosen("session");
    setMessage(logged === "sent" ? "Put right." : LOGGED_WORDS[logged]);
    way.refresh();
  };
  const saving = { save, busy };
  return (
    <details
      ref={panel}
      id="put-right"
      className="no-print mt-9 border-t-2 border-hair pt-3"
      data-testid="put-right"
      onToggle={(event) => event.currentTarget.open && setOpened(true)}
    >
      <summary className="link inline-block">Put something right</summary>
      {opened && (
        <div className="mt-3 grid max-w-4xl gap-4">
          <Choice small label="What" value={chosen} options={choicesOf(record)} onChosen={(key) => setChosen(key as Chosen)} />
          <ChosenRight chosen={chosen} record={record} facts={facts} saving={saving} onSaved={setMessage} />
          <p role="status" className="font-semibold">
            {message}
          </p>
          <WasPutRight corrections={corrections} saving={saving} />
          <p>
            <BinButton kind="session" id={sessionId} name="this session" onwards={`/horses/${facts.horseId}/review`} />
          </p>
        </div>
      )}
    </details>
  );
}
