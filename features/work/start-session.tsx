"use client";

import { useState } from "react";
import type { HorsePack, Named, Unfinished, YardFacts } from "@/core/pack";
import type { HandlerChoices } from "@/core/start";
import type { OpenCoolDown } from "@/core/today";
import { kitCautions } from "@/core/welfare";
import { Day } from "@/ui/day";
import { Field, tied, useRequestIds } from "@/ui/form";
import { useWay, WayLink } from "@/ui/way";
import { beginSession } from "../device/begin-session";
import { goToSession } from "../pen/go-to-session";
import { UnfinishedSessions } from "./unfinished";

const NEW = "new";
/** No plan for today: what is worked is chosen or named in the recorder. */
const FREE = "free";

/** Someone or something chosen from a list, or named on the spot. */
function ChooseOrName({
  id,
  label,
  list,
  onChange,
  error,
}: {
  id: string;
  label: string;
  list: readonly Named[];
  onChange: (choice: string, name: string) => void;
  error?: string;
}) {
  const [choice, setChoice] = useState(list[0]?.id ?? NEW);
  const [name, setName] = useState("");
  return (
    <Field id={id} label={label} error={error}>
      {list.length > 0 && (
        <select
          {...tied(id, error)}
          value={choice}
          className="field-box"
          onChange={(event) => {
            setChoice(event.target.value);
            onChange(event.target.value, name);
          }}
        >
          {list.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
          <option value={NEW}>someone or somewhere new</option>
        </select>
      )}
      {choice === NEW && (
        <input
          {...(list.length > 0 ? { "aria-label": `${label}, new name` } : tied(id, error))}
          value={name}
          maxLength={80}
          placeholder="name"
          className="field-box mt-2"
          onChange={(event) => {
            setName(event.target.value);
            onChange(NEW, event.target.value);
          }}
        />
      )}
    </Field>
  );
}

/** With this one first. */
const firstOf = (list: readonly Named[], id: string | null) => [...list].sort((a, b) => Number(b.id === id) - Number(a.id === id));

/** Begins a session: which ladder, who, where. Everything is filled in with the likeliest choice. */
export function StartSession({
  horse,
  byHandler,
  yard,
  last,
  open,
  cooling = [],
  storeId,
  unread = false,
}: {
  horse: { id: string; name: string; away: string | null };
  /** What may be begun, by who handles: evidence belongs to the horse with its handler. */
  byHandler: readonly HandlerChoices[];
  yard: Pick<YardFacts, "people" | "places" | "kit">;
  /** Who worked the horse last, where and with what: taken again unless it is changed. */
  last: HorsePack["last"];
  /** Sessions begun and not finished, newest first. */
  open: readonly Unfinished[];
  /** Cool-downs that were begun and not ended. */
  cooling?: readonly OpenCoolDown[];
  storeId: string;
  /** Whether this device could not read the horse: its ladders are not missing, they are not seen. */
  unread?: boolean;
}) {
  const { kit } = yard;
  const people = firstOf(yard.people, last.person);
  const places = firstOf(yard.places, last.place);
  const way = useWay();
  const [person, setPerson] = useState({ choice: people[0]?.id ?? NEW, name: "" });
  const newcomer = byHandler.at(-1) as HandlerChoices;
  const { choices } = byHandler.find(({ handler }) => handler === person.choice) ?? newcomer;
  const { ladders, limits, doNext, noWork } = choices;
  const [ladder, setLadder] = useState(ladders.find(({ next }) => next.barred === null)?.id ?? FREE);
  const [taken, setTaken] = useState<ReadonlySet<string>>(() => new Set(last.kit.filter((id) => kit.some((one) => one.id === id))));
  const [place, setPlace] = useState({ choice: places[0]?.id ?? NEW, name: "" });
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  // One running session is gone on with; a second is not begun unasked.
  const [running, setRunning] = useState(open.some((one) => one.running));
  // A cap on circling that is used up asks for a word of why.
  const [capped, setCapped] = useState(false);
  const [against, setAgainst] = useState("");
  const ids = useRequestIds();
  const chosen = ladders.find((one) => one.id === ladder);
  const cautions =
    chosen === undefined
      ? []
      : kitCautions(
          kit.filter(({ id }) => taken.has(id)),
          chosen.kitUse,
        );

  const begin = async (beside = false) => {
    setBusy(true);
    setProblem(null);
    const named = ({ choice, name }: { choice: string; name: string }) => (choice === NEW ? name.trim() : "");
    const asked = {
      horse: horse.id,
      kind: "work" as const,
      ladder: chosen?.id ?? null,
      person: person.choice === NEW ? null : person.choice,
      place: place.choice === NEW ? null : place.choice,
      start_rung: chosen?.next.rung ?? null,
      kit: [...taken],
      ...(named(person) === "" ? {} : { person_name: named(person) }),
      ...(named(place) === "" ? {} : { place_name: named(place) }),
    };
    const why = against.trim();
    if (why !== "") Object.assign(asked, { against: why });
    const id = ids.idFor({ ...asked, beside });
    const begun = await beginSession(storeId, { id, ...asked }, { beside });
    if (begun.ok) return goToSession(way, begun, `/horses/${horse.id}/work/${id}`);
    if (begun.code === "session-running") setRunning(true);
    if (begun.code === "circling-cap") setCapped(true);
    setProblem(begun.message);
    setBusy(false);
  };

  return (
    <>
      <h1 className="text-[2rem]">Work {horse.name}</h1>
      {doNext !== null && (
        <p className="mt-2 border-l-4 border-tarn pl-4 font-head text-xl font-bold text-tarn">
          {doNext.text}
          <span className="block font-sans text-sm font-normal text-soft">
            for today, written <Day ms={doNext.dayMs} />
          </span>
        </p>
      )}
      {cooling.map(({ session, handedTo }) => (
        <p key={session} className="mt-3 border-l-4 border-ochre pl-4 font-semibold">
          A cool-down is not finished{handedTo === null ? "" : `, handed to ${handedTo}`}.{" "}
          <WayLink href={`/horses/${horse.id}/work/${session}`} className="link">
            Take the breathing again
          </WayLink>
        </p>
      ))}
      <UnfinishedSessions horseId={horse.id} storeId={storeId} sessions={open} />
      {horse.away !== null && (
        <p className="mt-4 border-l-4 border-brick pl-4 font-semibold text-brick">
          {horse.name} is put away: {horse.away}.{" "}
          <WayLink href={`/horses/${horse.id}/know/limits`} className="link">
            Bring it back
          </WayLink>{" "}
          before work.
        </p>
      )}
      {limits.length > 0 && (
        <div className="mt-4 border-l-4 border-brick pl-4 font-semibold text-brick">
          {limits.map((limit) => (
            <p key={limit}>{limit}</p>
          ))}
        </div>
      )}
      <div className="mt-6 grid grid-cols-[minmax(0,1fr)] gap-x-16 gap-y-7 lg:grid-cols-[1fr_22rem]">
        <fieldset>
          <legend className="mb-2 text-lg font-semibold">What</legend>
          <div className="border-b-2 border-hair">
            {ladders.map((one) => (
              <label
                key={one.id}
                className={`flex items-start gap-4 border-t-2 border-hair py-4 has-checked:bg-paper ${one.next.barred === null ? "cursor-pointer" : ""}`}
              >
                <input
                  type="radio"
                  name="ladder"
                  value={one.id}
                  checked={ladder === one.id}
                  disabled={one.next.barred !== null}
                  onChange={() => setLadder(one.id)}
                  className="mt-1.5 size-5 shrink-0 accent-(--tarn)"
                />
                <span>
                  <span className="block font-head text-xl font-bold">{one.name}</span>
                  <span className={`block font-semibold ${one.next.barred === null ? "text-tarn" : "text-brick"}`}>
                    {one.next.headline}
                  </span>
                  {one.next.barred === null && <span className="block text-lg">{one.criterion}</span>}
                  <span className="block text-soft">{one.next.reason}</span>
                  {one.next.barred !== null && (
                    <WayLink href={`/horses/${horse.id}/know/limits`} className="link text-sm">
                      See the limit, or go against it with a reason
                    </WayLink>
                  )}
                  {one.trying !== null && <span className="block text-sm font-semibold text-tarn">{one.trying}</span>}
                  {one.next.beside !== undefined && <span className="block text-sm text-soft">{one.next.beside}</span>}
                </span>
              </label>
            ))}
            <label className="flex cursor-pointer items-start gap-4 border-t-2 border-hair py-4 has-checked:bg-paper">
              <input
                type="radio"
                name="ladder"
                value={FREE}
                checked={ladder === FREE}
                disabled={noWork !== null}
                onChange={() => setLadder(FREE)}
                className="mt-1.5 size-5 shrink-0 accent-(--tarn)"
              />
              <span>
                <span className="block font-head text-xl font-bold">Free start</span>
                <span className="block text-soft">
                  {unread
                    ? "No plan for today. Name what you work on in the recorder."
                    : "No plan for today. Choose a ladder in the recorder, or name something new there."}
                </span>
              </span>
            </label>
          </div>
          {unread && <p className="mt-3">Its ladders are on the computer.</p>}
          {!unread && ladders.length === 0 && (
            <p className="mt-3">
              No ladder yet.{" "}
              <WayLink href={`/horses/${horse.id}/shape/new`} className="link">
                Plan one
              </WayLink>
              , or start free.
            </p>
          )}
          {!unread && (
            <p className="mt-3">
              <WayLink href={`/horses/${horse.id}/work/circle`} className="link">
                Circle work
              </WayLink>{" "}
              by a plan and a clock: on a line, in a pen, in long lines.
            </p>
          )}
          {ladders.length > 0 && (
            <p className="mt-3 text-soft">
              Worked without the app?{" "}
              <WayLink href={`/horses/${horse.id}/work/late`} className="link">
                Write a session down
              </WayLink>{" "}
              from memory or paper.
            </p>
          )}
        </fieldset>
        <div className="grid content-start gap-4">
          <ChooseOrName id="handler" label="Handler" list={people} onChange={(choice, name) => setPerson({ choice, name })} />
          <ChooseOrName id="place" label="Place" list={places} onChange={(choice, name) => setPlace({ choice, name })} />
          {kit.length > 0 && (
            <fieldset>
              <legend className="mb-1 font-semibold">Kit in hand</legend>
              <div className="flex flex-wrap gap-1.5">
                {kit.map((one) => (
                  <button
                    key={one.id}
                    type="button"
                    aria-pressed={taken.has(one.id)}
                    onClick={() =>
                      setTaken((all) => {
                        const next = new Set(all);
                        if (!next.delete(one.id)) next.add(one.id);
                        return next;
                      })
                    }
                    className={`min-h-11 rounded border-2 border-ink px-2.5 text-sm font-semibold ${taken.has(one.id) ? "bg-ink text-on-ink" : "bg-paper"}`}
                  >
                    {one.name}
                  </button>
                ))}
              </div>
              {cautions.map((caution) => (
                <p key={caution} className="mt-2 border-l-4 border-ochre pl-3 text-sm">
                  {caution}
                </p>
              ))}
            </fieldset>
          )}
          <button
            type="button"
            className={`${running ? "act-quiet" : "act text-xl"} min-h-16`}
            onClick={() => void begin(running)}
            disabled={busy || horse.away !== null || noWork !== null}
          >
            {running ? "Begin another beside the running one" : "Open the recorder"}
          </button>
          {[horse.away === null ? null : `Put away: ${horse.away}.`, noWork].map(
            (reason) =>
              reason !== null && (
                <p key={reason} className="border-l-4 border-brick pl-2 text-sm">
                  <strong>Closed.</strong> {reason}
                </p>
              ),
          )}
          {problem !== null && (
            <p role="alert" className="font-semibold text-brick">
              {problem}
            </p>
          )}
          {capped && (
            <label className="font-semibold">
              All the same, because
              <input
                value={against}
                maxLength={80}
                className="field-box mt-1 font-normal"
                onChange={(event) => setAgainst(event.target.value)}
              />
            </label>
          )}
          <p className="text-sm text-soft">
            Helmet, gloves, boots. A line folded in the hand, never wrapped. Horse sound and fed, pen shut. With a horse that has hurt
            someone, work beside a qualified professional.
          </p>
        </div>
      </div>
    </>
  );
}
