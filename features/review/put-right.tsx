"use client";

import { useEffect, useEffectEvent, useMemo, useRef, useState } from "react";
import { flushSync } from "react-dom";
import { askedName } from "@/core/know/first-look";
import { type Criterion, MOVEMENT_GRADES } from "@/core/ladder";
import type { Block, Correction, RightTrial, SessionRecord, SlimTrial, TimedFact, Trial } from "@/core/record";
import { wholeTrial } from "@/core/record/slim-trial";
import type { Fact, SessionEvent } from "@/core/schemas";
import { EASE_GRADES } from "@/core/strands";
import { Day } from "@/ui/day";
import { BinButton } from "@/ui/form";
import { trialWords } from "@/ui/ribbon";
import { useWay } from "@/ui/way";
import { LOGGED_WORDS, logApart } from "../device/log-apart";
import { CHOOSE_TRIAL } from "./chosen-trial";
import { SessionRight } from "./session-right";

type Correcting = Extract<Fact, { type: "correct" }>;

/** What of a session can be put right: of its facts no more than what stands where, and those of trials only there. */
export interface PutRightRecord extends Pick<SessionRecord, "header" | "startWallMs" | "finishMs" | "lastMs" | "blocks"> {
  readonly trials: readonly SlimTrial[];
  readonly facts: readonly Pick<TimedFact, "id" | "type" | "ms">[];
}

/** What is needed to put a session right, beside its record. */
export interface PutRightFacts {
  readonly storeId: string;
  readonly horseId: string;
  readonly sessionId: string;
  readonly personId: string | null;
  readonly placeId: string | null;
  readonly people: readonly { readonly id: string; readonly name: string }[];
  readonly places: readonly { readonly id: string; readonly name: string }[];
  /** For each block the criteria of its ladder's rungs, as they were in its version; empty where there is no ladder. */
  readonly rungs: readonly (readonly Criterion[])[];
  readonly corrections: readonly Correction[];
}

const REASONS = ["tapped wrong", "wrong side", "was no ask", "seen on film"];

/** The reason, asked for each time: what was stands beside it as an event. */
function Why({ value, onChange }: { value: string; onChange: (why: string) => void }) {
  return (
    <label className="text-sm font-semibold">
      Why
      <input
        list="put-right-reasons"
        value={value}
        maxLength={500}
        onChange={(event) => onChange(event.target.value)}
        className="field-box mt-0.5 font-normal"
      />
      <datalist id="put-right-reasons">
        {REASONS.map((reason) => (
          <option key={reason} value={reason} />
        ))}
      </datalist>
    </label>
  );
}

function Choice({
  label,
  value,
  list,
  onChange,
}: {
  label: string;
  value: string;
  list: readonly (readonly [string, string])[];
  onChange: (value: string) => void;
}) {
  return (
    <label className="text-sm font-semibold">
      {label}
      <select aria-label={label} value={value} onChange={(event) => onChange(event.target.value)} className="field-box mt-0.5 font-normal">
        {list.map(([id, words]) => (
          <option key={id} value={id}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}

interface Saving {
  readonly save: (corrections: readonly Correcting[]) => Promise<void>;
  readonly busy: boolean;
}

const strikes = (ids: readonly string[], reason: string): Correcting[] =>
  ids.map((event) => ({ type: "correct", payload: { event, strike: true, reason } }));

function Ends({
  why,
  changed,
  saving,
  onSave,
  onStrike,
  what,
}: {
  why: string;
  changed: boolean;
  saving: Saving;
  onSave: () => void;
  onStrike: () => void;
  what: string;
}) {
  const said = why.trim() !== "";
  return (
    <div className="flex flex-wrap items-center gap-3 sm:col-span-full">
      <button type="button" className="act" disabled={!said || !changed || saving.busy} onClick={onSave}>
        Put it right
      </button>
      <button type="button" className="act-quiet" disabled={!said || saving.busy} onClick={onStrike}>
        Strike the {what}
      </button>
      {!said && <span className="text-sm text-soft">Say why first.</span>}
    </div>
  );
}

const OUTCOMES = [
  ["met", "got it"],
  ["try", "try"],
  ["miss", "other"],
  ["refused", "no answer"],
] as const;
const SIDES = [
  ["", "–"],
  ["L", "left"],
  ["R", "right"],
] as const;

function TrialRight({
  trial,
  criterion,
  phases,
  saving,
}: {
  trial: Trial;
  criterion: Criterion | null;
  phases: readonly string[];
  saving: Saving;
}) {
  const [outcome, setOutcome] = useState<string>(trial.outcome);
  const [phase, setPhase] = useState(String(trial.phase ?? ""));
  const [side, setSide] = useState(String(trial.side ?? ""));
  const [value, setValue] = useState(trial.value === null ? "" : String(trial.value));
  const [ease, setEase] = useState(String(trial.ease ?? ""));
  const [movement, setMovement] = useState(String(trial.movement ?? ""));
  // Only where the movement is graded, by the rung or by a tap.
  const grades = criterion?.movement ?? MOVEMENT_GRADES;
  const moves = criterion?.min_movement !== undefined || trial.movement != null;
  const [zone, setZone] = useState(trial.zone ?? "");
  const [note, setNote] = useState(trial.note ?? "");
  const [why, setWhy] = useState("");
  const number = Number(value.replace(",", "."));
  const right: RightTrial = {
    ...(outcome === trial.outcome ? {} : { outcome: outcome as Trial["outcome"] }),
    ...(phase === String(trial.phase ?? "") || phase === "" ? {} : { phase: Number(phase) }),
    ...(side === String(trial.side ?? "") || side === "" ? {} : { side: side as "L" | "R" }),
    ...(value === (trial.value === null ? "" : String(trial.value)) || value.trim() === "" || !Number.isFinite(number)
      ? {}
      : { value: number }),
    ...(ease === String(trial.ease ?? "") || ease === "" ? {} : { ease: Number(ease) }),
    ...(movement === String(trial.movement ?? "") || movement === "" ? {} : { movement: Number(movement) }),
    ...(zone === (trial.zone ?? "") ? {} : { zone }),
    ...(note === (trial.note ?? "") ? {} : { note }),
  };
  return (
    <div className="grid gap-3 sm:grid-cols-4">
      <Choice label="Answer" value={outcome} list={OUTCOMES} onChange={setOutcome} />
      <Choice
        label="Cue"
        value={phase}
        list={[["", "–"], ...phases.map((label, i) => [String(i + 1), `${i + 1} ${label}`] as const)]}
        onChange={setPhase}
      />
      <Choice label="Side" value={side} list={SIDES} onChange={setSide} />
      <Choice
        label="Ease"
        value={ease}
        list={[["", "–"], ...EASE_GRADES.map((grade, i) => [String(i), `${i} ${grade}`] as const)]}
        onChange={setEase}
      />
      {moves && (
        <Choice
          label="Movement"
          value={movement}
          list={[["", "–"], ...grades.map((grade, i) => [String(i), `${i} ${grade}`] as const)]}
          onChange={setMovement}
        />
      )}
      <label className="text-sm font-semibold">
        Value{trial.unit ? `, ${trial.unit}` : ""}
        <input
          inputMode="decimal"
          value={value}
          onChange={(event) => setValue(event.target.value)}
          className="field-box figures mt-0.5 font-normal"
        />
      </label>
      <label className="text-sm font-semibold">
        Where
        <input value={zone} maxLength={80} onChange={(event) => setZone(event.target.value)} className="field-box mt-0.5 font-normal" />
      </label>
      <label className="text-sm font-semibold">
        Note
        <input value={note} maxLength={500} onChange={(event) => setNote(event.target.value)} className="field-box mt-0.5 font-normal" />
      </label>
      <Why value={why} onChange={setWhy} />
      <Ends
        what="trial"
        why={why}
        changed={Object.keys(right).length > 0}
        saving={saving}
        onSave={() =>
          void saving.save([{ type: "correct", payload: { event: trial.eventId, payload: { right: { ...right } }, reason: why.trim() } }])
        }
        onStrike={() => void saving.save(strikes([...new Set([trial.eventId, ...trial.eventIds])], why.trim()))}
      />
    </div>
  );
}

const KINDS = ["work", "warm-up", "probe", "sure"] as const;

function BlockRight({
  block,
  record,
  rungs,
  saving,
}: {
  block: Block;
  record: PutRightRecord;
  rungs: readonly Criterion[];
  saving: Saving;
}) {
  const [rung, setRung] = useState(block.rung);
  const [side, setSide] = useState(String(block.side ?? ""));
  const [kind, setKind] = useState<string>(block.kind ?? "work");
  const [why, setWhy] = useState("");
  const payload = {
    // The rung's own criterion comes with it: its answers are checked anew.
    ...(rung === block.rung ? {} : { rung: Number(rung), criterion: { ...rungs[Number(rung) - 1] } }),
    ...(side === String(block.side ?? "") ? {} : { side }),
    ...(kind === (block.kind ?? "work") ? {} : { kind }),
  };
  const end = block.endMs ?? record.finishMs ?? record.lastMs;
  const inside = record.facts.filter(
    ({ ms, type }) =>
      ms >= block.startMs && ms <= end && !["session.start", "session.end", "note", "word", "aftercare", "preflight"].includes(type),
  );
  const trials = record.trials.filter(({ blockIndex }) => record.blocks[blockIndex ?? -1] === block);
  const ids = [
    ...new Set([
      block.eventId,
      ...inside.filter(({ type, id }) => type !== "block.start" || id === block.eventId).map(({ id }) => id),
      ...trials.flatMap(({ eventId, eventIds = [] }) => [eventId, ...eventIds]),
    ]),
  ];
  return (
    <div className="grid gap-3 sm:grid-cols-4">
      {rungs.length > 0 && (
        <Choice
          label="Rung"
          value={rung}
          list={rungs.map(({ sentence }, i) => [String(i + 1), `${i + 1}: ${sentence}`] as const)}
          onChange={setRung}
        />
      )}
      <Choice label="Side" value={side} list={SIDES} onChange={setSide} />
      <Choice label="Kind" value={kind} list={KINDS.map((one) => [one, one === "sure" ? "easy one" : one] as const)} onChange={setKind} />
      <Why value={why} onChange={setWhy} />
      <p className="text-sm text-soft sm:col-span-full">
        With the block {trials.length === 1 ? "goes its 1 trial" : `go its ${trials.length} trials`} when it is struck.
      </p>
      <Ends
        what="block"
        why={why}
        changed={Object.keys(payload).length > 0}
        saving={saving}
        onSave={() => void saving.save([{ type: "correct", payload: { event: block.eventId, payload, reason: why.trim() } }])}
        onStrike={() => void saving.save(strikes(ids, why.trim()))}
      />
    </div>
  );
}

const WHAT: Partial<Record<SessionEvent["type"], string>> = {
  "session.start": "the session",
  "block.start": "a block",
  note: "a note",
  ask: "a trial",
  trial: "a trial",
};

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
  const keyOf = (number: number) => {
    const at = given.trials.findIndex((trial) => trial.number === number);
    return at < 0 ? null : `t${at}`;
  };
  const opens = first === null ? null : keyOf(first);
  const [chosen, setChosen] = useState(opens ?? "session");
  // Most who look at a session put nothing right: what it takes is drawn when it is opened.
  const [opened, setOpened] = useState(opens !== null);
  const panel = useRef<HTMLDetailsElement>(null);
  const open = (key: string | null) => {
    if (key === null || panel.current === null) return;
    panel.current.open = true;
    flushSync(() => {
      setOpened(true);
      setChosen(key);
    });
    panel.current.scrollIntoView({ block: "nearest" });
    panel.current.querySelector<HTMLElement>("select")?.focus({ preventScroll: true });
  };
  const openNow = useEffectEvent(open);
  const keyNow = useEffectEvent(keyOf);
  useEffect(() => openNow(opens), [opens]);
  useEffect(() => {
    const choose = (event: Event) => openNow(keyNow((event as CustomEvent<number>).detail));
    window.addEventListener(CHOOSE_TRIAL, choose);
    return () => window.removeEventListener(CHOOSE_TRIAL, choose);
  }, []);
  const [busy, setBusy] = useState(false);
  const [message, setMessage] = useState<string | null>(null);
  const { storeId, sessionId, corrections } = facts;
  const save = async (list: readonly Correcting[]) => {
    setBusy(true);
    const logged = await logApart(storeId, sessionId, list);
    setBusy(false);
    setChosen("session");
    setMessage(logged === "sent" ? "Put right." : LOGGED_WORDS[logged]);
    way.refresh();
  };
  const saving = { save, busy };
  const block = chosen.startsWith("b") ? record.blocks[Number(chosen.slice(1))] : undefined;
  const trial = chosen.startsWith("t") ? record.trials[Number(chosen.slice(1))] : undefined;
  const phasesOf = ({ blockIndex }: Trial) => (blockIndex === null ? [] : (record.blocks[blockIndex]?.criterion?.phases ?? []));
  const criterionOf = ({ blockIndex }: Trial) => (blockIndex === null ? null : (record.blocks[blockIndex]?.criterion ?? null));
  // What was struck in one moment is one line: a block with all its answers.
  const shown = corrections
    .filter(({ type }) => WHAT[type] !== undefined)
    .filter((one, _, all) => {
      const moment = all.filter(({ wallMs }) => wallMs === one.wallMs);
      return one === (moment.find(({ type }) => type === "block.start") ?? moment[0]);
    });
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
          <Choice
            label="What"
            value={chosen}
            list={[
              ["session", "the session: horse, handler, place, time"],
              ...record.blocks.map(
                (one, i) => [`b${i}`, `block ${one.number}: ${[one.behaviour, askedName(one) ?? []].flat().join(", ")}`] as const,
              ),
              ...record.trials.map((one, i) => [`t${i}`, `trial ${trialWords(one, phasesOf(one))}`] as const),
            ]}
            onChange={setChosen}
          />
          {chosen === "session" && <SessionRight record={record} facts={facts} onSaved={setMessage} />}
          {block !== undefined && (
            <BlockRight
              key={block.eventId}
              block={block}
              record={record}
              rungs={facts.rungs[record.blocks.indexOf(block)] ?? []}
              saving={saving}
            />
          )}
          {trial !== undefined && (
            <TrialRight key={trial.eventId} trial={trial} phases={phasesOf(trial)} criterion={criterionOf(trial)} saving={saving} />
          )}
          <p role="status" className="font-semibold">
            {message}
          </p>
          {shown.length > 0 && (
            <section>
              <h3 className="mb-1 font-semibold">What was put right</h3>
              <ul>
                {shown.map((one) => (
                  <li key={one.id} className="flex flex-wrap items-baseline gap-x-4 py-0.5">
                    <span>
                      <Day ms={one.wallMs} time />: {WHAT[one.type]} {one.struck ? "struck" : "put right"}. {one.reason}
                    </span>
                    {one.struck && (
                      <button
                        type="button"
                        className="link"
                        disabled={busy}
                        onClick={() =>
                          // What was struck with it, in the same moment, comes back with it.
                          void save(
                            corrections
                              .filter(({ struck, wallMs }) => struck && wallMs === one.wallMs)
                              .map(({ of }) => ({ type: "correct", payload: { event: of, strike: false, reason: "brought back" } })),
                          )
                        }
                      >
                        Bring back
                      </button>
                    )}
                  </li>
                ))}
              </ul>
            </section>
          )}
          <p>
            <BinButton kind="session" id={sessionId} name="this session" onwards={`/horses/${facts.horseId}/review`} />
          </p>
        </div>
      )}
    </details>
  );
}
