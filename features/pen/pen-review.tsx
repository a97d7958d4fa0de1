"use client";

import { useEffect, useState } from "react";
import { criterionOf } from "@/core/ladder";
import { handlerOfBegun } from "@/core/pack";
import { reduceSession, type SessionRecord } from "@/core/record";
import type { SessionEvent } from "@/core/schemas";
import { todayOf } from "@/core/today";
import { useUnits } from "@/ui/units";
import { noAnswerWords } from "../device/own-machine";
import { senderFor } from "../device/sender";
import { StatusLine } from "../device/status-line";
import { reviewFacts } from "../review/facts";
import { Review } from "../review/review";
import type { KeptYard } from "./opened";
import { offsetsOf } from "./own";
import { type FoundSession, findSession, wholeSession } from "./pen-session";
import { Reading } from "./reading";
import type { HeldHorse } from "./use-held";

interface Read {
  readonly found: FoundSession;
  readonly events: readonly SessionEvent[];
  readonly record: SessionRecord;
  /** Whether the server's part of it could be read as well. */
  readonly whole: boolean;
}

/** A session's taps: those of this device, and the server's where it answers. */
async function readSession(yard: KeptYard, id: string): Promise<Read | null> {
  const sender = senderFor(yard.store);
  const [found, whole] = await Promise.all([findSession(yard.store, id), wholeSession(id)]);
  if (found === null) return null;
  const own = await sender.ofSession(id);
  const known = new Set(whole?.events.map((event) => event.id));
  const events = [...(whole?.events ?? []), ...own.filter((event) => !known.has(event.id))];
  const offsetMsByLoad = await offsetsOf(sender, events, yard.offsetMs, whole?.clocks);
  const { silenceMinutes } = yard.yard.facts.settings;
  return { found, events, record: reduceSession(events, { offsetMsByLoad, silenceMinutes }), whole: whole !== null };
}

/** The review of a session, worked out on this device by the same reducer as on the server. */
export function PenReview({ yard, held, id }: { yard: KeptYard; held: HeldHorse; id: string }) {
  const units = useUnits();
  const [read, setRead] = useState<Read | null | "reading">("reading");
  const { revision } = held;
  // biome-ignore lint/correctness/useExhaustiveDependencies: read anew with each refresh
  useEffect(() => {
    let gone = false;
    void readSession(yard, id).then((one) => !gone && setRead(one));
    return () => {
      gone = true;
    };
  }, [yard, id, revision]);
  if (read === "reading" || held.pack === null) return <Reading />;
  if (read === null) return <p className="text-lg">This session is not kept in this browser. {noAnswerWords()}</p>;
  const { pack } = held;
  const { facts } = yard.yard;
  const { begun, createdMs } = read.found;
  const now = todayOf(pack, facts, held.nowMs, handlerOfBegun(begun));
  const plans = new Map(pack.ladders.map(({ id: ladder, version, plan }) => [`${version} ${ladder}`, plan]));
  return (
    <>
      <div className="mb-4">
        <StatusLine storeId={yard.store} tapped={() => read.events} />
        {!read.whole && (
          <p className="text-sm text-soft">From what this device has. What others tapped is added when the computer answers.</p>
        )}
      </div>
      <Review
        storeId={yard.store}
        horseId={pack.horse.id}
        sessionId={id}
        record={read.record}
        next={now.states.find(({ ladder }) => ladder.id === begun.ladder)?.next ?? null}
        sides={now.sides}
        settings={facts.settings}
        units={units}
        facts={reviewFacts(read.record, read.events, { kind: begun.kind, createdMs }, pack.digests, facts.settings)}
        restingBreaths={pack.horse.restingBreaths}
        heatLowerCelsius={now.heatLowerCelsius}
        zones={facts.places.find((place) => place.id === begun.place)?.zones ?? []}
        putRight={{
          storeId: yard.store,
          horseId: pack.horse.id,
          sessionId: id,
          personId: begun.person,
          placeId: begun.place,
          people: facts.people,
          places: facts.places,
          rungs: read.record.blocks.map(({ ladder, version }) => {
            const plan = plans.get(`${version} ${ladder}`);
            return plan === undefined ? [] : plan.rungs.map((_, i) => criterionOf(plan, i + 1));
          }),
        }}
      />
    </>
  );
}
