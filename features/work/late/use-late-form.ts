"use client";

import { yupResolver } from "@hookform/resolvers/yup";
import { useState } from "react";
import { type Resolver, useFieldArray, useForm } from "react-hook-form";
import { v5 as nameId, v4 as newId } from "uuid";
import { type LateBlock, lateEvents, WRITTEN_NAMESPACE } from "@/core/entry";
import { useRequestIds } from "@/ui/form";
import { useWay } from "@/ui/way";
import { beginSession } from "../../device/begin-session";
import { recorderId } from "../../device/recorder-id";
import { senderFor } from "../../device/sender";
import { blankRow, type LateLadder, type LateValues, ladderOf, lateBlockOf, lateSchema } from "./late-values";

type Named = readonly { readonly id: string; readonly name: string }[];

/** What a session is written down with. */
export interface LateStart {
  readonly storeId: string;
  readonly horse: { readonly id: string; readonly name: string };
  readonly ladders: readonly LateLadder[];
  readonly people: Named;
  readonly places: Named;
  readonly nowMs: number;
}

/** A moment as a field of day and time shows it, by this device's clock. */
export const localMinute = (ms: number) => new Date(ms - new Date(ms).getTimezoneOffset() * 60_000).toISOString().slice(0, 16);

const nameOf = (id: string, list: Named) => list.find((one) => one.id === id)?.name ?? "";

/** A session typed from memory: checked, kept on the device as events, sent, then opened in Review. */
export function useLateForm({ storeId, horse, ladders, people, places, nowMs }: LateStart) {
  const way = useWay();
  const ids = useRequestIds();
  const [message, setMessage] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  // Once the device keeps it, a second press must not write it down twice.
  const [keptAs, setKeptAs] = useState<string | null>(null);
  const [resolver] = useState(() => yupResolver(lateSchema(ladders)) as unknown as Resolver<LateValues>);
  const form = useForm<LateValues>({
    resolver,
    defaultValues: {
      when: localMinute(nowMs - 3 * 3_600_000),
      person: people[0]?.id ?? "",
      place: places[0]?.id ?? "",
      rows: [blankRow(ladders)],
      better: "",
      next: "",
    },
  });
  const rows = useFieldArray({ control: form.control, name: "rows" });

  const stays = (why: string) => {
    setBusy(false);
    setMessage(why);
  };

  const toReview = async (session: string) => {
    setBusy(true);
    if ((await senderFor(storeId).flush(way.pen ? 2000 : 8000)) || way.pen) way.push(`/horses/${horse.id}/review/${session}`);
    else stays("Kept on this device. The server does not answer; it is sent as soon as it does.");
  };

  const write = async (values: LateValues) => {
    setBusy(true);
    setMessage(null);
    const startWallMs = new Date(values.when).getTime();
    const blocks = values.rows.map((row) => lateBlockOf(row, ladders)) as [LateBlock, ...LateBlock[]];
    const asked = {
      horse: horse.id,
      kind: "work" as const,
      ladder: blocks[0].ladder,
      start_rung: blocks[0].rung,
      person: values.person === "" ? null : values.person,
      place: values.place === "" ? null : values.place,
      kit: [],
    };
    const session = ids.idFor({ ...asked, startWallMs });
    const begun = await beginSession(storeId, { id: session, ...asked }, { startedMs: startWallMs });
    if (!begun.ok) return stays(begun.message);
    const who = nameOf(values.person, people);
    const events = lateEvents(
      {
        session,
        recorder: recorderId(who),
        // A time that a person wrote is moved by no device's clock.
        load: nameId(session, WRITTEN_NAMESPACE),
        startWallMs,
        horse: horse.name,
        handler: who,
        place: nameOf(values.place, places),
        method: ladderOf({ ladder: blocks[0].ladder }, ladders).plan.method,
        blocks,
        better: values.better,
        next: values.next,
      },
      newId,
    );
    const sender = senderFor(storeId);
    if (!(await sender.keep(events)) && !(await sender.flush(8000)))
      return stays("This device does not keep it and the server does not answer. Keep this page open; it is sent as soon as it can be.");
    setKeptAs(session);
    await toReview(session);
  };

  const save = form.handleSubmit(write);
  return {
    form,
    rows,
    another: () => rows.append(blankRow(ladders, form.getValues("rows").at(-1))),
    message,
    busy,
    kept: keptAs !== null,
    submit: () => void (keptAs === null ? save() : toReview(keptAs)),
  };
}
