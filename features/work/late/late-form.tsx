"use client";

import { useState } from "react";
import { v5 as nameId, v4 as newId } from "uuid";
import { type LateBlock, lateBlockProblem, lateEvents, WRITTEN_NAMESPACE } from "@/core/entry";
import { criterionOf, type LadderPlan, sideAsked } from "@/core/ladder";
import { criterionSentence } from "@/core/strands";
import { Field, tied, useRequestIds } from "@/ui/form";
import { useWay } from "@/ui/way";
import { beginSession } from "../../device/begin-session";
import { recorderId } from "../../device/recorder-id";
import { senderFor } from "../../device/sender";

interface LateLadder {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly rung: number;
  readonly plan: LadderPlan;
}

interface Row {
  readonly key: string;
  readonly ladder: string;
  readonly rung: number;
  readonly side: "L" | "R" | "";
  readonly kind: "work" | "warm-up" | "probe" | "sure";
  readonly minutes: string;
  readonly met: string;
  readonly light: string;
  readonly try: string;
  readonly miss: string;
  readonly refused: string;
  readonly phase: number | null;
}

const COUNTS = [
  { key: "met", label: "Met" },
  { key: "light", label: "of them at the lightest cue" },
  { key: "try", label: "Try" },
  { key: "miss", label: "Something else" },
  { key: "refused", label: "No answer" },
] as const;

/** A count as typed: nothing is none. */
const count = (text: string) => (text.trim() === "" ? 0 : Number(text.trim().replace(",", ".")));

const localNow = (ms: number) => new Date(ms - new Date(ms).getTimezoneOffset() * 60_000).toISOString().slice(0, 16);

/** A session from memory or paper: blocks with counts, phases and rough times. */
export function LateForm({
  storeId,
  horse,
  ladders,
  people,
  places,
  nowMs,
}: {
  storeId: string;
  horse: { readonly id: string; readonly name: string };
  ladders: readonly LateLadder[];
  people: readonly { readonly id: string; readonly name: string }[];
  places: readonly { readonly id: string; readonly name: string }[];
  nowMs: number;
}) {
  const way = useWay();
  const first = ladders[0] as LateLadder;
  const blank = (like?: Row): Row => {
    const ladder = ladders.find(({ id }) => id === like?.ladder) ?? first;
    const rung = like?.rung ?? first.rung;
    return {
      key: newId(),
      ladder: ladder.id,
      rung,
      side: sideAsked(ladder.plan, rung) ?? (like?.side === "L" ? "R" : "L"),
      kind: "work",
      minutes: like?.minutes ?? "5",
      met: "",
      light: "",
      try: "",
      miss: "",
      refused: "",
      phase: null,
    };
  };
  const ids = useRequestIds();
  const [savedAs, setSavedAs] = useState("");
  const [when, setWhen] = useState(() => localNow(nowMs - 3 * 3_600_000));
  const [person, setPerson] = useState(people[0]?.id ?? "");
  const [place, setPlace] = useState(places[0]?.id ?? "");
  const [rows, setRows] = useState<readonly Row[]>(() => [blank()]);
  const [better, setBetter] = useState("");
  const [next, setNext] = useState("");
  const [problems, setProblems] = useState<Readonly<Record<string, string>>>({});
  const [message, setMessage] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  // Once the device keeps it, a second press must not write it down twice.
  const [kept, setKept] = useState(false);
  const change = (key: string, part: Partial<Row>) => setRows(rows.map((row) => (row.key === key ? { ...row, ...part } : row)));
  /** A rung that names a side is worked on that one. */
  const atRung = (row: Row, to: LateLadder, rung: number) => ({ rung, side: sideAsked(to.plan, rung) ?? row.side });
  const ladderOf = (row: Row) => ladders.find(({ id }) => id === row.ladder) ?? first;

  const asBlock = (row: Row): LateBlock => {
    const { id, version, name, plan } = ladderOf(row);
    return {
      behaviour: name,
      ladder: id,
      version,
      rung: row.rung,
      criterion: criterionOf(plan, row.rung),
      side: row.side === "" ? null : row.side,
      kind: row.kind,
      planned: plan.plannedRepetitions,
      minutes: count(row.minutes),
      met: count(row.met),
      try: count(row.try),
      miss: count(row.miss),
      refused: count(row.refused),
      metAtLightest: row.light.trim() === "" ? null : count(row.light),
      phase: row.phase,
    };
  };

  const save = async () => {
    const startWallMs = new Date(when).getTime();
    const blocks = rows.map(asBlock);
    const found: Record<string, string> = {};
    if (!Number.isFinite(startWallMs) || startWallMs < Date.UTC(1980, 0, 1)) found.when = "A day and a time are needed.";
    else if (startWallMs + blocks.reduce((sum, { minutes }) => sum + Math.max(0, minutes || 0), 0) * 60_000 > Date.now())
      found.when = "It must be over by now.";
    rows.forEach((row, i) => {
      const why = lateBlockProblem(blocks[i] as LateBlock);
      if (why !== null) found[row.key] = why;
    });
    setProblems(found);
    if (Object.keys(found).length > 0) return setMessage(null);
    setBusy(true);
    setMessage(null);
    const asked = {
      horse: horse.id,
      kind: "work" as const,
      ladder: blocks[0]?.ladder ?? first.id,
      start_rung: blocks[0]?.rung ?? 1,
      person: person === "" ? null : person,
      place: place === "" ? null : place,
      kit: [],
    };
    const sessionId = ids.idFor({ ...asked, startWallMs });
    const begun = await beginSession(storeId, { id: sessionId, ...asked }, { startedMs: startWallMs });
    if (!begun.ok) {
      setBusy(false);
      return setMessage(begun.message);
    }
    const who = people.find(({ id }) => id === person)?.name ?? "";
    const events = lateEvents(
      {
        session: sessionId,
        recorder: recorderId(who),
        // A time that a person wrote is moved by no device's clock.
        load: nameId(sessionId, WRITTEN_NAMESPACE),
        startWallMs,
        horse: horse.name,
        handler: who,
        place: places.find(({ id }) => id === place)?.name ?? "",
        method: ladderOf(rows[0] as Row).plan.method,
        blocks,
        better,
        next,
      },
      newId,
    );
    const sender = senderFor(storeId);
    if (!(await sender.keep(events)) && !(await sender.flush(8000))) {
      setBusy(false);
      return setMessage(
        "This device does not keep it and the server does not answer. Keep this page open; it is sent as soon as it can be.",
      );
    }
    setKept(true);
    setSavedAs(sessionId);
    await toReview(sessionId);
  };

  const toReview = async (sessionId: string) => {
    setBusy(true);
    if ((await senderFor(storeId).flush(way.pen ? 2000 : 8000)) || way.pen) way.push(`/horses/${horse.id}/review/${sessionId}`);
    else {
      setBusy(false);
      setMessage("Kept on this device. The server does not answer; it is sent as soon as it does.");
    }
  };

  const named = (id: string, label: string, list: readonly { id: string; name: string }[], value: string, set: (value: string) => void) => (
    <Field id={id} label={label}>
      <select {...tied(id, undefined)} value={value} onChange={(event) => set(event.target.value)} className="field-box">
        <option value="">not said</option>
        {list.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </select>
    </Field>
  );

  return (
    <form
      noValidate
      className="max-w-3xl"
      onSubmit={(event) => {
        event.preventDefault();
        void (kept ? toReview(savedAs) : save());
      }}
    >
      <h1 className="text-[2rem]">Write a session down</h1>
      <p className="mt-1 mb-5 max-w-prose text-soft">
        From memory or paper. It is marked as written later and left out of every measure of timing. The order inside a block is not asked
        for; the answers are spread evenly.
      </p>
      <div className="grid gap-4 sm:grid-cols-3">
        <Field id="when" label="Began" error={problems.when}>
          <input
            {...tied("when", problems.when)}
            type="datetime-local"
            value={when}
            max={localNow(nowMs)}
            onChange={(event) => setWhen(event.target.value)}
            className="field-box figures"
          />
        </Field>
        {named("late-handler", "Handler", people, person, setPerson)}
        {named("late-place", "Place", places, place, setPlace)}
      </div>
      {rows.map((row, i) => {
        const ladder = ladderOf(row);
        const id = (what: string) => `${what}-${i + 1}`;
        const problem = problems[row.key];
        const phases = ladder.plan.phases.map(({ label }) => label);
        return (
          <fieldset
            key={row.key}
            className="mt-6 border-t-2 border-ink pt-3"
            aria-describedby={problem === undefined ? undefined : id("problem")}
          >
            <legend className="font-head text-lg font-bold">Block {i + 1}</legend>
            <div className="grid grid-cols-2 gap-3 sm:grid-cols-4">
              <label className="col-span-2 text-sm font-semibold">
                Ladder
                <select
                  value={row.ladder}
                  onChange={(event) => {
                    const to = ladders.find(({ id: one }) => one === event.target.value) ?? first;
                    change(row.key, { ladder: to.id, ...atRung(row, to, Math.min(row.rung, to.plan.rungs.length)), phase: null });
                  }}
                  className="field-box mt-1 font-normal"
                >
                  {ladders.map((one) => (
                    <option key={one.id} value={one.id}>
                      {one.name}
                    </option>
                  ))}
                </select>
              </label>
              <label className="text-sm font-semibold">
                Rung
                <select
                  value={row.rung}
                  onChange={(event) => change(row.key, atRung(row, ladder, Number(event.target.value)))}
                  className="field-box figures mt-1 font-normal"
                >
                  {ladder.plan.rungs.map((_, n) => (
                    <option key={n} value={n + 1}>
                      {n + 1}
                    </option>
                  ))}
                </select>
              </label>
              <label className="text-sm font-semibold">
                Side
                <select
                  value={row.side}
                  onChange={(event) => change(row.key, { side: event.target.value as Row["side"] })}
                  className="field-box mt-1 font-normal"
                >
                  <option value="L">left</option>
                  <option value="R">right</option>
                  <option value="">none</option>
                </select>
              </label>
            </div>
            <p className="mt-1.5 text-sm text-soft">
              {criterionSentence(ladder.plan.strands, ladder.plan.rungs[row.rung - 1]?.values ?? {}, phases)}
            </p>
            <div className="mt-3 grid grid-cols-2 gap-3 sm:grid-cols-5">
              {COUNTS.map(({ key, label }) => (
                <label key={key} className="flex flex-col justify-end text-sm font-semibold">
                  {label}
                  <input
                    inputMode="numeric"
                    value={row[key]}
                    placeholder={key === "light" ? "not said" : "0"}
                    onChange={(event) => change(row.key, { [key]: event.target.value })}
                    aria-invalid={problem !== undefined}
                    className="field-box figures mt-1 font-normal"
                  />
                </label>
              ))}
            </div>
            <div className="mt-3 grid grid-cols-2 gap-3 sm:grid-cols-4">
              <label className="text-sm font-semibold">
                About, minutes
                <input
                  inputMode="decimal"
                  value={row.minutes}
                  onChange={(event) => change(row.key, { minutes: event.target.value })}
                  className="field-box figures mt-1 font-normal"
                />
              </label>
              <label className="text-sm font-semibold">
                The others, mostly at
                <select
                  value={row.phase ?? ""}
                  onChange={(event) => change(row.key, { phase: event.target.value === "" ? null : Number(event.target.value) })}
                  className="field-box mt-1 font-normal"
                >
                  <option value="">not remembered</option>
                  {phases.map((label, n) => (
                    <option key={n} value={n + 1}>
                      {label}
                    </option>
                  ))}
                </select>
              </label>
              <label className="text-sm font-semibold">
                Kind
                <select
                  value={row.kind}
                  onChange={(event) => change(row.key, { kind: event.target.value as Row["kind"] })}
                  className="field-box mt-1 font-normal"
                >
                  <option value="work">work</option>
                  <option value="warm-up">warm-up</option>
                  <option value="probe">probe</option>
                  <option value="sure">easy one</option>
                </select>
              </label>
              {rows.length > 1 && (
                <button type="button" className="act-quiet self-end" onClick={() => setRows(rows.filter(({ key }) => key !== row.key))}>
                  Take away
                </button>
              )}
            </div>
            {problem !== undefined && (
              <p id={id("problem")} role="alert" className="mt-2 font-semibold text-brick">
                Block {i + 1}: {problem}
              </p>
            )}
          </fieldset>
        );
      })}
      <button type="button" className="act-quiet mt-4" disabled={rows.length >= 30} onClick={() => setRows([...rows, blank(rows.at(-1))])}>
        Another block
      </button>
      <div className="mt-6 grid gap-4 sm:grid-cols-2">
        <Field id="late-better" label="What was better">
          <input
            {...tied("late-better", undefined)}
            value={better}
            maxLength={300}
            onChange={(event) => setBetter(event.target.value)}
            className="field-box"
          />
        </Field>
        <Field id="late-next" label="What to do next time">
          <input
            {...tied("late-next", undefined)}
            value={next}
            maxLength={300}
            onChange={(event) => setNext(event.target.value)}
            className="field-box"
          />
        </Field>
      </div>
      {message !== null && (
        <p role="alert" className="mt-4 font-semibold text-brick">
          {message}
        </p>
      )}
      <button type="submit" className="act mt-5 min-h-16 px-8 text-xl" disabled={busy}>
        {kept ? "To the review" : "Save the session"}
      </button>
    </form>
  );
}
