"use client";

import { useEffect, useState } from "react";
import type { SessionRecord } from "@/core/record";
import { send } from "@/ui/form";
import { useWay } from "@/ui/way";
import type { PutRightFacts } from "./put-right";

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

/** Horse, handler, place and time of a whole session put right. */
export function SessionRight({
  record,
  facts,
  onSaved,
}: {
  record: Pick<SessionRecord, "header" | "startWallMs" | "blocks">;
  facts: PutRightFacts;
  onSaved: (message: string) => void;
}) {
  const way = useWay();
  const { sessionId, horseId, people, places } = facts;
  const [found, setFound] = useState<Found | null>(null);
  const [horse, setHorse] = useState(horseId);
  const [ladder, setLadder] = useState("");
  const [person, setPerson] = useState(facts.personId ?? "");
  const [place, setPlace] = useState(facts.placeId ?? "");
  const begun = record.startWallMs === null ? "" : asTyped(record.startWallMs);
  const [when, setWhen] = useState(begun);
  const [why, setWhy] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  useEffect(() => {
    void send<Found>("GET", "/api/find").then((sent) => sent.ok && setFound(sent.value));
  }, []);
  const change = {
    ...(horse === horseId ? {} : { horse, ...(ladder === ALONG ? { take_along: true } : { ladder: ladder === "" ? null : ladder }) }),
    ...(person === (facts.personId ?? "") ? {} : { person: person === "" ? null : person }),
    ...(place === (facts.placeId ?? "") ? {} : { place: place === "" ? null : place }),
    // The field knows minutes only: what was not touched keeps its seconds.
    ...(when === begun || when === "" || record.startWallMs === null
      ? {}
      : { started_ms: record.startWallMs + (new Date(when).getTime() - new Date(begun).getTime()) }),
  };
  const onLadder = record.blocks.some((block) => block.ladder !== null);
  const other = found?.horses.find(({ id }) => id === horse);
  const save = async () => {
    setBusy(true);
    const sent = await send("POST", `/api/sessions/${sessionId}/put-right`, { ...change, reason: why.trim() });
    setBusy(false);
    setProblem(sent.ok ? null : sent.message);
    if (!sent.ok) return;
    onSaved("Put right.");
    if (horse !== horseId) way.push(`/horses/${horse}/review/${sessionId}`);
    way.refresh();
  };
  const field = "field-box mt-0.5 font-normal";
  return (
    <div className="grid gap-3 sm:grid-cols-4">
      <label className="text-sm font-semibold">
        Horse
        <select aria-label="Horse" value={horse} onChange={(event) => setHorse(event.target.value)} className={field}>
          {(found?.horses ?? [{ id: horseId, name: record.header?.horse ?? "this horse" }]).map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      {horse !== horseId && (
        <label className="text-sm font-semibold">
          Counts there for
          <select aria-label="Counts there for" value={ladder} onChange={(event) => setLadder(event.target.value)} className={field}>
            <option value="">no ladder</option>
            {onLadder && <option value={ALONG}>the same ladder, taken along</option>}
            {other?.ladders.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
      )}
      <label className="text-sm font-semibold">
        Handler
        <select aria-label="Handler" value={person} onChange={(event) => setPerson(event.target.value)} className={field}>
          <option value="">nobody named</option>
          {people.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <label className="text-sm font-semibold">
        Place
        <select aria-label="Place" value={place} onChange={(event) => setPlace(event.target.value)} className={field}>
          <option value="">no place</option>
          {places.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <label className="text-sm font-semibold">
        Begun
        <input type="datetime-local" value={when} onChange={(event) => setWhen(event.target.value)} className={`${field} figures`} />
      </label>
      <label className="text-sm font-semibold">
        Why
        <input value={why} maxLength={500} onChange={(event) => setWhy(event.target.value)} className={field} />
      </label>
      <div className="flex flex-wrap items-center gap-3 sm:col-span-full">
        <button
          type="button"
          className="act"
          disabled={busy || why.trim() === "" || Object.keys(change).length === 0}
          onClick={() => void save()}
        >
          Put it right
        </button>
        {problem !== null && (
          <span role="alert" className="font-semibold text-brick">
            {problem}
          </span>
        )}
      </div>
    </div>
  );
}
