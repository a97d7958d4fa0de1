"use client";

import { useForm } from "react-hook-form";
import type { Criterion } from "@/core/ladder";
import type { Block } from "@/core/record";
import { Choice } from "@/ui/form";
import { Ends, SIDES, Why } from "./ends";
import { type RightRecord, type Saving, strikes } from "./facts";

const KINDS = ["work", "warm-up", "probe", { value: "sure", label: "easy one" }] as const;

/** Facts that belong to the session, also where they fell into a block. */
const OF_THE_SESSION: ReadonlySet<string> = new Set(["session.start", "session.end", "note", "word", "aftercare", "preflight"]);

/** Every event of a block: its start, its trials and what was tapped in it; what belongs to the session stays. */
export function eventsOfBlock(block: Block, { trials, facts, blocks, finishMs, lastMs }: RightRecord): readonly string[] {
  const end = block.endMs ?? finishMs ?? lastMs;
  const inside = facts.filter(
    ({ id, type, ms }) => ms >= block.startMs && ms <= end && !OF_THE_SESSION.has(type) && (type !== "block.start" || id === block.eventId),
  );
  const own = trials.filter(({ blockIndex }) => blocks[blockIndex ?? -1] === block);
  return [
    ...new Set([block.eventId, ...inside.map(({ id }) => id), ...own.flatMap(({ eventId, eventIds = [] }) => [eventId, ...eventIds])]),
  ];
}

/** One block put right, or struck with all its trials. */
export function BlockRight({
  block,
  record,
  rungs,
  saving,
}: {
  block: Block;
  record: RightRecord;
  rungs: readonly Criterion[];
  saving: Saving;
}) {
  const was = { rung: String(block.rung), side: String(block.side ?? ""), kind: String(block.kind ?? "work") };
  const { register, watch } = useForm({ defaultValues: { ...was, why: "" } });
  const { rung, side, kind, why } = watch();
  const payload = {
    // The rung's own criterion comes with it: its answers are checked anew.
    ...(rung === was.rung ? {} : { rung: Number(rung), criterion: { ...rungs[Number(rung) - 1] } }),
    ...(side === was.side ? {} : { side }),
    ...(kind === was.kind ? {} : { kind }),
  };
  const reason = why.trim();
  const trials = record.trials.filter(({ blockIndex }) => record.blocks[blockIndex ?? -1] === block).length;
  return (
    <div className="grid gap-3 sm:grid-cols-4">
      {rungs.length > 0 && (
        <Choice
          small
          label="Rung"
          options={rungs.map(({ sentence }, i) => ({ value: String(i + 1), label: `${i + 1}: ${sentence}` }))}
          {...register("rung")}
        />
      )}
      <Choice small label="Side" empty="–" options={SIDES} {...register("side")} />
      <Choice small label="Kind" options={KINDS} {...register("kind")} />
      <Why {...register("why")} />
      <p className="text-sm text-soft sm:col-span-full">
        With the block {trials === 1 ? "goes its 1 trial" : `go its ${trials} trials`} when it is struck.
      </p>
      <Ends
        what="block"
        why={why}
        changed={Object.keys(payload).length > 0}
        saving={saving}
        onSave={() => void saving.save([{ type: "correct", payload: { event: block.eventId, payload, reason } }])}
        onStrike={() => void saving.save(strikes(eventsOfBlock(block, record), reason))}
      />
    </div>
  );
}
