"use client";

import { useEffect, useState } from "react";
import { useForm } from "react-hook-form";
import { Choice, named, Problem, send, TextBox } from "@/ui/form";
import { useWay } from "@/ui/way";
import { Why } from "./ends";
import type { PutRightFacts, RightRecord } from "./facts";

interface Found {
  readonly horses: readonly {
    readonly id: string;
    readonly name: string;
    readonly ladders: readonly { readonly id: string; readonly name: string }[];
  }[];
}

/** Chosen where the ladder goes along to the other horse. */
const ALONG = "along";

const two = (n: number) => String(n).padStart(2, "0");
/** A moment as a field for date and time takes it, in the device's own time. */
const asTyped = (ms: number) => {
  const d = new Date(ms);
  return `${d.getFullYear()}-${two(d.getMonth() + 1)}-${two(d.getDate())}T${two(d.getHours())}:${two(d.getMinutes())}`;
};
const orNull = (id: string) => (id === "" ? null : id);

/** A session's own facts as they are typed anew. */
interface TypedSession {
  horse: string;
  ladder: string;
  person: string;
  place: string;
  when: string;
}

/** What of the session was typed otherwise than it was. */
export function sessionChange(was: TypedSession, typed: TypedSession, startWallMs: number | null) {
  return {
    ...(typed.horse === was.horse
      ? {}
      : { horse: typed.horse, ...(typed.ladder === ALONG ? { take_along: true } : { ladder: orNull(typed.ladder) }) }),
    ...(typed.person === was.person ? {} : { person: orNull(typed.person) }),
    ...(typed.place === was.place ? {} : { place: orNull(typed.place) }),
    // The field knows minutes only: what was not touched keeps its seconds.
    ...(typed.when === was.when || typed.when === "" || startWallMs === null
      ? {}
      : { started_ms: startWallMs + (new Date(typed.when).getTime() - new Date(was.when).getTime()) }),
  };
}

/** Horse, handler, place and time of a whole session put right. */
export function SessionRight({
  record,
  facts,
  onSaved,
}: {
  record: Pick<RightRecord, "header" | "startWallMs" | "blocks">;
  facts: PutRightFacts;
  onSaved: (message: string) => void;
}) {
  const way = useWay();
  const { sessionId, horseId, people, places } = facts;
  const [found, setFound] = useState<Found | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    void send<Found>("GET", "/api/find").then((sent) => sent.ok && setFound(sent.value));
  }, []);
  const was: TypedSession = {
    horse: horseId,
    ladder: "",
    person: facts.personId ?? "",
    place: facts.placeId ?? "",
    when: record.startWallMs === null ? "" : asTyped(record.startWallMs),
  };
  const { register, watch, handleSubmit, formState } = useForm({ defaultValues: { ...was, why: "" } });
  const { why, ...typed } = watch();
  const change = sessionChange(was, typed, record.startWallMs);
  const horses = found?.horses ?? [{ id: horseId, name: record.header?.horse ?? "this horse", ladders: [] }];
  const ladders = horses.find(({ id }) => id === typed.horse)?.ladders ?? [];
  const onLadder = record.blocks.some((block) => block.ladder !== null);
  const save = handleSubmit(async () => {
    const sent = await send("POST", `/api/sessions/${sessionId}/put-right`, { ...change, reason: why.trim() });
    setProblem(sent.ok ? null : sent.message);
    if (!sent.ok) return;
    onSaved("Put right.");
    if (typed.horse !== horseId) way.push(`/horses/${typed.horse}/review/${sessionId}`);
    way.refresh();
  });
  return (
    <div className="grid gap-3 sm:grid-cols-4">
      <Choice small label="Horse" options={named(horses)} {...register("horse")} />
      {typed.horse !== horseId && (
        <Choice
          small
          label="Counts there for"
          empty="no ladder"
          options={[...(onLadder ? [{ value: ALONG, label: "the same ladder, taken along" }] : []), ...named(ladders)]}
          {...register("ladder")}
        />
      )}
      <Choice small label="Handler" empty="nobody named" options={named(people)} {...register("person")} />
      <Choice small label="Place" empty="no place" options={named(places)} {...register("place")} />
      <TextBox small label="Begun" type="datetime-local" width="figures" {...register("when")} />
      <Why {...register("why")} />
      <div className="flex flex-wrap items-center gap-3 sm:col-span-full">
        <button
          type="button"
          className="act"
          disabled={formState.isSubmitting || why.trim() === "" || Object.keys(change).length === 0}
          onClick={() => void save()}
        >
          Put it right
        </button>
        <Problem>{problem}</Problem>
      </div>
    </div>
  );
}
